import type { Patch } from '$lib/api/types';
import { patchAt, valueAt } from './patch';

/** Values that a layer replaces whole: to change a part of one is to write all of it. */
const WHOLE = [
	'icon',
	'look.size',
	'look.radius',
	'look.fill',
	'look.border',
	'look.shadows',
	'look.motion',
	...['hover', 'pressed', 'focus', 'disabled', 'working', 'added'].flatMap((state) =>
		['fill', 'border', 'shadows', 'motion'].map((part) => `look.${state}.${part}`),
	),
	'quantity',
	'second',
	'afterwards',
];

/** Returns the field that a path belongs to: `icon.size_px` belongs to `icon`. */
export function fieldOf(path: string): string {
	return WHOLE.find((whole) => path === whole || path.startsWith(`${whole}.`)) ?? path;
}

/** Returns the patch that sets a path in a document, writing tagged values whole. */
export function editOf(document: unknown, path: string, value: unknown): Patch {
	const field = fieldOf(path);
	if (field === path) return patchAt(path, value);
	const whole = valueAt(document, field) as Record<string, unknown>;
	return patchAt(field, { ...whole, [path.slice(field.length + 1)]: value });
}
