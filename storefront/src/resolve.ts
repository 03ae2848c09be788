import type { dealVersions } from './deal';
import { HOLE, withoutHoles } from './words';
import type { Compiled, Manifest, Pattern, Product, Reach, Rule, Words } from './types';

export type Standing = {
	made: Compiled;
	/** Height to reserve: the larger of the versions under trial. */
	high: number;
	versions: Record<string, string>;
	/** Texts by layer, the most particular first. */
	words: readonly Words[];
};

/** Where a button stands and for whom, by the dimensions of a reach. */
export type Context = Record<string, string>;

/** Who looks, and what deals them to versions where there are trials; `forced` are versions that a link asks for. */
export type Looker = {
	language: string;
	device: string;
	shopper: string;
	kind: string;
	deal?: typeof dealVersions;
	forced?: Record<string, string>;
};

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

export function covers(reach: Reach, context: Context): boolean {
	return Object.entries(reach).every(([dimension, list]) => {
		const away = dimension.startsWith('not_');
		return list.includes(context[away ? dimension.slice(4) : dimension] ?? '') !== away;
	});
}

/** Returns the exceptions that cover a context now, in the order in which they apply. */
export function covering(rules: readonly Rule[], context: Context, now = Date.now()): Rule[] {
	return rules.filter(
		(rule) => (rule.from ?? 0) <= now && now < (rule.until ?? Infinity) && covers(rule.reach, context),
	);
}

/** Returns the height to reserve on a device; nothing is ever 0 high. */
export const highOf = (made: Compiled, device: string) =>
	(made.high as Record<string, number>)[device] || (made.high as number);

/** Returns the button for a place and a product, with the versions that the shopper gets; null where none is made. */
export function resolve(manifest: Manifest, place: string, product: Product, by: Looker): Standing | null {
	const standing = manifest.places[place];
	if (!standing) return null;
	const context = contextOf(place, product, by);
	const rules = covering(manifest.rules, context);
	const key = rules
		.filter((rule) => rule.look)
		.map((rule) => rule.id)
		.join();
	const found = manifest.looks[standing.looks[key] ?? standing.looks[''] ?? -1];
	if (!found) return null;
	const words = [manifest.words, standing.words, ...rules.map((rule) => rule.words ?? {})].reverse();
	const stands = { made: found, high: highOf(found, by.device), versions: {}, words };
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
			const texts = words.flatMap(({ [at]: by = {} }) => {
				const pattern = pick ? by[pick] : Object.values(by)[0];
				return pattern ? fill(pattern) : [];
			});
			const text = texts.find((text) => !text.includes(HOLE)) || withoutHoles(texts[0] ?? '');
			if (text) return text;
		}
	return '';
}
