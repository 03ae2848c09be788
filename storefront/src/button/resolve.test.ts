import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { dealVersions } from './deal';
import { fillText } from './live';
import type { Looker } from '../base/shop';
import { contextOf, resolve, sayText } from './resolve';
import { covering, covers } from './rules';
import type { Compiled, Manifest, Pattern, Product, Rule, Trial, Words } from '../base/types';

type Given = {
	sku: string;
	placement: string;
	device: string;
	language: string;
	shopper: string;
	moment: string;
	count: number;
};
type Golden = {
	products: Product[];
	shops: {
		why: string;
		manifest: Manifest;
		cases: { given: Given; expect: { look: number; text: string } }[];
	}[];
};
const golden = JSON.parse(readFileSync('golden/shops.json', 'utf8')) as Golden;

const made = (css: string, high = 40): Compiled => ({
	css,
	icon: null,
	wide: false,
	high,
	shown: true,
	quantity: null,
	after: 'stay',
});
const tool = golden.products[0] as Product;
const looker: Looker = {
	covering,
	language: 'en-GB',
	device: 'phone',
	shopper: 'shopper-1',
	kind: 'new',
	deal: dealVersions,
};
const trial: Trial = {
	id: '1',
	running: true,
	salt: 's',
	shares: { A: 0, B: 10000 },
	reach: { placements: ['product_page'] },
	B: {
		words: { ready: { 'en-GB': ['B says'] } },
		looks: { product_page: { '': made('B', 60), e1: made('B of e1') } },
	},
};
const manifest = (of: Partial<Manifest> = {}): Manifest => ({
	edge: '',
	key: '',
	release: 1,
	language: 'en-GB',
	languages: {},
	fonts: [],
	css: '',
	more: {},
	outcomes: {},
	trials: [],
	rules: [],
	base: '',
	basket: {
		kind: 'form_post',
		add_path: '',
		basket_path: '',
		checkout_path: '',
		product_field: '',
		option_fields: [],
		quantity_field: '',
	},
	later: { file: '', integrity: '' },
	looks: [made('plain'), made('one'), made('both')],
	places: { product_page: { looks: { '': 0, e1: 1, 'e2,e1': 2 }, words: {} } },
	words: { ready: { 'en-GB': ['Buy'] } },
	...of,
});
const standing = (of: Partial<Manifest>, by: Partial<Looker> = {}, forced = {}) =>
	resolve(manifest(of), 'product_page', tool, { ...looker, ...by, forced });

describe.each(golden.shops)('$why', ({ manifest: shop, cases }) => {
	it('shows in every context what Python resolves, product by product', () => {
		for (const { given, expect: wanted } of cases) {
			const product = golden.products.find((product) => product.sku === given.sku) as Product;
			const by = { covering, language: given.language, device: given.device, shopper: '', kind: given.shopper };
			const found = resolve(shop, given.placement, product, by);
			expect(found?.made, JSON.stringify(given)).toEqual(shop.looks[wanted.look]);
			const fill = (pattern: Pattern) => fillText(pattern, product, given.count, shop.languages[given.language]);
			const text = sayText(found?.words ?? [], given.moment, given.language, shop.language, fill);
			expect(text || product.name, JSON.stringify(given)).toBe(wanted.text);
		}
	});
});

describe('a reach', () => {
	const context = contextOf('product_page', tool, looker);
	it('without lists covers everything, and what is taken away is not covered', () => {
		expect(covers({}, context)).toBe(true);
		expect(covers({ categories: [tool.category] }, context)).toBe(true);
		expect(covers({ categories: [tool.category], not_products: [tool.sku] }, context)).toBe(false);
		expect(covers({ not_categories: ['Cheese'] }, context)).toBe(true);
		expect(covers({ shoppers: ['returning'] }, context)).toBe(false);
	});

	it('holds from its first moment until its last', () => {
		const rule: Rule = { id: 'e1', reach: {}, from: 100, until: 200 };
		expect([99, 100, 199, 200].map((now) => covering([rule], context, now).length)).toEqual([0, 1, 1, 0]);
	});
});

describe('a look', () => {
	it('is that of the exceptions that set looks, the least particular first', () => {
		const rules: Rule[] = [
			{ id: 'e2', reach: { categories: ['Tools'] }, look: true },
			{ id: 'e3', reach: {}, words: {} },
			{ id: 'e1', reach: { products: ['A1'] }, look: true },
		];
		expect(standing({ rules })?.made.css).toBe('both');
	});

	it('that the release does not know is the plain one, and a place that it does not know has none', () => {
		expect(standing({ rules: [{ id: 'e9', reach: {}, look: true }] })?.made.css).toBe('plain');
		expect(resolve(manifest(), 'roof', tool, looker)).toBeNull();
	});
});

describe('a trial', () => {
	it('shows its version in look and words, and reserves for the larger one', () => {
		const found = standing({ trials: [trial] });
		expect(found).toMatchObject({ made: { css: 'B' }, high: 60, versions: { '1': 'B' } });
		expect(sayText(found?.words ?? [], 'ready', 'en-GB', 'en-GB', String)).toBe('B says');
	});

	it('reserves the same for those who get A', () => {
		const onlyA = { ...trial, shares: { A: 10000, B: 0 } };
		expect(standing({ trials: [onlyA] })).toMatchObject({ made: { css: 'plain' }, high: 60, versions: { '1': 'A' } });
	});

	it('deals nobody who is not followed, and none while it does not run', () => {
		expect(standing({ trials: [trial] }, { shopper: '' })?.versions).toEqual({});
		expect(standing({ trials: [{ ...trial, running: false }] })?.versions).toEqual({});
	});

	it('is forced by a link, even before it runs', () => {
		const drawn = { ...trial, running: false };
		expect(standing({ trials: [drawn] }, { shopper: '' }, { '1': 'B' })?.made.css).toBe('B');
		expect(standing({ trials: [trial] }, {}, { '1': 'A' })?.made.css).toBe('plain');
	});

	it('that changes no look keeps the look, and leaves products outside its reach alone', () => {
		const says = { ...trial, B: { ...trial.B, looks: {} } };
		expect(standing({ trials: [says] })?.made.css).toBe('plain');
		expect(standing({ trials: [{ ...trial, reach: { categories: ['Jars'] } }] })?.versions).toEqual({});
	});
});

describe('the height that is kept free', () => {
	it('is one for all devices, or each device’s own', () => {
		const own = { ...made('own'), high: { phone: 62, desktop: 43 } };
		const stands = (device: string, look: Compiled) =>
			resolve(
				manifest({ looks: [look], places: { product_page: { looks: { '': 0 }, words: {} } } }),
				'product_page',
				tool,
				{ ...looker, deal: undefined, device },
			)?.high;
		expect([stands('phone', own), stands('desktop', own), stands('tablet', made('one'))]).toEqual([62, 43, 40]);
	});

	it('is that of the larger version on each device', () => {
		const tall = {
			...trial,
			B: { ...trial.B, looks: { product_page: { '': { ...made('B'), high: { phone: 80 } } } } },
		};
		const of = manifest({ trials: [tall] });
		expect(resolve(of, 'product_page', tool, looker)?.high).toBe(80);
	});
});

describe('a text that a product cannot say', () => {
	const priced: Pattern = ['Add · ', { v: 'price' }];
	const fill = (product: Product) => (pattern: Pattern) => fillText(pattern, product, 0);
	const unpriced = { ...tool, price: '' };

	it('gives way to that of the next wider rule that needs no price', () => {
		const words = [{ ready: { 'en-GB': priced } }, { ready: { 'en-GB': priced } }, { ready: { 'en-GB': ['Add it'] } }];
		expect(sayText(words, 'ready', 'en-GB', 'en-GB', fill(unpriced))).toBe('Add it');
		expect(sayText(words, 'ready', 'en-GB', 'en-GB', fill(tool))).toBe('Add · 12.50');
	});

	it('is said without the price where every rule needs one, rather than in another language', () => {
		const words: Words[] = [{ ready: { 'de-DE': priced } }, { ready: { 'en-GB': ['Add it'] } }];
		expect(sayText(words, 'ready', 'de-DE', 'en-GB', fill(unpriced))).toBe('Add');
	});

	it('that is nothing but the price gives way to another language and to the ready text', () => {
		const words = [{ added: { 'en-GB': [{ v: 'price' }] as Pattern }, ready: { 'en-GB': ['Buy'] } }];
		expect(sayText(words, 'added', 'en-GB', 'en-GB', fill(unpriced))).toBe('Buy');
	});
});
