import { beforeAll, describe, expect, it } from 'vitest';
import { paint } from './paint';
import type { Compiled } from './types';

const made: Compiled = {
	css: '.b{color:red}',
	icon: { path: 'M0 0h9', box: 256, side: 'after' },
	words: {},
	wide: false,
	high: 40,
};

// jsdom has no constructed style sheets; what they do is tested in the real browser.
beforeAll(() => {
	Object.defineProperty(ShadowRoot.prototype, 'adoptedStyleSheets', { value: [], writable: true });
	CSSStyleSheet.prototype.replaceSync = () => undefined;
});

describe('a painted button', () => {
	it('says its words and, after them, the product to screen readers', () => {
		const button = paint(document.createElement('div'), made, 'ready', 'Take it', 'Cedar hive');
		expect(button.textContent).toBe('Take it, Cedar hive');
		expect(button.querySelector('.n')?.textContent).toBe(', Cedar hive');
		expect(button.lastElementChild?.className).toBe('n');
		expect(button.querySelector('svg')?.getAttribute('aria-hidden')).toBe('true');
		expect(Array.from(button.children, (child) => child.tagName)).toEqual(['SPAN', 'svg', 'SPAN']);
	});

	it('is changed in place, so that the focus stays', () => {
		const host = document.createElement('div');
		const first = paint(host, made, 'ready', 'Take it');
		expect(paint(host, made, 'added', 'Yours')).toBe(first);
		expect(first.dataset.moment).toBe('added');
	});

	it('cannot be pressed while it works or when sold out, and says so', () => {
		const host = document.createElement('div');
		expect(paint(host, made, 'sold_out', 'Gone').getAttribute('aria-disabled')).toBe('true');
		expect(paint(host, made, 'ready', 'Take it').hasAttribute('aria-disabled')).toBe(false);
		expect(paint(host, made, 'working', 'Wait').getAttribute('aria-disabled')).toBe('true');
	});

	it('takes words as words, never as markup', () => {
		const button = paint(document.createElement('div'), { ...made, icon: null }, 'ready', '<img onerror=x>');
		expect(button.querySelector('img')).toBeNull();
		expect(button.textContent).toBe('<img onerror=x>');
	});
});
