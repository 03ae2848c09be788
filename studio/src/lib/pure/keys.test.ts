import { afterEach, describe, expect, it } from 'vitest';
import { isFreeKey, isSheetOpen } from './keys';

const stand = (html: string): Element => {
	document.body.innerHTML = html;
	return document.body.querySelector('.at') as Element;
};
function press(at: Element, more: KeyboardEventInit = {}): KeyboardEvent {
	const event = new KeyboardEvent('keydown', { key: '4', bubbles: true, cancelable: true, ...more });
	at.dispatchEvent(event);
	return event;
}
afterEach(() => (document.body.innerHTML = ''));

describe('a single key', () => {
	it.each([
		['<button class=at>x</button>', true],
		['<main class=at></main>', true],
		['<input type=checkbox class=at>', true],
		['<input class=at>', false],
		['<textarea class=at></textarea>', false],
		['<div contenteditable=true><b class=at>x</b></div>', false],
		['<button aria-haspopup=listbox class=at>600</button>', false],
		['<button role=combobox class=at>600</button>', false],
		['<div role=listbox><div role=option class=at>600</div></div>', false],
		['<div data-popover-content><button class=at>x</button></div>', false],
		['<main class=at></main><div role=dialog data-dialog-content>a sheet</div>', false],
	])('on %s is a shortcut: %s', (html, free) => {
		expect(isFreeKey(press(stand(html)))).toBe(free);
	});

	it('with a modifier, or that something has taken, is none', () => {
		const at = stand('<main class=at></main>');
		for (const held of ['ctrlKey', 'metaKey', 'altKey']) expect(isFreeKey(press(at, { [held]: true }))).toBe(false);
		at.addEventListener('keydown', (event) => event.preventDefault());
		expect(isFreeKey(press(at))).toBe(false);
	});

	it('is none behind a sheet', () => {
		stand('<main class=at></main>');
		expect(isSheetOpen()).toBe(false);
		stand('<div role=dialog data-dialog-content><p class=at></p></div>');
		expect(isSheetOpen()).toBe(true);
	});

	it('is one again as soon as the sheet is closed, though it may still be there until it is drawn anew', () => {
		stand('<div role=dialog data-dialog-content data-state=closed></div>');
		expect(isSheetOpen()).toBe(false);
		stand('<div role=dialog data-dialog-content data-state=open></div>');
		expect(isSheetOpen()).toBe(true);
	});
});
