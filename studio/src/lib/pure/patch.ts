import type { Patch } from '$lib/api/types';

/** Returns the smallest patch that sets one field, given by its dotted path. */
export function patchAt(path: string, value: unknown): Patch {
	return path.split('.').reduceRight<unknown>((inner, key) => ({ [key]: inner }), value) as Patch;
}

/** The type of what stands at a dotted path; unknown where the path is not known beforehand. */
export type At<T, P extends string> = string extends P
	? unknown
	: P extends `${infer Key}.${infer Rest}`
		? Key extends keyof NonNullable<T>
			? At<NonNullable<T>[Key], Rest>
			: undefined
		: P extends keyof NonNullable<T>
			? NonNullable<T>[P]
			: undefined;

/** Returns the value at a dotted path, or undefined. */
export function valueAt<T, P extends string>(document: T, path: P): At<T, P> | undefined;
export function valueAt(document: unknown, path: string): unknown {
	let value: unknown = document;
	for (const key of path.split('.')) {
		if (!value || typeof value !== 'object') return undefined;
		value = (value as Record<string, unknown>)[key];
	}
	return value;
}
