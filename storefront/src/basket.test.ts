import { afterEach, describe, expect, it, vi } from 'vitest';
import { addToBasket, countOf, readBasket, Refused } from './basket';

const basket = {
	add_path: '/add',
	read_path: '/basket',
	checkout_path: '/checkout',
	product_field: 'sku',
	option_field: 'size',
	quantity_field: 'qty',
};
const inBasket = {
	count: 3,
	items: [
		{ sku: 'A', option: 'S', quantity: 1 },
		{ sku: 'A', option: 'L', quantity: 2 },
	],
};

function answer(status: number): { url: string; init?: RequestInit }[] {
	const calls: { url: string; init?: RequestInit }[] = [];
	vi.stubGlobal('fetch', async (url: string, init?: RequestInit) => {
		calls.push({ url, init });
		return { status, ok: status < 300, json: async () => inBasket };
	});
	return calls;
}
afterEach(() => vi.unstubAllGlobals());

describe('the basket', () => {
	it('is told as the shop wants it told', async () => {
		const calls = answer(200);
		await addToBasket(basket, 'A', 'L', 2);
		expect(calls[0]?.url).toBe('/add');
		expect(String(calls[0]?.init?.body)).toBe('sku=A&qty=2&size=L');
		expect(calls[0]?.init?.credentials).toBe('same-origin');
		await addToBasket(basket, 'A', '', 1);
		expect(String(calls[1]?.init?.body)).toBe('sku=A&qty=1');
	});

	it('that says no is told from one that does not answer', async () => {
		answer(409);
		await expect(addToBasket(basket, 'A', '', 1)).rejects.toBeInstanceOf(Refused);
		answer(500);
		await expect(readBasket(basket)).rejects.not.toBeInstanceOf(Refused);
	});

	it('is counted by product, or by option where one is chosen', () => {
		expect(countOf(inBasket, 'A', '')).toBe(3);
		expect(countOf(inBasket, 'A', 'L')).toBe(2);
		expect(countOf(inBasket, 'B', '')).toBe(0);
	});
});
