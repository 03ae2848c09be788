import { describe, expect, it } from 'vitest';
import { drawIcon } from './icon';
import { paint } from './paint';
import { paintQuantity } from './quantity';
import { paintSecond } from './second';
import type { Compiled } from '../base/types';

const made: Compiled = {
	css: '.b{color:red}',
	icon: { paths: [{ d: 'M0 0h9' }], box: '0 0 256 256', side: 'after' },
	wide: false,
	high: 40,
	shown: true,
	quantity: null,
	after: 'stay',
};

describe('a painted button', () => {
	it('says its words and, after them, the product to screen readers', () => {
		const button = paint(document.createElement('div'), {
			base: '',
			made,
			moment: 'ready',
			text: 'Take it',
			drawIcon,
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
		expect(
			paint(host, { base: '', made, moment: 'sold_out', text: 'Gone', inactive: true }).getAttribute('aria-disabled'),
		).toBe('true');
		expect(paint(host, { base: '', made, moment: 'ready', text: 'Take it' }).hasAttribute('aria-disabled')).toBe(false);
		expect(
			paint(host, { base: '', made, moment: 'working', text: 'Wait', inactive: true }).getAttribute('aria-disabled'),
		).toBe('true');
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
		const box = paint(host, of).previousElementSibling?.querySelector('input') as HTMLInputElement;
		expect([
			box.value,
			...['role', 'aria-valuenow', 'aria-valuemin', 'aria-valuemax', 'aria-label'].map((name) =>
				box.getAttribute(name),
			),
		]).toEqual(['20', 'spinbutton', '20', '10', '200', 'Quantity, Frames']);
		box.value = '40';
		paint(host, { ...of, text: 'Again' });
		expect(box.value).toBe('40');
		expect(paint(host, { ...of, made }).previousElementSibling).toBeNull();
	});

	it('is called what its language calls it, or what its own names say', () => {
		const host = document.createElement('div');
		const boxed = { ...made, quantity: { least: 1, most: 9, step: 1, start: 1, layout: 'sides' } };
		const german = { base: '', made: boxed, moment: 'ready', text: 'Kaufen', lang: 'de-DE', paintQuantity } as const;
		const called = () =>
			Array.from(host.shadowRoot?.querySelectorAll('.q > *') ?? [], (part) => part.getAttribute('aria-label'));
		const button = paint(host, german);
		// What is painted again is the button, not a key that stands before it.
		expect(paint(host, german)).toBe(button);
		expect(host.shadowRoot?.querySelector('.k')?.textContent).toBe('−');
		expect(called()).toEqual(['Fewer', 'Quantity', 'More']);
		paint(host, { ...german, box: ['Menge', 'Weniger', 'Mehr'], name: 'Rähmchen' });
		expect(called()).toEqual(['Weniger', 'Menge, Rähmchen', 'Mehr']);
		expect(host.lang).toBe('de-DE');
		const own = { ...boxed.quantity, names: { 'de-DE': ['Gläser', 'Ein Glas weniger', 'Noch ein Glas'] as const } };
		paint(host, { ...german, made: { ...boxed, quantity: own } });
		expect(called()).toEqual(['Ein Glas weniger', 'Gläser', 'Noch ein Glas']);
	});

	it('counts by the keys of the spinbutton pattern, within its bounds', () => {
		const host = document.createElement('div');
		const boxed = { ...made, quantity: { least: 10, most: 95, step: 10, start: 20 } };
		const of = { base: '', made: boxed, moment: 'ready', text: 'Take it', paintQuantity } as const;
		const box = paint(host, of).previousElementSibling?.querySelector('input') as HTMLInputElement;
		const press = (key: string) => {
			box.dispatchEvent(new KeyboardEvent('keydown', { key, cancelable: true }));
			return box.value;
		};
		expect(press('ArrowUp')).toBe('30');
		expect(press('ArrowDown')).toBe('20');
		expect(press('PageUp')).toBe('90');
		expect(press('Home')).toBe('10');
		expect(press('ArrowDown')).toBe('10');
		// The most that whole steps reach.
		expect(press('End')).toBe('90');
		expect(box.getAttribute('aria-valuenow')).toBe('90');
	});

	it('has minus and plus where its layout says so, and they stop at the ends', () => {
		const host = document.createElement('div');
		const quantity = { least: 1, most: 3, step: 1, start: 2, layout: 'sides' };
		const of = { base: '', made: { ...made, quantity }, moment: 'ready', text: 'Take it', paintQuantity } as const;
		const box = paint(host, of).previousElementSibling as HTMLElement;
		const field = box.querySelector('input') as HTMLInputElement;
		const [less, more] = Array.from(box.querySelectorAll('button'));
		more?.click();
		more?.click();
		expect([field.value, more?.getAttribute('aria-disabled'), less?.getAttribute('aria-disabled')]).toEqual([
			'3',
			'true',
			null,
		]);
		less?.click();
		expect(field.value).toBe('2');
		field.value = '9 pieces';
		field.dispatchEvent(new Event('change'));
		expect(field.value).toBe('1');
		const stacked = { ...made, quantity: { ...quantity, layout: 'stacked' } };
		expect(paint(host, { ...of, made: stacked }).previousElementSibling).not.toBe(box);
	});

	it('has a second one after it where the look has one', () => {
		const host = document.createElement('div');
		const of = { base: '', made: { ...made, second: {} }, moment: 'ready', text: 'Take it', paintSecond } as const;
		const button = paint(host, { ...of, second: 'Buy now' });
		expect(button.nextElementSibling?.textContent).toBe('Buy now');
		expect(button.nextElementSibling?.className).toBe('s');
		expect(paint(host, { ...of, made, second: 'Buy now' }).nextElementSibling).toBeNull();
	});

	it('without words is called by its own name while it is ready', () => {
		const button = paint(document.createElement('div'), {
			base: '',
			made,
			moment: 'ready',
			text: 'Take it',
			spoken: 'Buy',
		});
		expect(button.querySelector('.w')?.textContent).toBe('Buy');
	});
});
