import type { MoneyRule, Pattern, Product } from './types';

/** Returns an amount, given as plain decimal text, as the language writes it; halves go away from zero. */
export function moneyText(amount: string, rule: MoneyRule): string {
	const [, sign = '', whole = '0', fraction = ''] = /^(-?)(\d+)(?:\.(\d*))?$/.exec(amount.trim()) ?? [];
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

/** Returns whole minor units of an amount, or 0 where there is none. */
export function minorUnits(amount: string, digits: number): number {
	return Math.round(Number(amount || 0) * 10 ** digits) || 0;
}

/** Returns a text as a shopper reads it. */
export function fillText(pattern: Pattern, product: Product, count: number, rule?: MoneyRule): string {
	const values = {
		name: product.name,
		count: String(count),
		price: product.price && rule ? moneyText(product.price, rule) : product.price,
	};
	return pattern.map((part) => (typeof part === 'string' ? part : (values[part.v] ?? ''))).join('');
}
