import type { Reach } from '$lib/api/types';

const devices: Record<string, string> = { phone: 'on phones', tablet: 'on tablets', desktop: 'on desktops' };
const places: Record<string, string> = {
	product_page: 'on the product page',
	listing_card: 'on listing cards',
	sticky_bar: 'on the sticky bar',
	strip: 'on strips',
	over_picture: 'on pictures',
	floating: 'on the floating button',
	tile: 'on tiles',
	outside: 'on outside buttons',
};

/** Where one is: what an exception could be for. */
export type Here = {
	placement: string;
	device?: string;
	language?: string;
	product?: { sku: string; category: string };
};

export type QuickReach = { label: string; words: string };

/** Returns reaches that one may want from where one is, the most likely first, in the words that the reach field reads. */
export function quickReaches(from: Here, languages: readonly { value: string; label: string }[]): QuickReach[] {
	const { product } = from;
	const place = places[from.placement] ?? '';
	const reaches: QuickReach[] = [];
	if (product) {
		reaches.push({ label: 'only this product', words: product.sku });
		reaches.push({ label: `all ${product.category}`, words: product.category });
		reaches.push({ label: 'only here', words: `${product.sku}, ${place}` });
	}
	if (from.device)
		reaches.push({ label: `only ${devices[from.device]}`, words: `every product, ${place}, ${devices[from.device]}` });
	const language = languages.find((language) => language.value === from.language);
	if (language)
		reaches.push({ label: `only in ${language.label}`, words: `every product, ${place}, in ${language.label}` });
	reaches.push({ label: 'returning shoppers', words: `every product, ${place}, for returning shoppers` });
	return reaches;
}

/** Returns a reach with every list, from those that narrow. */
export function wholeReach(of: Partial<Reach>): Reach {
	return {
		products: [],
		categories: [],
		situations: [],
		placements: [],
		devices: [],
		languages: [],
		shoppers: [],
		not_products: [],
		not_categories: [],
		...of,
	};
}
