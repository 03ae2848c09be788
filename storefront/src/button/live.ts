import type { Node } from '../base/shop';
import type { Language, MoneyRule, Pattern, Product } from '../base/types';
import { HOLE, minorUnits } from '../base/words';

/** Returns an amount, given as plain decimal text, as the language writes it, or nothing; halves go away from zero. */
export function moneyText(amount: string, rule: MoneyRule): string {
	const [, sign = '', whole, fraction = ''] = /^(-?)(\d+)(?:\.(\d*))?$/.exec(amount.trim()) ?? [];
	if (!whole) return '';
	const kept = (fraction + '0'.repeat(rule.digits + 1)).slice(0, rule.digits + 1);
	let minor = BigInt(whole + kept.slice(0, rule.digits));
	if (kept.charAt(rule.digits) >= '5') minor += BigInt(1);
	const figures = minor.toString().padStart(rule.digits + 1, '0');
	let rest = figures.slice(0, figures.length - rule.digits);
	const cents = figures.slice(figures.length - rule.digits);
	let grouped = rest.slice(-rule.primary);
	rest = rest.slice(0, -rule.primary);
	while (rest) {
		grouped = rest.slice(-rule.secondary) + rule.group + grouped;
		rest = rest.slice(0, -rule.secondary);
	}
	const minus = sign && minor ? rule.minus : '';
	return minus + rule.prefix + grouped + (cents ? rule.decimal + cents : '') + rule.suffix;
}

const amounts = new WeakMap<MoneyRule, Map<string, string>>();

/** Returns an amount as `moneyText` does, each one written once. */
function written(amount: string, rule: MoneyRule): string {
	let kept = amounts.get(rule);
	if (!kept) amounts.set(rule, (kept = new Map()));
	let text = kept.get(amount);
	if (text === undefined) kept.set(amount, (text = moneyText(amount, rule)));
	return text;
}

const CATEGORIES = ['zero', 'one', 'two', 'few', 'many', 'other'];

/** Returns the plural category of a whole number; above the table every hundred repeats. */
export function categoryOf(n: number, plurals: string): string {
	return CATEGORIES[Number(plurals.charAt(n < 200 ? n : 100 + (n % 100)))] ?? 'other';
}

/** Returns a live value that cannot change the order of the words around it. */
function isolated(value: string, rtl: boolean): string {
	return value && (rtl || /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufefc]/.test(value)) ? `\u2068${value}\u2069` : value;
}

/** Returns a text as a shopper reads it, with a `HOLE` for each value that the product has not. */
export function fillText(pattern: Pattern, product: Product, count: number, spoken?: Language): string {
	// Most texts hold no value, and none holds all: each is worked out when it is asked for.
	const valueOf = (name: string): string => {
		if (name === 'name') return product.name;
		if (name === 'count') return String(count);
		if (name === 'left') return product.left ?? '';
		if (name === 'code') return product.sku;
		if (name === 'page') return product.url;
		const rule = spoken?.money;
		const { price, net = '', was = '', currency } = product;
		const amount = name === 'price' ? price : name === 'price without tax' ? net : less(was, price, rule?.digits ?? 2);
		// The rule writes the store's own currency; another one would be a wrong price.
		if (rule?.currency && currency && currency !== rule.currency) return '';
		return rule ? written(amount, rule) : amount;
	};
	const fill = (parts: Pattern): string =>
		parts
			.map((part) => {
				if (typeof part === 'string') return part;
				if ('v' in part) return isolated(valueOf(part.v as string), Boolean(spoken?.rtl)) || HOLE;
				const value = valueOf(part.p as string);
				if (!value) return HOLE;
				const n = Number(value);
				return fill((part[`=${n}`] ?? part[categoryOf(n, spoken?.plurals ?? '')] ?? part.other) as Pattern);
			})
			.join('');
	return fill(pattern);
}

/** Returns the difference of two plain decimal texts, or nothing where the first is not more. */
function less(was: string, price: string, digits: number): string {
	const gap = (minorUnits(was, digits) ?? 0) - (minorUnits(price, digits) ?? 0);
	return was && price && gap > 0 ? (gap / 10 ** digits).toFixed(digits) : '';
}

/** Returns what texts can say of an offer besides its price: without tax, before it was reduced, and how many are left. */
export function readAmounts(offer: Node, number: (name: string, value: unknown) => string) {
	const prices = [offer.priceSpecification ?? []].flat() as Node[];
	const stock = [offer.inventoryLevel].flat()[0] as Node | undefined;
	const priced = (of: (price: Node) => unknown) => prices.find(of)?.price;
	const without = priced((price) => price.valueAddedTaxIncluded === false);
	const before = priced((price) => /Strikethrough|List/.test(String(price.priceType)));
	return { net: number('net', without), was: number('was', before), left: number('left', stock?.value) };
}
