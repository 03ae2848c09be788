import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Finder, Shop } from '../base/shop';
import type { Pointed } from '../base/types';
import { indexProducts } from '../page/page';
import { finder } from './find';

const card = (sku: string) =>
	`<article id="${sku}"><a href="/p/${sku}">${sku}</a><form><input type=hidden name=sku value="${sku}">
	<button class=buy>Buy</button></form></article>`;
const told = (...skus: string[]) =>
	indexProducts(skus.map((sku) => ({ '@type': 'Product', sku, url: `/p/${sku}`, offers: { price: '2.00' } })));
const spot = (more: Partial<Pointed> = {}): Pointed =>
	({ place: 'listing_card', selector: '.buy', where: 'before', ...more }) as Pointed;

function made(...pointed: Pointed[]): Finder {
	const manifest = { pointed, basket: { product_field: 'sku' } };
	return finder({ manifest, read: () => null, places: { look } } as unknown as Shop, () => undefined);
}
const look = vi.fn();
const places = () => [...document.querySelectorAll<HTMLElement>('up-place')];
const at = (selector: string) => document.querySelector<HTMLElement>(selector)!;

beforeEach(() => {
	document.body.innerHTML = `<main>${card('A1')}${card('B1')}</main><div id=strip><p>1</p></div>`;
});

describe('places that were pointed at', () => {
	it('stand before each element that is found, for the product whose form is beside it', () => {
		const found = made(spot());
		found.find(told('A1', 'B1'));
		expect(places().map((place) => place.nextElementSibling)).toEqual([...document.querySelectorAll('.buy')]);
		expect(found.near.get(places()[0]!)?.at).toBe(at('#A1 .buy'));
	});

	it('go with what they belong to, and are made once for it', () => {
		const found = made(spot());
		found.find(told('A1', 'B1'));
		const [first] = places();
		at('#B1').remove();
		found.find(told('A1'));
		expect(places()).toEqual([first]);
	});

	it('are none where a selector cannot be read, beside one that can', () => {
		const found = made(spot({ selector: '::: no' }), spot());
		found.find(told('A1', 'B1'));
		expect(places()).toHaveLength(2);
	});

	it('tell the code that a link or an attribute beside them has', () => {
		document.body.innerHTML =
			'<main><div class=c data-id=X9><b class=buy></b></div><div class=c><b class=buy></b></div></main>';
		const found = made(spot({ attribute: 'data-id' }));
		found.find(told());
		expect(places().map(({ dataset }) => dataset.upProduct)).toEqual(['X9']);
	});
});

describe('a place in which nothing stands yet', () => {
	/** jsdom lays nothing out: an element has a box where it is not hidden. */
	const hasBox = function (this: HTMLElement) {
		return !this.hidden;
	};
	beforeEach(() => {
		Element.prototype.checkVisibility = hasBox as typeof Element.prototype.checkVisibility;
	});
	afterEach(() => {
		delete (Element.prototype as Partial<Element>).checkVisibility;
	});
	const seenBy = (found: Finder) => places().map((place) => found.near.get(place)?.seenBy);

	it('takes no part in the page, and is seen by what it was pointed at', () => {
		const found = made(spot());
		found.find(told('A1', 'B1'));
		expect(places().map((place) => place.hasAttribute('data-up-waits'))).toEqual([true, true]);
		expect(seenBy(found)).toEqual([...document.querySelectorAll('.buy')]);
	});

	it('is seen by itself where the shop hides its own button, also when that comes later', () => {
		at('#A1 .buy').hidden = true;
		const found = made(spot());
		found.find(told('A1', 'B1'));
		expect(seenBy(found)).toEqual([places()[0], at('#B1 .buy')]);
		at('#B1 .buy').hidden = true;
		found.find(told('A1', 'B1'));
		expect(seenBy(found)).toEqual(places());
		expect(places()[1]!.hasAttribute('data-up-waits')).toBe(false);
	});

	it('is seen by itself in a browser that cannot tell', () => {
		delete (Element.prototype as Partial<Element>).checkVisibility;
		const found = made(spot());
		found.find(told('A1', 'B1'));
		expect(seenBy(found)).toEqual(places());
	});
});

describe('a page that never rests', () => {
	let found: Finder;
	beforeEach(() => {
		vi.useFakeTimers();
		look.mockClear();
		found = made(spot());
		found.find(told('A1', 'B1'));
		for (let n = 0; n < 10; n++) found.isTouched(new Set([at('#strip')]));
	});
	afterEach(() => {
		vi.useRealTimers();
	});

	it('is asked a little later, once for many changes, and its new cards get their places', () => {
		at('main').insertAdjacentHTML('beforeend', card('C1'));
		for (let n = 0; n < 5; n++) expect(found.isTouched(new Set([at('main')]))).toBe(false);
		expect(look).not.toHaveBeenCalled();
		vi.advanceTimersByTime(100);
		expect(look).toHaveBeenCalledTimes(1);
	});

	it('is asked at once again after a change that was one of places', () => {
		at('main').insertAdjacentHTML('beforeend', card('C1'));
		found.isTouched(new Set([at('main')]));
		vi.advanceTimersByTime(100);
		found.find(told('A1', 'B1', 'C1'));
		at('#C1').remove();
		expect(found.isTouched(new Set([at('main')]))).toBe(true);
	});

	it('is never made to wait by a change within a card', () => {
		expect(found.isTouched(new Set([at('#A1 a')]))).toBe(true);
	});
});

describe('a change of the page', () => {
	let found: Finder;
	beforeEach(() => {
		found = made(spot());
		found.find(told('A1', 'B1'));
	});

	it('beside every card moves no place', () => {
		at('#strip').innerHTML = '<p>2</p>';
		expect(found.isTouched(new Set([at('#strip'), at('main')]))).toBe(false);
	});

	it('of a text moves none', () => {
		expect(found.isTouched(new Set())).toBe(false);
	});

	it('within a card may move its place', () => {
		expect(found.isTouched(new Set([at('#A1 a')]))).toBe(true);
	});

	it('that brings a card or takes one away is one of places', () => {
		at('main').insertAdjacentHTML('beforeend', card('C1'));
		expect(found.isTouched(new Set([at('main')]))).toBe(true);
		found.find(told('A1', 'B1', 'C1'));
		expect(found.isTouched(new Set([at('main')]))).toBe(false);
		at('#A1').remove();
		expect(found.isTouched(new Set([at('main')]))).toBe(true);
	});

	it('that takes a place out is one, whatever else has changed', () => {
		places()[0]!.remove();
		expect(found.isTouched(new Set([at('#strip')]))).toBe(true);
	});

	it('of the address is one, since a page that is not loaded anew may keep every element', () => {
		history.pushState(null, '', '/elsewhere');
		expect(found.isTouched(new Set([at('#strip')]))).toBe(true);
		found.find(told('A1', 'B1'));
		expect(found.isTouched(new Set([at('#strip')]))).toBe(false);
		document.head.innerHTML = '<link rel=canonical href=/p/A1>';
		expect(found.isTouched(new Set([document.head]))).toBe(true);
	});

	it('of the order of cards is one', () => {
		at('main').append(at('#A1'));
		expect(found.isTouched(new Set([at('main')]))).toBe(true);
	});
});
