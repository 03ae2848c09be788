import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import type { MoneyRule, Pattern, Product } from '../base/types';
import { fillText, moneyText } from './live';
import { minorUnits, withoutHoles } from '../base/words';

type Golden = {
	money: { why: string; given: { amount: string; rule: MoneyRule }; expect: string }[];
};
const golden = JSON.parse(readFileSync('golden/words.json', 'utf8')) as Golden;
const pounds = golden.money[0]?.given.rule as MoneyRule;
const english = { money: pounds, rtl: false, plurals: '5'.repeat(200).replace(/^5{2}/, '51') };
const hive: Product = {
	sku: 'H1',
	code: '',
	name: 'Cedar hive',
	category: 'Hives',
	price: '189.00',
	net: '157.50',
	was: '200.10',
	left: '6',
	currency: 'GBP',
	url: '/p/H1',
	situation: 'plain',
	needsChoice: false,
};

describe('money', () => {
	it.each(golden.money)('$why', ({ given, expect: text }) => {
		expect(moneyText(given.amount, given.rule)).toBe(text);
	});

	it.each(['about ten', '1,299.00', '', '12.50 GBP', '1e3', '１２'])('is not guessed from “%s”', (told) => {
		expect(moneyText(told, pounds)).toBe('');
	});

	it('comes to whole minor units without rounding dust', () => {
		expect(minorUnits('19.99', 2)).toBe(1999);
		expect((minorUnits('0.1', 2) ?? 0) * 3).toBe(30);
		expect(minorUnits('1200', 0)).toBe(1200);
		expect(minorUnits('1.250', 3)).toBe(1250);
		expect(minorUnits('', 2)).toBeUndefined();
	});
});

describe('a text', () => {
	const pattern: Pattern = ['Take ', { v: 'name' }, ', ', { v: 'price' }, ' (', { v: 'count' }, ')'];

	it('is filled for its product', () => {
		expect(fillText(pattern, hive, 2, english)).toBe('Take Cedar hive, £189.00 (2)');
	});

	it.each([
		[['Add · ', { v: 'price' }], 'Add'],
		[['Take it home, ', { v: 'price' }], 'Take it home'],
		[[{ v: 'price' }, ' · Add'], 'Add'],
		[['Save ', { v: 'price' }, ' now'], 'Save now'],
		[['Buy (', { v: 'price' }, ')'], 'Buy'],
	] as [Pattern, string][])('loses a value that a product has not, with what joined it', (holed, text) => {
		expect(withoutHoles(fillText(holed, { ...hive, price: '' }, 0, english))).toBe(text);
	});

	it('does not write an amount of another currency as the store’s own', () => {
		const money = { ...pounds, currency: 'GBP' };
		expect(fillText([{ v: 'price' }], { ...hive, currency: 'USD' }, 0, { ...english, money })).toBe('\0');
		expect(fillText([{ v: 'price' }], hive, 0, { ...english, money })).toBe('£189.00');
	});

	it('knows the price without tax, what is saved, what is left, the code and the page', () => {
		const live = ['price without tax', 'saving', 'left', 'code', 'page'].map((v) =>
			fillText([{ v }], hive, 0, english),
		);
		expect(live).toEqual(['£157.50', '£11.10', '6', 'H1', '/p/H1']);
		expect(fillText([{ v: 'saving' }], { ...hive, was: '180' }, 0, english)).toBe('\0');
	});

	it('says a count as its language does, exact numbers first', () => {
		const plural = { p: 'count', '=0': ['none'], one: ['one'], other: [{ v: 'count' }, ' of them'] };
		expect([0, 1, 2, 201].map((n) => fillText([plural], hive, n, english))).toEqual([
			'none',
			'one',
			'2 of them',
			'201 of them',
		]);
	});

	it('keeps a live value apart where directions meet', () => {
		expect(fillText(['x ', { v: 'code' }], hive, 0, { ...english, rtl: true })).toBe('x \u2068H1\u2069');
		expect(fillText([{ v: 'name' }], { ...hive, name: 'خلية' }, 0, english)).toBe('\u2068خلية\u2069');
	});
});
