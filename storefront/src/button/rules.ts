import type { Context } from '../base/shop';
import type { Reach, Rule } from '../base/types';

/** Tells whether a reach holds a context: every list that it has does, and none of those that take away. */
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
