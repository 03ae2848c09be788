import axe from 'axe-core';
import { createRawSnippet, flushSync, mount, unmount, type Component } from 'svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import Chip from './Chip.svelte';
import Combobox from './Combobox.svelte';
import Copy from './Copy.svelte';
import Empty from './Empty.svelte';
import Field from './Field.svelte';
import Figure from './Figure.svelte';
import FilePick from './FilePick.svelte';
import Float from './Float.svelte';
import Pick from './Pick.svelte';
import Press from './Press.svelte';
import Progress from './Progress.svelte';

const words = (text: string) => createRawSnippet(() => ({ render: () => `<span>${text}</span>` }));
let mounted: ReturnType<typeof mount>[] = [];

function show<Props extends Record<string, unknown>>(part: Component<Props>, props: Props): HTMLElement {
	const root = document.body.appendChild(document.createElement('main'));
	root.id = 'content';
	mounted.push(mount(part, { target: root, props }));
	flushSync();
	return root;
}

function type(field: HTMLInputElement, text: string): void {
	field.focus();
	field.value = text;
	field.dispatchEvent(new Event('input', { bubbles: true }));
	flushSync();
}

function press(at: Element, key: string): void {
	at.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
	at.dispatchEvent(new KeyboardEvent('keyup', { key, bubbles: true }));
	flushSync();
}

/** Reference: axe-core's rules for WCAG 2.2 A and AA; colours need a real page, where the stories look at them. */
async function barriers(root: HTMLElement): Promise<string[]> {
	const found = await axe.run(root, { rules: { 'color-contrast': { enabled: false }, region: { enabled: false } } });
	return found.violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`);
}

afterEach(async () => {
	for (const part of mounted) await unmount(part);
	mounted = [];
	document.body.innerHTML = '';
});

const LANTERNS = [
	{ value: 'L-1', label: 'Storm lantern', says: 'L-1' },
	{ value: 'L-2', label: 'Hand lantern', says: 'L-2' },
];
function combobox(more: Record<string, unknown> = {}) {
	const onpick = vi.fn();
	const props = { label: 'Product: Storm lantern', list: 'Products', value: 'L-1', name: 'Storm lantern' };
	const root = show(Combobox as Component<Record<string, unknown>>, {
		...props,
		choices: LANTERNS,
		open: false,
		typed: '',
		onpick,
		empty: 'No product is called that.',
		...more,
	});
	return { root, field: root.querySelector('input')!, onpick };
}

describe('each part of the kit', () => {
	const parts: [string, () => HTMLElement][] = [
		['a button', () => show(Press, { children: words('Release'), onpress: vi.fn() })],
		['a link that looks like one', () => show(Press, { children: words('CSV'), href: '/x', away: true })],
		['a text in a sentence', () => show(Field, { label: 'Name', value: '', usual: 'no name', onset: vi.fn() })],
		['a number', () => show(Figure, { label: 'radius', value: 4, onset: vi.fn() })],
		[
			'a number out of its bounds',
			() => {
				const root = show(Figure, { label: 'radius', value: 4, most: 40, onset: vi.fn() });
				type(root.querySelector('input')!, '99');
				press(root.querySelector('input')!, 'Enter');
				return root;
			},
		],
		[
			'a choice',
			() =>
				show(Pick, { label: 'Device', value: 'phone', options: [{ value: 'phone', label: 'phone' }], onpick: vi.fn() }),
		],
		['what floats', () => show(Float, { label: 'Icon: none', trigger: words('no icon'), children: words('search') })],
		[
			'a file',
			() => show(FilePick, { label: 'Catalogue', accept: '.csv', children: words('Import…'), onpick: vi.fn() }),
		],
		['what is not there yet', () => show(Empty, { children: words('No saved looks yet.') })],
		['what goes on', () => show(Progress, { label: 'Import', done: 2, of: 5 })],
		['a choice among many', () => combobox().root],
		['a choice among many, open', () => combobox({ open: true }).root],
		['a text to copy', () => show(Copy, { text: '<script>' })],
		['a colour', () => show(Chip, { of: '#804020' })],
	];
	it.each(parts)('keeps nobody out: %s', async (_, made) => {
		expect(await barriers(made())).toEqual([]);
	});
});

describe('a text in a sentence', () => {
	it('is kept on Enter and when one leaves it, without spaces around it, and only where it is another', () => {
		const onset = vi.fn();
		const field = show(Field, { label: 'Name', value: 'Ann', onset }).querySelector('input')!;
		type(field, ' Bea ');
		press(field, 'Enter');
		expect(onset.mock.calls).toEqual([['Bea']]);
		type(field, 'Ann ');
		field.dispatchEvent(new FocusEvent('blur'));
		expect(onset).toHaveBeenCalledTimes(1);
	});

	it('is as before on Escape', () => {
		const onset = vi.fn();
		const field = show(Field, { label: 'Name', value: 'Ann', onset }).querySelector('input')!;
		type(field, 'Bea');
		press(field, 'Escape');
		field.dispatchEvent(new FocusEvent('blur'));
		expect(field.value).toBe('Ann');
		expect(onset).not.toHaveBeenCalled();
	});
});

describe('a number', () => {
	it('is a spinbutton: arrow keys step it within its bounds, and it is kept once the key is let go', () => {
		const onset = vi.fn();
		const field = show(Figure, { label: 'radius', value: 39, most: 40, onset }).querySelector('input')!;
		expect(field.getAttribute('role')).toBe('spinbutton');
		expect(['aria-valuenow', 'aria-valuemin', 'aria-valuemax'].map((name) => field.getAttribute(name))).toEqual([
			'39',
			'0',
			'40',
		]);
		press(field, 'ArrowUp');
		press(field, 'ArrowUp');
		expect(onset.mock.calls.at(-1)).toEqual([40]);
	});

	it('refuses what it cannot be with what it may be, and keeps what was typed', () => {
		const onset = vi.fn();
		const root = show(Figure, { label: 'radius', value: 4, most: 40, onset });
		const field = root.querySelector('input')!;
		type(field, '99');
		press(field, 'Enter');
		expect(onset).not.toHaveBeenCalled();
		expect(field.getAttribute('aria-invalid')).toBe('true');
		expect(root.querySelector('[role=alert]')?.textContent?.trim()).toBe('0 to 40');
		expect(field.value).toBe('99');
	});
});

describe('a choice among many', () => {
	it('shows what is chosen, and every choice once it is opened', async () => {
		const { root, field } = combobox();
		expect([field.value, field.getAttribute('role'), field.getAttribute('aria-expanded')]).toEqual([
			'Storm lantern',
			'combobox',
			'false',
		]);
		field.click();
		await vi.waitFor(() => expect(root.querySelectorAll('[role=option]')).toHaveLength(2));
		expect(field.getAttribute('aria-expanded')).toBe('true');
		expect(root.querySelector('[role=listbox]')?.getAttribute('aria-label')).toBe('Products');
	});

	it('is taken by the keyboard, and told once', async () => {
		const { field, onpick } = combobox({ choices: LANTERNS.slice(1), open: true });
		type(field, 'hand');
		await vi.waitFor(() => expect(field.getAttribute('aria-activedescendant')).toBeTruthy());
		press(field, 'Enter');
		expect(onpick.mock.calls).toEqual([['L-2']]);
	});

	it('says what is so where there is nothing to choose', async () => {
		const { root } = combobox({ choices: [], open: true });
		await vi.waitFor(() => expect(root.textContent).toContain('No product is called that.'));
	});
});

describe('a file', () => {
	it('can be picked twice, since it may have been changed meanwhile', () => {
		const onpick = vi.fn();
		const input = show(FilePick, { label: 'Texts', accept: '.po', children: words('Import'), onpick }).querySelector(
			'input',
		)!;
		const file = new File(['msgid ""'], 'de.po');
		for (let n = 0; n < 2; n++) {
			Object.defineProperty(input, 'files', { configurable: true, value: [file] });
			input.dispatchEvent(new Event('change', { bubbles: true }));
		}
		expect(onpick.mock.calls).toEqual([[file], [file]]);
		expect(input.value).toBe('');
	});
});
