import { afterEach, describe, expect, it, vi } from 'vitest';
import { variantsOf } from './choices_told';
import type { Basket, Language } from '../base/types';
import { kindsOf } from './variants_told';

const MONEY = { money: { digits: 2 } } as Language;
const basket = (more: object = {}) =>
	({
		variants: {
			path: '/kinds/{product}',
			items: 'kinds',
			product: 'code',
			options: ['as.size', 'colour'],
			price: 'pence',
			available: 'left',
			picture: 'img',
			smallest: true,
			...more,
		},
	}) as unknown as Basket;

function answers(told: unknown, ok = true) {
	const fetched = vi.fn(() => Promise.resolve({ ok, json: () => Promise.resolve(told) }));
	vi.stubGlobal('fetch', fetched);
	return fetched;
}
afterEach(() => vi.unstubAllGlobals());

describe('the kinds that an address tells', () => {
	it('are read in the words of schema.org, by the shop’s own names', async () => {
		const fetched = answers({
			kinds: [
				{ code: 'A-1', as: { size: 'Small' }, colour: 'Blue', pence: 10_400, left: 3, img: '/a.png' },
				{ code: 'A-2', as: { size: 'Large' }, colour: 'Red', pence: 9_450, left: 0 },
			],
		});
		const kinds = await kindsOf(basket(), 'A/1 ä', MONEY);
		expect(fetched.mock.calls[0]).toMatchObject(['/kinds/A%2F1%20%C3%A4', { headers: { Accept: 'application/json' } }]);
		expect(variantsOf({ hasVariant: kinds })).toEqual([
			{ sku: 'A-1', has: new Set(['small', 'blue']), price: '104.00', was: '', picture: '/a.png', isGone: false },
			{ sku: 'A-2', has: new Set(['large', 'red']), price: '94.50', was: '', picture: '', isGone: true },
		]);
	});

	it.each([
		[0, true],
		['0', true],
		[false, true],
		['no', true],
		[-2, true],
		[1, false],
		[true, false],
		['yes', false],
		// What is not told is not sold out.
		[undefined, false],
	])('are there or not: %s', async (left, isGone) => {
		answers({ kinds: [{ code: 'A', left }] });
		const [only] = variantsOf({ hasVariant: await kindsOf(basket(), 'A', MONEY) });
		expect(only!.isGone).toBe(isGone);
	});

	it('are none where the answer is none, and nobody is asked without an address', async () => {
		answers({ kinds: 'a page' });
		expect(await kindsOf(basket(), 'A', MONEY)).toBeUndefined();
		answers({ kinds: [] }, false);
		expect(await kindsOf(basket(), 'A', MONEY)).toBeUndefined();
		const fetched = answers({});
		expect(await kindsOf({} as Basket, 'A', MONEY)).toBeUndefined();
		expect(fetched).not.toHaveBeenCalled();
	});
});
