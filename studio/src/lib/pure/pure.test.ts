import { describe, expect, it } from 'vitest';
import { hexColour } from './colour';
import { editOf, fieldOf } from './edit';
import { capital, count, many, percent, points, px, said } from './format';
import { stepOf, typedNumber, within } from './number';
import { patchAt, valueAt } from './patch';
import { quickReaches, wholeReach } from './reach';
import { apart, stageFor } from './stage';
import { openBrace, withToken } from './tokens';

describe('numbers', () => {
	it.each([
		['12', 12],
		[' 12.5 px ', 12.5],
		['12,5', 12.5],
		['40%', 40],
		['-3', -3],
		['', null],
		['twelve', null],
		['12 em', null],
		['1e3', null],
	])('%s is read as %s', (text, value) => {
		expect(typedNumber(text)).toBe(value);
	});

	it('step by 1, with Shift by 10, with Alt by a half', () => {
		expect(stepOf({ shiftKey: false, altKey: false })).toBe(1);
		expect(stepOf({ shiftKey: true, altKey: false })).toBe(10);
		expect(stepOf({ shiftKey: false, altKey: true })).toBe(0.5);
	});

	it('stay in their bounds without rounding dust', () => {
		expect(within(0.1 + 0.2, 0, 1)).toBe(0.3);
		expect(within(-4, 0, 1)).toBe(0);
		expect(within(40, 0, 36)).toBe(36);
	});
});

describe('figures', () => {
	it('are written for people', () => {
		expect(count(16316)).toBe('16,316');
		expect(px(158.84)).toBe('158.8');
		expect(px(320)).toBe('320');
		expect(percent(0.09)).toBe('9.0 %');
		expect(percent(-0.005)).toBe('−0.5 %');
		expect(points(0.0574)).toBe('+5.7');
		expect(points(-0.031)).toBe('−3.1');
		expect(points(0.06)).toBe('+6');
		expect(points(0.06, true)).toBe('+6.0');
		expect(points(0)).toBe('±0');
		expect(many(1, 'page')).toBe('1 page');
		expect(many(1200, 'page')).toBe('1,200 pages');
		expect(capital(said('listing_card'))).toBe('Listing card');
	});
});

describe('colours', () => {
	it.each([
		['#3A2A12', '#3a2a12'],
		['fff', '#ffffff'],
		[' #abc ', '#aabbcc'],
		['red', null],
		['#12345', null],
	])('%s is kept as %s', (text, kept) => {
		expect(hexColour(text)).toBe(kept);
	});
});

describe('edits', () => {
	const document = {
		look: { size: { kind: 'fixed', width: 120, height: 40 }, radius: 4 },
		icon: { kind: 'none' },
	};

	it('set one field', () => {
		expect(patchAt('look.radius', 6)).toEqual({ look: { radius: 6 } });
		expect(editOf(document, { 'look.radius': 6 })).toEqual({ look: { radius: 6 } });
		expect(valueAt(document, 'look.size.width')).toBe(120);
		expect(valueAt(document, 'look.nothing.here')).toBeUndefined();
	});

	it('write a tagged value whole', () => {
		expect(editOf(document, { 'look.size.width': 130 })).toEqual({
			look: { size: { kind: 'fixed', width: 130, height: 40 } },
		});
		expect(fieldOf('look.hover.fill.colour')).toBe('look.hover.fill');
		expect(fieldOf('look.padding.top')).toBe('look.padding.top');
	});
});

describe('the stage', () => {
	const drawing = {
		outer: { x: 0, y: 0, width: 320, height: 47 },
		needs_width_px: 160,
		second: null,
		quantity: null,
	} as Parameters<typeof stageFor>[0];

	it('enlarges a button as far as its dimensions leave room', () => {
		const stage = stageFor(drawing, 900, 300);
		expect(stage.zoom).toBeCloseTo((900 - 250) / 320);
		expect(stage.x + 320 * stage.zoom).toBeLessThan(900);
		expect(stage.y + 47 * stage.zoom).toBeLessThan(300);
	});

	it('holds what overflows, too', () => {
		expect(stageFor({ ...drawing, needs_width_px: 640 }, 900, 300).zoom).toBeLessThan(stageFor(drawing, 900, 300).zoom);
	});

	it('makes room for what stands beside and under a button', () => {
		const second = { outer: { x: 0, y: 60, width: 320, height: 47 } } as typeof drawing.second;
		const quantity = { x: -72, y: 0, width: 64, height: 47 };
		const stage = stageFor({ ...drawing, second, quantity }, 900, 300);
		expect(stage.zoom).toBeLessThan((900 - 250) / 320);
		expect(stage.x - 72 * stage.zoom).toBeCloseTo(stage.edge);
	});

	it('keeps labels apart, moved as little as needed', () => {
		expect(apart([0, 10, 300], 66)).toEqual([0, 66, 300]);
		expect(apart([], 66)).toEqual([]);
	});
});

describe('a live value that is being written', () => {
	it.each([
		['Take {pr', 8, 'pr'],
		['Take {', 6, ''],
		['Take {price without', 19, 'price without'],
		['Take {price} ', 13, null],
		['Take it', 7, null],
		['{count, plural, one {h', 22, null],
	])('%s at %i is begun by %s', (text, at, begun) => {
		expect(openBrace(text, at)).toBe(begun);
	});

	it('takes the place of its brace, and the writing goes on behind it', () => {
		expect(withToken('Take {pr now', 8, 'price')).toEqual({ text: 'Take {price} now', at: 12 });
		expect(withToken('{na}', 3, 'name')).toEqual({ text: '{name}', at: 6 });
	});
});

describe('a reach from where one is', () => {
	it('begins with the product, then its category, place, device and language', () => {
		const product = { sku: 'A1', category: 'Tools' };
		const languages = [{ value: 'de-DE', label: 'German' }];
		const here = { placement: 'strip', product, device: 'phone', language: 'de-DE' };
		expect(quickReaches(here, languages).map((language) => language.words)).toEqual([
			'A1',
			'Tools',
			'A1, on strips',
			'every product, on strips, on phones',
			'every product, on strips, in German',
			'every product, on strips, for returning shoppers',
		]);
		expect(wholeReach({ placements: ['strip'] })).toMatchObject({ placements: ['strip'], not_products: [] });
	});
});
