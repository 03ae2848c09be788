import { pictureTold } from './picture_told';
import type { Node } from '../base/shop';
import type { Shop } from '../base/shop';
import type { Product } from '../base/types';

/**
 * A product as its own page tells it now, with its picture, that page's form, and what it would send but choices. With
 * `isOpen` only that page can tell what a press would send.
 */
export type Told = {
	product: Product;
	picture: string;
	form?: HTMLFormElement;
	own?: HTMLFormElement;
	isOpen?: boolean;
	/** Its kinds, where an address of the shop's tells them. */
	kinds?: Node[];
	page: Document;
};

/** Says at a place which product it is of, as the shop's own code would; with the last word it is one of the page's. */
export function tellPlace(
	place: HTMLElement,
	placement: string,
	{ sku, situation, needsChoice, ...told }: Product,
): void {
	const all = {
		...told,
		// What the basket calls it is told by its form.
		code: '',
		product: sku,
		choice: needsChoice ? 'yes' : 'no',
		availability: { sold_out: 'SoldOut', pre_order: 'PreOrder' }[situation as string],
		set: situation === 'set' && 'yes',
		place: placement,
	};
	for (const [name, value] of Object.entries(all)) if (value) place.setAttribute(`data-up-${name}`, value);
}

/** Returns what reads products from their own pages of this shop, each page once. */
export function goodsReader(shop: Shop) {
	const { manifest } = shop;
	const pages = new Map<string, Promise<Document>>();

	function pageAt(path: string): Promise<Document> {
		const known = pages.get(path);
		if (known) return known;
		// Not by a parser of texts, which pages forbid that ask for trusted types; so it is read in its own encoding, too.
		const page = new Promise<Document>((done, fail) => {
			const asked = new XMLHttpRequest();
			asked.open('GET', path);
			asked.responseType = 'document';
			asked.onload = () => {
				const { status, response } = asked;
				done((status < 400 && (response as Document)) || document.implementation.createHTMLDocument());
			};
			asked.onerror = fail;
			asked.send();
		});
		pages.set(path, page);
		return page;
	}

	/** Returns a product as its own page tells it, or nothing where that tells another or none. */
	async function read({ sku, path }: { sku: string; path: string }): Promise<Told | null> {
		const page = await pageAt(path);
		const probe = document.createElement('div');
		probe.dataset.upProduct = sku;
		const product = shop.read(probe, '', '', page);
		// A page that does not know it is about something else by now.
		if (!product?.name) return null;
		const src = pictureTold(page, sku);
		const picture = src ? new URL(src, new URL(path, location.href)).href : '';
		const { form, own, isOpen } = formOf(page, sku);
		if (isOpen) product.needsChoice = true;
		return { product: { ...product, url: path }, picture, form, own, isOpen, page };
	}

	/**
	 * Returns the form that buys a product on its page, as far as a press needs it. It is `isOpen` where nobody can tell
	 * which of several forms that is, or where the shopper must write something: then the button leads to the page.
	 */
	function formOf(page: Document, sku: string) {
		const { product_field: field, option_fields: options } = manifest.basket;
		const all = field ? [...page.forms].filter((form) => form.elements.namedItem(field)) : [];
		const form =
			all.find((form) => new FormData(form).get(field) === sku) ??
			page.querySelector('[data-up-place=product_page]')?.closest('form') ??
			(all[1] ? undefined : all[0]);
		if (!form) return { isOpen: !!all[0] };
		const copy = Object.assign(document.createElement('form'), { enctype: form.enctype });
		for (const [name, value] of new FormData(form))
			if (!options.includes(name))
				copy.append(Object.assign(document.createElement('input'), { type: 'hidden', name, value }));
		const isOpen = [...form.querySelectorAll<HTMLInputElement>(':is(input,textarea):invalid')].some(
			({ name }) => ![field, ...options].includes(name),
		);
		return { form: copy, own: form, isOpen };
	}

	return { read };
}
