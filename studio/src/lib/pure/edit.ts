import { WHOLE_FIELDS } from './facts';
import type { Patch } from '$lib/api/types';
import { patchAt, valueAt } from './patch';

/** Returns the field that a path belongs to: `icon.size_px` belongs to `icon`. */
export function fieldOf(path: string): string {
	return WHOLE_FIELDS.find((whole) => path === whole || path.startsWith(`${whole}.`)) ?? path;
}

/** Returns the patch that sets values in a document by their paths, writing tagged values whole. */
export function editOf(document: unknown, values: Readonly<Record<string, unknown>>): Patch {
	let whole = document;
	const fields = new Set<string>();
	for (const [path, value] of Object.entries(values)) {
		whole = withValue(whole, path.split('.'), value);
		fields.add(fieldOf(path));
	}
	return together([...fields].map((field) => patchAt(field, valueAt(whole, field) ?? null)));
}

function withValue(target: unknown, [key, ...rest]: string[], value: unknown): unknown {
	if (key === undefined) return value;
	if (Array.isArray(target))
		return target.map((entry, n) => (String(n) === key ? withValue(entry, rest, value) : entry));
	const inner = target && typeof target === 'object' ? (target as Record<string, unknown>) : {};
	return { ...inner, [key]: withValue(inner[key], rest, value) };
}

/** Returns several patches as one. */
export function together(patches: readonly Patch[]): Patch {
	return patches.reduce((all, patch) => merged(all, patch) as Patch, {} as Patch);
}

function merged(first: unknown, other: unknown): unknown {
	if (!isBranch(first) || !isBranch(other)) return other;
	const both: Record<string, unknown> = { ...first };
	for (const [key, value] of Object.entries(other)) both[key] = key in both ? merged(both[key], value) : value;
	return both;
}

function isBranch(value: unknown): value is Record<string, unknown> {
	return typeof value === 'object' && value !== null && !Array.isArray(value) && !('kind' in value);
}
