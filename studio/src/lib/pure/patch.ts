import type { Patch } from '$lib/api/types';

/** Returns the smallest patch that sets one field, given by its dotted path. */
export function patchAt(path: string, value: unknown): Patch {
	return path.split('.').reduceRight<unknown>((inner, key) => ({ [key]: inner }), value) as Patch;
}

/** Returns the value at a dotted path, or undefined. */
export function valueAt(document: unknown, path: string): unknown {
	let found: unknown = document;
	for (const key of path.split('.')) {
		if (!found || typeof found !== 'object') return undefined;
		found = (found as Record<string, unknown>)[key];
	}
	return found;
}
