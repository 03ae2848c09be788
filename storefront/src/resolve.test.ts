import { describe, expect, it } from 'vitest';
import { classKey, resolve, situationOf } from './resolve';
import type { Compiled, Manifest, Product, Reach, Trial } from './types';

const reach = (of: Partial<Reach> = {}): Reach => ({
	products: [],
	categories: [],
	situations: [],
	placements: [],
	...of,
});
const made = (css: string, high = 40): Compiled => ({ css, icon: null, words: {}, wide: false, high });
const tool: Product = {
	sku: 'A1',
	name: 'Tool',
	category: 'Tools',
	price: '1',
	currency: 'GBP',
	url: '',
	soldOut: false,
	needsChoice: false,
};
const trial: Trial = {
	id: '1',
	running: true,
	salt: 's',
	shares: { A: 0, B: 10000 },
	reach: reach({ placements: ['product_page'] }),
	B: { product_page: { '': made('B', 60), e1: made('B of e1') } },
};
const manifest = (of: Partial<Manifest> = {}): Manifest => ({
	edge: '',
	key: '',
	release: 1,
	language: 'en-GB',
	money: {},
	fonts: [],
	trials: [],
	rules: [],
	basket: { add_path: '', read_path: '', product_field: '', option_field: '', quantity_field: '' },
	places: { product_page: { '': made('plain'), e1: made('one'), 'e2,e1': made('both') } },
	...of,
});

describe('a class', () => {
	it('is named by the rules that cover it, the least particular first', () => {
		const rules = [
			{ id: 'e1', reach: reach({ products: ['A1'] }), rank: [true, false, false, false] },
			{ id: 'e2', reach: reach({ categories: ['Tools'] }), rank: [false, true, false, false] },
			{ id: 'e3', reach: reach({ situations: ['sold_out'] }), rank: [false, false, true, false] },
		];
		expect(classKey(manifest({ rules }), 'product_page', tool)).toBe('e2,e1');
		expect(classKey(manifest({ rules }), 'product_page', { ...tool, soldOut: true })).toBe('e3,e2,e1');
		expect(resolve(manifest({ rules }), 'product_page', tool, '', {})?.made.css).toBe('both');
	});

	it('that the release does not know is served by the plain button', () => {
		const rules = [{ id: 'e9', reach: reach(), rank: [false, false, false, false] }];
		expect(resolve(manifest({ rules }), 'product_page', tool, '', {})?.made.css).toBe('plain');
	});

	it('has no button in a place that the release does not know', () => {
		expect(resolve(manifest(), 'roof', tool, '', {})).toBeNull();
	});

	it('follows stock before choice', () => {
		expect(situationOf({ ...tool, soldOut: true, needsChoice: true })).toBe('sold_out');
		expect(situationOf({ ...tool, needsChoice: true })).toBe('choice');
		expect(situationOf(tool)).toBe('plain');
	});
});

describe('a trial', () => {
	it('shows its version and reserves for the larger one', () => {
		const found = resolve(manifest({ trials: [trial] }), 'product_page', tool, 'shopper-1', {});
		expect(found).toMatchObject({ made: { css: 'B' }, high: 60, versions: { '1': 'B' } });
	});

	it('reserves the same for those who get A', () => {
		const onlyA = { ...trial, shares: { A: 10000, B: 0 } };
		const found = resolve(manifest({ trials: [onlyA] }), 'product_page', tool, 'shopper-1', {});
		expect(found).toMatchObject({ made: { css: 'plain' }, high: 60, versions: { '1': 'A' } });
	});

	it('deals nobody who is not followed, and none while it does not run', () => {
		expect(resolve(manifest({ trials: [trial] }), 'product_page', tool, '', {})?.versions).toEqual({});
		const drawn = { ...trial, running: false };
		expect(resolve(manifest({ trials: [drawn] }), 'product_page', tool, 'shopper-1', {})?.versions).toEqual({});
	});

	it('is forced by a link, even before it runs', () => {
		const drawn = { ...trial, running: false };
		expect(resolve(manifest({ trials: [drawn] }), 'product_page', tool, '', { '1': 'B' })?.made.css).toBe('B');
		expect(resolve(manifest({ trials: [trial] }), 'product_page', tool, 'x', { '1': 'A' })?.made.css).toBe('plain');
	});

	it('leaves products outside its reach alone', () => {
		const jars = { ...trial, reach: reach({ categories: ['Jars'] }) };
		expect(resolve(manifest({ trials: [jars] }), 'product_page', tool, 'x', {})?.made.css).toBe('plain');
	});
});
