import type { Language, MoneyRule, Pattern, Product } from './types';
import { HOLE, minorUnits } from './words';

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
	const rule = spoken?.money;
	// The rule writes the store's own currency; another one would be a wrong price.
	const other = rule?.currency && product.currency && product.currency !== rule.currency;
	const money = (amount: string) => (other ? '' : rule ? moneyText(amount, rule) : amount);
	const values: Record<string, string> = {
		name: product.name,
		count: String(count),
		left: product.left,
		code: product.sku,
		page: product.url,
		price: money(product.price),
		'price without tax': money(product.net),
		saving: money(less(product.was, product.price, rule?.digits ?? 2)),
	};
	const fill = (parts: Pattern): string =>
		parts
			.map((part) => {
				if (typeof part === 'string') return part;
				if ('v' in part) return isolated(values[part.v as string] ?? '', Boolean(spoken?.rtl)) || HOLE;
				if (!values[part.p]) return HOLE;
				const n = Number(values[part.p]);
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
