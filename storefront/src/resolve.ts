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
	for (const dimension in reach) {
		const away = dimension.startsWith('not_');
		if (reach[dimension]!.includes(context[away ? dimension.slice(4) : dimension] ?? '') === away) return false;
	}
	return true;
}

/** Rules by the products that they name, and those that name none by the rest of a context; each asked once. */
type Index = { byProduct: Map<string, Rule[]>; wide: Rule[]; byRest: Map<string, Rule[]>; order: Map<Rule, number> };
const indexes = new WeakMap<readonly Rule[], Index>();

function indexOf(rules: readonly Rule[]): Index {
	let index = indexes.get(rules);
	if (index) return index;
	index = { byProduct: new Map(), wide: [], byRest: new Map(), order: new Map() };
	for (const rule of rules) {
		index.order.set(rule, index.order.size);
		if (!rule.reach.products) index.wide.push(rule);
		for (const sku of new Set(rule.reach.products)) {
			const named = index.byProduct.get(sku) ?? [];
			named.push(rule);
			index.byProduct.set(sku, named);
		}
	}
	indexes.set(rules, index);
	return index;
}

/** Returns the exceptions that cover a context now, in the order in which they apply. */
export function covering(rules: readonly Rule[], context: Context, now = Date.now()): Rule[] {
	const { byProduct, wide, byRest, order } = indexOf(rules);
	const sku = context.products ?? '';
	let key = '';
	for (const name in context) if (name !== 'products') key += `${context[name]}\n`;
	let about = byRest.get(key);
	if (!about) {
		const rest = { ...context, products: '' };
		byRest.set(key, (about = wide.filter((rule) => covers({ ...rule.reach, not_products: [] }, rest))));
	}
	const named = byProduct.get(sku)?.filter((rule) => covers(rule.reach, context));
	const both = named?.length ? [...about, ...named].sort((a, b) => order.get(a)! - order.get(b)!) : about;
	return both.filter(
		({ from = 0, until = Infinity, reach }) => from <= now && now < until && !reach.not_products?.includes(sku),
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
