import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { InBasket, Shop } from '../base/shop';
import type { Product } from '../base/types';
import { indexProducts, readProduct } from '../page/page';
import { Stand } from './stand';

const look = { css: '', icon: null, high: 40, shown: true, quantity: null, after: 'stay' };
const words = { ready: { en: ['Take it'] }, in_basket: { en: ['Yours'] }, sold_out: { en: ['Gone'] } };
const told = indexProducts([
	{ '@type': 'Product', sku: 'A1', name: 'Wax', offers: { price: '2.00' } },
	{ '@type': 'Product', sku: 'B1', name: 'Hive', offers: { price: '9.00', availability: 'OutOfStock' } },
]);

function shopOf(more: Partial<Shop> = {}): Shop {
	const manifest = {
		base: '',
		language: 'en',
		looks: [look, { ...look, shown: false }],
		places: { product_page: { looks: { '': 0 }, words: {} }, strip: { looks: { '': 1 }, words: {} } },
		words,
		rules: [],
		trials: [],
		basket: { product_field: 'sku', option_fields: [] },
	};
	return {
		manifest,
		looker: { language: 'en', device: 'desktop', shopper: '', kind: 'new' },
		spoken: { rtl: false },
		basket: null,
		read: (place: HTMLElement, form?: string, instead?: string) => readProduct(place, told, form, instead),
		press: vi.fn(),
		watch: vi.fn(),
		left: vi.fn(),
		...more,
	} as unknown as Shop;
}

function begin(shop = shopOf(), html = '<div id=place data-up-place=product_page data-up-product=A1></div>') {
	document.body.innerHTML = `<form>${html}<button id=own>Buy</button></form>`;
	const place = document.getElementById('place')!;
	const stand = new Stand(shop, place);
	stand.tend();
	return { shop, place, stand, text: () => place.querySelector('[data-up-button]')?.shadowRoot?.textContent ?? '' };
}
const inBasket = (count: number): InBasket => ({ count, items: [{ sku: 'A1', option: '', quantity: count }] });

describe('a stand', () => {
	beforeEach(() => vi.useRealTimers());

	it('stands for the product of its place, and is followed from then on', () => {
		const { shop, stand, place, text } = begin();
		expect([stand.is, stand.product?.sku, text()]).toEqual(['ours', 'A1', 'Take it, Wax']);
		expect(place.hasAttribute('data-up-stands')).toBe(true);
		expect(shop.watch).toHaveBeenCalledTimes(1);
	});

	it('leaves the shop’s own where no product is told or no button is made, and says why', () => {
		const unknown = begin(shopOf(), '<div id=place data-up-place=product_page></div>');
		expect([unknown.stand.is, unknown.place.dataset.upKept]).toEqual(['own', 'product']);
		const hidden = begin(shopOf(), '<div id=place data-up-place=strip data-up-product=A1></div>');
		expect([hidden.stand.is, hidden.place.dataset.upKept]).toEqual(['own', 'hidden']);
	});

	it('leaves when its place is told nothing any more, and comes back with another product', () => {
		const { shop, stand, place, text } = begin();
		delete place.dataset.upProduct;
		stand.tend();
		expect([stand.is, place.childElementCount, place.hasAttribute('data-up-stands')]).toEqual(['own', 0, false]);
		expect(shop.left).toHaveBeenCalledTimes(1);
		place.dataset.upProduct = 'B1';
		stand.tend();
		expect([stand.is, text(), place.dataset.upKept]).toEqual(['ours', 'Gone, Hive', undefined]);
	});

	it('says what is in the basket', () => {
		const shop = shopOf();
		const { stand, text } = begin(shop);
		shop.basket = inBasket(2);
		stand.tend();
		expect([stand.moment(), text()]).toEqual(['in_basket', 'Yours, Wax']);
	});

	it('shows a passing moment for its time, and a later one is not ended by an earlier one’s time', () => {
		vi.useFakeTimers();
		const { stand } = begin();
		stand.pass('working', 100);
		vi.advanceTimersByTime(60);
		stand.pass('added', 100);
		vi.advanceTimersByTime(60);
		expect(stand.moment()).toBe('added');
		vi.advanceTimersByTime(60);
		expect(stand.moment()).toBe('ready');
	});

	it('gives its place back with a note, until something else is told there', () => {
		const { stand, place } = begin();
		const note = Object.assign(document.createElement('p'), { textContent: 'It was not added.' });
		stand.giveBack('failed', note);
		expect([stand.is, place.textContent, document.activeElement?.id]).toEqual(['given back', 'It was not added.', '']);
		stand.tend();
		expect([stand.is, note.isConnected]).toEqual(['given back', true]);
		place.dataset.upProduct = 'B1';
		stand.tend();
		expect([stand.is, note.isConnected]).toEqual(['ours', false]);
	});

	it('comes back when a page takes it out, but not for ever', () => {
		const { stand, place } = begin();
		for (let n = 0; n < 99; n++) {
			place.replaceChildren();
			stand.tend();
		}
		expect(stand.is).toBe('ours');
		place.replaceChildren();
		stand.tend();
		stand.tend();
		expect([stand.is, place.dataset.upKept]).toEqual(['own', 'given up']);
	});

	it('is cut for as long as the same is told, and looks again when it is turned', () => {
		const { stand, place } = begin();
		stand.cut();
		expect([stand.is, place.dataset.upKept]).toEqual(['own', 'cut']);
		stand.tend();
		expect(stand.is).toBe('own');
		stand.tend(true);
		expect(stand.is).toBe('ours');
	});

	it('stands nowhere while what presses mean is not loaded', () => {
		const shop = shopOf({ isLame: true });
		const { stand, place } = begin(shop);
		expect([stand.is, place.dataset.upKept]).toEqual(['own', 'not loaded']);
		shop.isLame = false;
		stand.tend();
		expect(stand.is).toBe('ours');
	});

	it('survives a product that cannot be read: the shop’s own stands', () => {
		const { stand } = begin(
			shopOf({
				read: () => {
					throw new Error('odd page');
				},
			}),
		);
		expect(stand.is).toBe('own');
	});

	it('stands for the main button’s product where it hangs, and leaves with it', () => {
		const shop = shopOf();
		const { stand: main, place } = begin(shop);
		const hung = document.body.appendChild(document.createElement('div'));
		hung.dataset.upPlace = 'product_page';
		const stand = new Stand(shop, hung, main);
		stand.tend();
		expect([stand.product?.sku, stand.form]).toEqual(['A1', document.forms[0]]);
		delete place.dataset.upProduct;
		main.tend();
		stand.tend();
		expect(stand.is).toBe('own');
	});
});

describe('of a place and its form the one that has changed last is believed', () => {
	const html = (place: string, field: string) =>
		`<div id=place data-up-place=product_page data-up-product=${place}></div><input name=sku value=${field}>`;
	const field = () => document.querySelector<HTMLInputElement>('[name=sku]')!;
	const sold = (product: Product | null) => product && [product.sku, product.code];

	it('a form that changes alone tells another product', () => {
		const { stand } = begin(shopOf(), html('A1', 'A1'));
		field().value = 'B1';
		stand.tend();
		expect(sold(stand.product)).toEqual(['B1', 'B1']);
	});

	it('a place that changes alone leaves a code of the product before, which sells nothing', () => {
		const { stand } = begin(shopOf(), html('A1', 'X-100'));
		expect(sold(stand.product)).toEqual(['A1', 'X-100']);
		document.getElementById('place')!.dataset.upProduct = 'B1';
		stand.tend();
		expect([stand.is, stand.product]).toEqual(['own', null]);
		// Once the form follows it is sold by its own.
		field().value = 'X-200';
		stand.tend();
		expect(sold(stand.product)).toEqual(['B1', 'X-200']);
	});

	it('of several products in one form only the chosen one is told', () => {
		const choices = '<input type=radio name=sku value=A1><input type=radio name=sku value=B1>';
		const { stand } = begin(shopOf(), `<div id=place data-up-place=product_page></div>${choices}`);
		expect(stand.is).toBe('own');
		document.querySelectorAll<HTMLInputElement>('[name=sku]')[1]!.checked = true;
		stand.tend();
		expect(stand.product?.sku).toBe('B1');
	});
});
