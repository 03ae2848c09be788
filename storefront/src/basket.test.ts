import { afterEach, describe, expect, it, vi } from 'vitest';
import { addToBasket, bodyOf, countOf, readBasket } from './basket';

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
const empty = { count: 0, items: [] };
const oneA = { count: 1, items: [{ sku: 'A', option: '', quantity: 1 }] };

type Answer = { status?: number; body?: unknown };

/** Answers each request in turn: a status, a basket as JSON, a page (text), or no answer at all. */
function answers(...given: (Answer | 'none')[]): { url: string; init?: RequestInit }[] {
	const calls: { url: string; init?: RequestInit }[] = [];
	vi.stubGlobal('fetch', async (url: string, init?: RequestInit) => {
		const { status = 200, body } = (given[calls.push({ url, init }) - 1] ?? 'none') as Answer;
		if (given[calls.length - 1] === 'none') throw new TypeError('no answer');
		return new Response(typeof body === 'string' ? body : JSON.stringify(body), { status });
	});
	return calls;
}
afterEach(() => vi.unstubAllGlobals());

const form = (html: string): HTMLFormElement => {
	document.body.innerHTML = `<form>${html}</form>`;
	return document.forms[0] as HTMLFormElement;
};
const body = new URLSearchParams('sku=A&qty=1');
const added = { sku: 'A', option: '', quantity: 1, before: empty };

describe('what is sent', () => {
	it('is all that the shop’s own form would send, ours laid over it', () => {
		const own = form(
			'<input type=hidden name=token value=t0ken><input type=hidden name=sku value=OLD><input name=qty value=1>' +
				'<select name=size><option>L</select><select name=wax><option>dipped</select>' +
				'<textarea name=engraving>For Ada</textarea><input name=gone value=x disabled>' +
				'<button name=by value=button>Add</button>',
		);
		const submit = own.querySelector('button');
		expect(String(bodyOf(basket, own, submit, 'A', '2'))).toBe(
			'token=t0ken&sku=A&qty=2&size=L&wax=dipped&engraving=For+Ada&by=button',
		);
	});

	it('keeps the form’s own quantity where ours has no box, and is one where nobody says', () => {
		expect(String(bodyOf(basket, form('<input name=qty value=6>'), null, 'A', ''))).toBe('qty=6&sku=A');
		expect(String(bodyOf(basket, null, null, 'A', ''))).toBe('sku=A&qty=1');
	});

	it('is written as the form is', () => {
		const own = form('<input name=qty value=6>');
		own.enctype = 'multipart/form-data';
		expect(bodyOf(basket, own, null, 'A', '')).toBeInstanceOf(FormData);
	});

	it('goes once, as the shop’s own page', async () => {
		const calls = answers({ body: oneA });
		expect(await addToBasket(basket, body, added)).toEqual({ is: 'added', basket: oneA });
		expect(calls.map(({ url, init }) => [url, init?.method, init?.credentials])).toEqual([
			['/add', 'POST', 'same-origin'],
		]);
	});
});

describe('what comes of a press', () => {
	it.each([403, 404, 409, 422])('is no where the shop says %i', async (status) => {
		const calls = answers({ status, body: {} });
		expect(await addToBasket(basket, body, added)).toEqual({ is: 'refused' });
		expect(calls).toHaveLength(1);
	});

	it.each([
		['a page instead of a basket', { body: '<html>Thank you</html>' }],
		['something else as JSON', { body: { ok: true } }],
		['an error of the shop', { status: 502, body: 'gone' }],
		['a time-out of the shop', { status: 408, body: '' }],
		['no answer', 'none'],
	] as [string, Answer | 'none'][])('is read from the basket after %s, and never tried again', async (_, answer) => {
		const calls = answers(answer, { body: oneA });
		expect(await addToBasket(basket, body, added)).toEqual({ is: 'added', basket: oneA });
		expect(calls.filter(({ init }) => init?.method === 'POST')).toHaveLength(1);
		answers(answer, { body: empty });
		expect(await addToBasket(basket, body, added)).toEqual({ is: 'refused' });
		answers(answer, 'none');
		expect(await addToBasket(basket, body, added)).toEqual({ is: 'unknown' });
	});

	it('is unknown where nobody knows what was in the basket before, or more or less came into it', async () => {
		answers('none', { body: oneA });
		expect(await addToBasket(basket, body, { ...added, before: null })).toEqual({ is: 'unknown' });
		answers('none', { body: oneA });
		expect(await addToBasket(basket, body, { ...added, quantity: 6 })).toEqual({ is: 'unknown' });
	});

	it('is no where the basket that comes back does not hold it', async () => {
		answers({ body: empty });
		expect(await addToBasket(basket, body, added)).toEqual({ is: 'refused' });
	});

	it('is yes where the shop calls its lines by other codes', async () => {
		const other = { count: 1, items: [{ sku: '4711', option: '', quantity: 1 }] };
		answers({ body: other });
		expect(await addToBasket(basket, body, added)).toEqual({ is: 'added', basket: other });
	});
});

describe('the basket', () => {
	it('is not known where the shop does not tell', async () => {
		answers({ status: 500, body: 'oops' });
		expect(await readBasket(basket)).toBeNull();
		answers({ body: '<html>' });
		expect(await readBasket(basket)).toBeNull();
		answers({ body: inBasket });
		expect(await readBasket(basket)).toEqual(inBasket);
	});

	it('is counted by product, or by option where one is chosen', () => {
		expect(countOf(inBasket, 'A', '')).toBe(3);
		expect(countOf(inBasket, 'A', 'L')).toBe(2);
		expect(countOf(inBasket, 'B', '')).toBe(0);
	});
});
