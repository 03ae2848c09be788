import type { Compiled, Manifest, Pattern, Product, Reach, Rule, Trial, Words } from './types';

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

/** Deals a shopper to a version; only where trials run. */
export type Deal = (salt: string, shopper: string, shares: Record<string, number>) => string;

export type Looker = { language: string; device: string; shopper: string; kind: string; deal?: Deal };

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

/** Returns the button for a place and a product, with the versions that the shopper gets; null where none is made. */
export function resolve(
	manifest: Manifest,
	place: string,
	product: Product,
	by: Looker,
	forced: Record<string, string>,
): Standing | null {
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
	let made: Compiled = found;
	const words = [manifest.words, standing.words, ...rules.map((rule) => rule.words ?? {})].reverse();
	let high = made.high;
	const versions: Record<string, string> = {};
	for (const trial of manifest.trials) {
		const letter = letterFor(trial, by, forced);
		if (!letter || !covers(trial.reach, context)) continue;
		const looks = trial.B.looks[place];
		const other: Compiled = looks?.[key] ?? looks?.[''] ?? made;
		versions[trial.id] = letter;
		high = Math.max(high, other.high);
		if (letter === 'B') {
			made = other;
			words.unshift(trial.B.words);
		}
	}
	return { made, high, versions, words };
}

function letterFor(trial: Trial, { shopper, deal }: Looker, forced: Record<string, string>): string {
	if (forced[trial.id]) return forced[trial.id] ?? '';
	// Whoever is not followed sees today's button: they would count in no trial.
	return trial.running && shopper && deal ? deal(trial.salt, shopper, trial.shares) : '';
}

/** Returns a moment's text: in the language, else in the store's first; where the moment has none, the ready text. */
export function textOf(words: readonly Words[], moment: string, language: string, first: string): Pattern {
	for (const at of [moment, 'ready'])
		for (const pick of [language, first, '']) {
			for (const layer of words) {
				const texts = layer[at];
				const found = texts && (pick ? texts[pick] : Object.values(texts)[0]);
				if (found) return found;
			}
		}
	return [];
}
