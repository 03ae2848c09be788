import { beforeAll, describe, expect, it } from 'vitest';
import { paint } from './paint';
import { paintQuantity } from './quantity';
import type { Compiled } from './types';

const made: Compiled = {
	css: '.b{color:red}',
	icon: { path: 'M0 0h9', box: 256, side: 'after' },
	wide: false,
	high: 40,
	shown: true,
	name: true,
	price: true,
	quantity: null,
	after: 'stay',
};

// jsdom has no constructed style sheets; what they do is tested in the real browser.
beforeAll(() => {
	Object.defineProperty(ShadowRoot.prototype, 'adoptedStyleSheets', { value: [], writable: true });
	CSSStyleSheet.prototype.replaceSync = () => undefined;
});

describe('a painted button', () => {
	it('says its words and, after them, the product to screen readers', () => {
		const button = paint(document.createElement('div'), {
			base: '',
			made,
			moment: 'ready',
			text: 'Take it',
			name: 'Cedar hive',
		});
		expect(button.textContent).toBe('Take it, Cedar hive');
		expect(button.querySelector('.n')?.textContent).toBe(', Cedar hive');
		expect(button.lastElementChild?.className).toBe('n');
		expect(button.querySelector('svg')?.getAttribute('aria-hidden')).toBe('true');
		expect(Array.from(button.children, (child) => child.tagName)).toEqual(['SPAN', 'svg', 'SPAN']);
	});

	it('is changed in place, so that the focus stays', () => {
		const host = document.createElement('div');
		const first = paint(host, { base: '', made, moment: 'ready', text: 'Take it' });
		expect(paint(host, { base: '', made, moment: 'added', text: 'Yours' })).toBe(first);
		expect(first.dataset.moment).toBe('added');
	});

	it('that cannot be pressed now says so', () => {
		const host = document.createElement('div');
		expect(paint(host, { base: '', made, moment: 'sold_out', text: 'Gone', inactive: true }).ariaDisabled).toBe('true');
		expect(paint(host, { base: '', made, moment: 'ready', text: 'Take it' }).hasAttribute('aria-disabled')).toBe(false);
		expect(paint(host, { base: '', made, moment: 'working', text: 'Wait', inactive: true }).ariaDisabled).toBe('true');
	});

	it('takes words as words, never as markup', () => {
		const button = paint(document.createElement('div'), {
			base: '',
			made: { ...made, icon: null },
			moment: 'ready',
			text: '<img onerror=x>',
		});
		expect(button.querySelector('img')).toBeNull();
		expect(button.textContent).toBe('<img onerror=x>');
	});

	it('stands from right to left where its language does', () => {
		const host = document.createElement('div');
		paint(host, { base: '', made, moment: 'ready', text: 'خذه', rtl: true });
		expect(host.dir).toBe('rtl');
	});

	it('has its quantity before it, and keeps what a shopper has typed', () => {
		const host = document.createElement('div');
		const boxed = { ...made, quantity: { least: 10, most: 200, step: 10, start: 20 } };
		const of = { base: '', made: boxed, moment: 'ready', text: 'Take it', name: 'Frames', paintQuantity } as const;
		const box = paint(host, of).previousElementSibling as HTMLInputElement;
		expect([box.value, box.min, box.max, box.step, box.ariaLabel]).toEqual([
			'20',
			'10',
			'200',
			'10',
			'Quantity, Frames',
		]);
		box.value = '40';
		expect((paint(host, { ...of, text: 'Again' }).previousElementSibling as HTMLInputElement).value).toBe('40');
		expect(paint(host, { ...of, made }).previousElementSibling).toBeNull();
	});
});
