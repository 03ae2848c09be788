import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import type { MoneyRule, Pattern, Product } from './types';
import { fillText, minorUnits, moneyText } from './words';

type Golden = {
	money: { why: string; given: { amount: string; rule: MoneyRule }; expect: string }[];
};
const golden = JSON.parse(readFileSync('golden/words.json', 'utf8')) as Golden;
const pounds = golden.money[0]?.given.rule as MoneyRule;
const hive: Product = {
	sku: 'H1',
	name: 'Cedar hive',
	category: 'Hives',
	price: '189.00',
	currency: 'GBP',
	url: '/p/H1',
	soldOut: false,
	needsChoice: false,
};

describe('money', () => {
	it.each(golden.money)('$why', ({ given, expect: text }) => {
		expect(moneyText(given.amount, given.rule)).toBe(text);
	});

	it('is not guessed from what is no amount', () => {
		expect(moneyText('about ten', pounds)).toBe('£0.00');
	});

	it('comes to whole minor units without rounding dust', () => {
		expect(minorUnits('19.99', 2)).toBe(1999);
		expect(minorUnits('0.1', 2) * 3).toBe(30);
		expect(minorUnits('', 2)).toBe(0);
		expect(minorUnits('no price', 2)).toBe(0);
	});
});

describe('a text', () => {
	const pattern: Pattern = ['Take ', { v: 'name' }, ', ', { v: 'price' }, ' (', { v: 'count' }, ')'];

	it('is filled for its product', () => {
		expect(fillText(pattern, hive, 2, pounds)).toBe('Take Cedar hive, £189.00 (2)');
	});

	it('leaves out a price that the page does not know', () => {
		expect(fillText([{ v: 'price' }, 'now'], { ...hive, price: '' }, 0, pounds)).toBe('now');
	});
});
