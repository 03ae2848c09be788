import { afterEach, describe, expect, it, vi } from 'vitest';
import { Actions, chordOf, readable } from './actions.svelte';

let isOn = true;
const begin = () => new Actions(() => isOn);

/** Presses a key on what `html` marks with the class `at`. */
function press(actions: Actions, init: KeyboardEventInit, html = '<main class=at></main>'): KeyboardEvent {
	document.body.innerHTML = html;
	const event = new KeyboardEvent('keydown', { bubbles: true, cancelable: true, ...init });
	addEventListener('keydown', (heard) => actions.press(heard), { once: true });
	document.querySelector('.at')?.dispatchEvent(event);
	return event;
}
afterEach(() => {
	document.body.innerHTML = '';
	isOn = true;
});

describe('a shortcut', () => {
	it('does its action and keeps the key from the page', () => {
		const actions = begin();
		const run = vi.fn();
		actions.add({ title: 'Everywhere', actions: [{ title: 'Search', keys: ['/'], run }] });
		expect(press(actions, { key: '/' }).defaultPrevented).toBe(true);
		expect(run).toHaveBeenCalledOnce();
		expect(press(actions, { key: 'x' }).defaultPrevented).toBe(false);
	});

	it('of the newest group comes first, and goes with its group', () => {
		const actions = begin();
		const wide = vi.fn();
		const near = vi.fn();
		actions.add({ title: 'Everywhere', actions: [{ title: 'Why', keys: ['w'], run: wide }] });
		const leave = actions.add({ title: 'In Draw', actions: [{ title: 'Why this', keys: ['w'], run: near }] });
		press(actions, { key: 'w' });
		leave();
		press(actions, { key: 'w' });
		expect([near.mock.calls.length, wide.mock.calls.length]).toEqual([1, 1]);
		expect(actions.available.map((action) => action.title)).toEqual(['Why']);
	});

	it.each([
		['a text', '<input class=at>'],
		['a list', '<div role=listbox><b class=at></b></div>'],
		['a sheet', '<div role=dialog data-dialog-content><b class=at></b></div>'],
	])('of one key is left to %s that has the keyboard', (_, html) => {
		const actions = begin();
		const run = vi.fn();
		actions.add({ title: 'In Draw', actions: [{ title: 'Pixel grid', keys: ['g'], run }] });
		press(actions, { key: 'g' }, html);
		expect(run).not.toHaveBeenCalled();
	});

	it('of one key can be switched off; one with Ctrl stays', () => {
		const actions = begin();
		const [single, chord] = [vi.fn(), vi.fn()];
		actions.add({
			title: 'Everywhere',
			actions: [
				{ title: 'History', keys: ['h'], run: single },
				{ title: 'Undo', keys: ['Mod+z'], run: chord },
			],
		});
		isOn = false;
		press(actions, { key: 'h' });
		press(actions, { key: 'z', ctrlKey: true });
		expect([single.mock.calls.length, chord.mock.calls.length]).toEqual([0, 1]);
	});

	it.each([
		['a text, where the browser takes back letters', '<input class=at>', 0],
		['a long text', '<textarea class=at></textarea>', 0],
		['a number, which has none', '<input inputmode=decimal class=at>', 1],
		['a sheet, which covers what would change', '<div role=dialog data-dialog-content><b class=at></b></div>', 0],
	])('to undo, in %s', (_, html, times) => {
		const actions = begin();
		const run = vi.fn();
		actions.add({ title: 'Everywhere', actions: [{ title: 'Undo', keys: ['Mod+z'], run }] });
		press(actions, { key: 'z', ctrlKey: true }, html);
		expect(run).toHaveBeenCalledTimes(times);
	});

	it('does nothing, and is not offered, while it cannot be done', () => {
		const actions = begin();
		const run = vi.fn();
		actions.add({ title: 'In Draw', actions: [{ title: 'Apply', keys: ['v'], when: () => false, run }] });
		expect(press(actions, { key: 'v' }).defaultPrevented).toBe(false);
		expect(run).not.toHaveBeenCalled();
		expect(actions.available).toEqual([]);
	});

	it('is named as it is pressed and as it is read', () => {
		expect(chordOf(new KeyboardEvent('keydown', { key: 'Z', ctrlKey: true, shiftKey: true }))).toBe('Mod+Shift+z');
		expect(chordOf(new KeyboardEvent('keydown', { key: '?', shiftKey: true }))).toBe('?');
		expect(['Mod+Shift+z', '+', 'h'].map(readable)).toEqual(['Ctrl Shift Z', '+', 'h']);
	});
});
