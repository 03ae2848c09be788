import { HOLE, withoutHoles } from '../base/words';
import type { Context, Looker, Standing } from '../base/shop';
import type { Compiled, Manifest, Pattern, Product, Words } from '../base/types';

export function contextOf(place: string, product: Product, by: Looker): Context {
	return {
		products: product.sku,
		categories: product.category,
		situations: product.situation,
		placements: place,
		devices: by.device,
		languages: by.language,
		shoppers: by.kind,
	};
}

/** Returns the height to reserve on a device; nothing is ever 0 high. */
export const highOf = (look: Compiled, device: string) =>
	(look.high as Record<string, number>)[device] || (look.high as number);

/** Returns the button for a place and a product, with the versions that the shopper gets; null where none is made. */
export function resolve(manifest: Manifest, place: string, product: Product, by: Looker): Standing | null {
	const standing = manifest.places[place];
	if (!standing) return null;
	const context = contextOf(place, product, by);
	const rules = by.covering?.(manifest.rules, context) ?? [];
	const key = rules.flatMap(({ look, id }) => (look ? id : [])).join();
	const made = manifest.looks[standing.looks[key] ?? standing.looks['']!];
	if (!made) return null;
	const words = [manifest.words, standing.words, ...rules.map((rule) => rule.words ?? {})].reverse();
	const stands = { made, high: highOf(made, by.device), versions: {}, words };
	by.deal?.(stands, manifest.trials, place, key, context, by);
	return stands;
}

/**
 * Returns a moment's text as a product can say it: in the language, else in the store's first; where the moment has none,
 * the ready text. Where a product lacks a value that a text needs, the next wider rule's text that it can say is said.
 */
export function sayText(
	words: readonly Words[],
	moment: string,
	language: string,
	first: string,
	fill: (pattern: Pattern) => string,
): string {
	for (const at of [moment, 'ready'])
		for (const pick of [language, first, '']) {
			let holed = '';
			for (const { [at]: by } of words) {
				const pattern = by && (pick ? by[pick] : Object.values(by)[0]);
				const text = pattern ? fill(pattern) : '';
				if (text && !text.includes(HOLE)) return text;
				holed ||= text;
			}
			if ((holed = withoutHoles(holed))) return holed;
		}
	return '';
}
