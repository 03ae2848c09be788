// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import { choicesOf, matching, pictureOf, variantsOf } from './choices_told';
import type { Told } from './goods';
import { nodeTold } from './node_told';
import type { Basket } from '../base/types';

const BASKET = { kind: 'form_post', add_path: '/add', product_field: 'id', option_fields: ['size', 'finish'] } as never;
const basket = (more: object) => ({ ...(BASKET as object), ...more }) as unknown as Basket;

// After the example of a coat in sizes and colours at https://schema.org/ProductGroup, from memory: the group says by
// what its products differ, each product has a code, those properties, and an offer of its own.
const COAT = {
	'@context': 'https://schema.org/',
	'@type': 'ProductGroup',
	name: 'Wool winter coat',
	productGroupID: '44E01',
	variesBy: ['https://schema.org/size', 'https://schema.org/color'],
	hasVariant: [
		coat('44E01-M11000', 'small', 'Green', '39.99', 'InStock'),
		coat('44E01-M11002', 'large', 'Light blue', '49.99', 'BackOrder'),
		coat('44E01-X1100000', 'large', 'Green', '', 'OutOfStock'),
	],
};
function coat(sku: string, size: string, color: string, price: string, availability: string) {
	const offers = { '@type': 'Offer', priceCurrency: 'USD', price, availability: `https://schema.org/${availability}` };
	const image = [`https://example.com/${sku}.jpg`];
	return { '@type': 'Product', sku, name: `${size} ${color} coat`, image, size, color, offers };
}

function pageOf(html: string, ...data: object[]): Document {
	const scripts = data.map((one) => `<script type="application/ld+json">${JSON.stringify(one)}</script>`);
	return new DOMParser().parseFromString(`${scripts.join('')}${html}`, 'text/html');
}
const told = (page: Document) => ({ own: page.forms[0], page }) as unknown as Told;

describe('what a page tells of a group', () => {
	const variants = variantsOf(COAT);

	it('is found by its code, wherever it stands, also beside data that cannot be read', () => {
		const page = pageOf('<script type="application/ld+json">{ broken</script>', { '@graph': [{ a: [COAT] }] });
		expect(nodeTold(page, '44E01')?.name).toBe('Wool winter coat');
		expect(nodeTold(page, '44E01-M11002')?.size).toBe('large');
		expect(nodeTold(page, 'else')).toBeUndefined();
	});

	it('has pictures of its own, however they are told', () => {
		expect(variants[0]!.picture).toBe('https://example.com/44E01-M11000.jpg');
		expect(pictureOf({ '@type': 'ImageObject', contentUrl: '/a.webp' })).toBe('/a.webp');
		expect(pictureOf([{ url: '/b.png' }, '/c.png'])).toBe('/b.png');
		expect([undefined, [], null, {}].map(pictureOf)).toEqual(['', '', '', '']);
	});

	it('says which of it can be had, and for how much', () => {
		expect(variants.map(({ price, isGone }) => [price, isGone])).toEqual([
			['39.99', false],
			['49.99', false],
			['', true],
		]);
	});

	it('is matched by all that is chosen, by what is sent or what is read, in any case', () => {
		expect(matching(variants, [['L', 'Large'], ['green']]).map(({ sku }) => sku)).toEqual(['44E01-X1100000']);
		expect(matching(variants, [['small'], ['light blue']])).toEqual([]);
		expect(matching(variants, []).length).toBe(3);
	});

	it('may keep its properties among the additional ones', () => {
		const [one] = variantsOf({
			hasVariant: { sku: 'a', additionalProperty: [{ '@type': 'PropertyValue', name: 'Cell', value: 'Brood' }] },
		});
		expect([...one!.has]).toEqual(['brood']);
	});
});

describe('what has to be chosen', () => {
	it('is as the shop’s own form has it, called as its labels call it', () => {
		const page = pageOf(
			'<form><input name="id" value="A"><label>Size<select name="size"><option value="">Choose…</option>' +
				'<option>S</option><option value="2">Medium</option></select></label>' +
				'<fieldset><legend>Finish</legend><label><input type="radio" name="finish" value="oil"> Oiled</label>' +
				'<label><input type="radio" name="finish" value="wax"> Waxed</label></fieldset></form>',
		);
		expect(choicesOf(told(page), undefined, basket({}))).toEqual([
			{
				name: 'size',
				label: 'Size',
				values: [
					{ value: 'S', label: 'S' },
					{ value: '2', label: 'Medium' },
				],
			},
			{
				name: 'finish',
				label: 'Finish',
				values: [
					{ value: 'oil', label: 'Oiled' },
					{ value: 'wax', label: 'Waxed' },
				],
			},
		]);
	});

	it('may be which product it is, where one field holds several', () => {
		const page = pageOf(
			'<form><select name="id"><option value="7">Small</option><option value="8">Large</option></select></form>',
		);
		const [only, ...others] = choicesOf(told(page), undefined, basket({ option_fields: [] }));
		expect(others).toEqual([]);
		expect(only).toMatchObject({ name: 'id', isProduct: true, values: [{ label: 'Small' }, { value: '8' }] });
	});

	it('is told by the data of a group where there is no form', () => {
		const [only] = choicesOf(told(pageOf('')), COAT, basket({ option_fields: [] }));
		expect(only).toMatchObject({ label: 'size, color', isProduct: true });
		expect(only!.values.map(({ value, label }) => [value, label])).toEqual([
			['44E01-M11000', 'small, Green'],
			['44E01-M11002', 'large, Light blue'],
			['44E01-X1100000', 'large, Green'],
		]);
	});

	it('is nothing where nobody tells it', () => {
		const page = pageOf('<form><input name="id" value="A"></form>');
		expect(choicesOf(told(page), { '@type': 'Product', sku: 'A' }, basket({}))).toEqual([]);
	});
});
