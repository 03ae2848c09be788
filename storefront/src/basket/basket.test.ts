import { afterEach, describe, expect, it, vi } from 'vitest';
import { readBasket } from './basket';
import { countOf } from './count';
import { filled, requestOf } from './call';
import { addToBasket } from '../press/press';
import * as reads from './reads';
import { bodyOf, tokenField, tokenHeader, tokenOf, type Press } from './request';
import type { Basket } from '../base/types';

const basket: Basket = {
	kind: 'form_post',
	add_path: '/add',
	read: { kind: 'json', path: '/basket' },
	basket_path: '/basket',
	checkout_path: '/checkout',
	product_field: 'sku',
	option_fields: ['size'],
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
const request = { path: '/add', init: { method: 'POST', body: new URLSearchParams('sku=A&qty=1') }, quantity: 1 };
const press = (of: Partial<Press> = {}): Press => ({
	code: 'A',
	option: '',
	quantity: '',
	form: null,
	submit: null,
	...of,
});
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
		expect(String(bodyOf(basket, press({ form: own, submit, quantity: '2' })))).toBe(
			'token=t0ken&sku=A&qty=2&size=L&wax=dipped&engraving=For+Ada&by=button',
		);
	});

	it('keeps the form’s own quantity where ours has no box, and is one where nobody says', () => {
		expect(String(bodyOf(basket, press({ form: form('<input name=qty value=6>') })))).toBe('qty=6&sku=A');
		expect(String(bodyOf(basket, press()))).toBe('sku=A&qty=1');
	});

	it('is written as the form is', () => {
		const own = form('<input name=qty value=6>');
		own.enctype = 'multipart/form-data';
		expect(bodyOf(basket, press({ form: own }))).toBeInstanceOf(FormData);
	});

	it('goes once, as the shop’s own page', async () => {
		const calls = answers({ body: oneA });
		expect(await addToBasket(basket, request, added)).toEqual({ is: 'added', basket: oneA });
		expect(calls.map(({ url, init }) => [url, init?.method])).toEqual([['/add', 'POST']]);
	});
});

describe('what comes of a press', () => {
	it.each([403, 404, 409, 422])('is no where the shop says %i', async (status) => {
		const calls = answers({ status, body: {} });
		expect(await addToBasket(basket, request, added)).toEqual({ is: 'refused' });
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
		expect(await addToBasket(basket, request, added)).toEqual({ is: 'added', basket: oneA });
		expect(calls.filter(({ init }) => init?.method === 'POST')).toHaveLength(1);
		answers(answer, { body: empty });
		expect(await addToBasket(basket, request, added)).toEqual({ is: 'refused' });
		answers(answer, 'none');
		expect(await addToBasket(basket, request, added)).toEqual({ is: 'unknown' });
	});

	it('is unknown where nobody knows what was in the basket before, or more or less came into it', async () => {
		answers('none', { body: oneA });
		expect(await addToBasket(basket, request, { ...added, before: null })).toEqual({ is: 'unknown' });
		answers('none', { body: oneA });
		expect(await addToBasket(basket, request, { ...added, quantity: 6 })).toEqual({ is: 'unknown' });
	});

	it('is no where the basket that comes back does not hold it', async () => {
		answers({ body: empty });
		expect(await addToBasket(basket, request, added)).toEqual({ is: 'refused' });
	});

	it('is unknown where the shop says yes and shows the same basket as before', async () => {
		answers({ body: oneA });
		expect(await addToBasket(basket, request, { ...added, before: oneA })).toEqual({ is: 'unknown' });
	});

	it('is unknown where the shop’s basket cannot be read at all', async () => {
		const mute: Basket = { ...basket, read: undefined };
		const calls = answers({ body: '<html>' });
		expect(await addToBasket(mute, request, { ...added, before: null })).toEqual({ is: 'unknown' });
		expect(calls).toHaveLength(1);
	});

	it('is yes where the shop calls its lines by other codes', async () => {
		const other = { count: 1, items: [{ sku: '4711', option: '', quantity: 1 }] };
		answers({ body: other });
		expect(await addToBasket(basket, request, added)).toEqual({ is: 'added', basket: other });
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

describe('a basket with names of its own', () => {
	const shop: Basket = {
		...basket,
		read: {
			kind: 'json',
			path: '/api/bag',
			count: 'bag.total',
			items: 'bag.lines',
			product: 'goods.id',
			option: 'with',
			quantity: 'pieces',
		},
	};
	it('is read by them, with several options joined', async () => {
		answers({
			body: { bag: { total: 2, lines: [{ goods: { id: 'A' }, with: { size: 'L', wax: 'dipped' }, pieces: 2 }] } },
		});
		const told = await readBasket(shop, reads);
		expect(told).toMatchObject({ count: 2, items: [{ sku: 'A', option: 'L / dipped', quantity: 2 }] });
	});

	it('is counted by its lines where it tells no sum', () => {
		const answer = JSON.stringify({
			lines: [
				{ sku: 'A', quantity: 2 },
				{ sku: 'B', quantity: 1 },
			],
		});
		const read = {
			kind: 'json',
			path: '/',
			count: '',
			items: 'lines',
			product: 'sku',
			option: '',
			quantity: 'quantity',
		} as const;
		expect(reads.basketIn(answer, read)?.count).toBe(3);
		expect(reads.basketIn('{"lines":null}', read)).toBeNull();
	});

	it('is read from a page by the first whole number of an element', () => {
		const read = { kind: 'page', path: '/bag', selector: '.bag b' } as const;
		expect(reads.basketIn('<p class=bag>Your bag: <b>12 things</b>', read)).toEqual({ count: 12, items: [] });
		expect(reads.basketIn('<p class=bag>Your bag is empty', read)).toBeNull();
		expect(reads.acceptFor(read)).toBe('text/html');
	});
});

describe('a word against forged requests', () => {
	const shop = (token: Basket['token']): Basket => ({ ...basket, token });
	it('goes back as a header or a field, from where the page carries it', () => {
		document.body.innerHTML = '<meta name="csrf-word" content="m3ta"><input type=hidden name=_word value="f1eld">';
		document.cookie = 'word=c00kie%2B1';
		const meta = shop({ source: 'meta', source_name: 'csrf-word', sent_as: 'header', sent_name: 'X-Word' });
		expect(tokenHeader(meta)).toEqual({ 'X-Word': 'm3ta' });
		expect(bodyOf(meta, press()).has('X-Word')).toBe(false);
		const field = shop({ source: 'field', source_name: '_word', sent_as: 'field', sent_name: 'word' });
		expect(String(bodyOf(field, press()))).toBe('sku=A&qty=1&word=f1eld');
		expect(tokenHeader(field)).toEqual({});
		expect(Object.values(tokenField(field))).toEqual([tokenOf(field)]);
		expect(tokenOf(field)).not.toBe('');
		expect(tokenField(meta)).toEqual({});
		expect(tokenOf(shop({ source: 'cookie', source_name: 'word', sent_as: 'header', sent_name: 'X' }))).toBe(
			'c00kie+1',
		);
		expect(tokenOf(shop({ source: 'meta', source_name: 'gone', sent_as: 'header', sent_name: 'X' }))).toBe('');
	});
});

describe('a basket that takes JSON or a link', () => {
	const wish = '<input name=qty value=3><input name=engraving value="For Ada">';
	it('gets the body with its holes filled, numbers as numbers', () => {
		const body = {
			lines: [{ id: '{product}', number: '{product:number}', qty: '{quantity}', say: '{field engraving}!' }],
			keep: 7,
		};
		expect(filled(body, press({ code: '4711', quantity: '2', form: form(wish) }))).toEqual({
			lines: [{ id: '4711', number: 4711, qty: 2, say: 'For Ada!' }],
			keep: 7,
		});
		expect(filled('{quantity:text}', press({ quantity: '2' }))).toBe('2');
		expect(filled('{product:number}', press({ code: 'A-1' }))).toBe('A-1');
	});

	it('is asked in its own way, with the form’s own quantity', () => {
		const json: Basket = {
			...basket,
			kind: 'json_call',
			method: 'PUT',
			add_path: '/api',
			body: { id: '{product}', n: '{quantity}' },
		};
		const asked = requestOf(json, press({ form: form(wish) }));
		expect([asked.path, asked.init.method, asked.init.body, asked.quantity]).toEqual([
			'/api',
			'PUT',
			'{"id":"A","n":3}',
			3,
		]);
		const link: Basket = { ...basket, kind: 'basket_link', add_path: '/put/{product}?n={quantity}&o={option}' };
		expect(requestOf(link, press({ code: 'A/B ?', option: 'L & M' }))).toEqual({
			path: '/put/A%2FB%20%3F?n=1&o=L%20%26%20M',
			init: { headers: {} },
			quantity: 1,
		});
	});
});
