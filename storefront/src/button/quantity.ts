import { setAria } from '../base/aria';
import type { BoxNames, Compiled } from '../base/types';

/** For releases of before names were in them. */
const ENGLISH: BoxNames = ['Quantity', 'Fewer', 'More'];
type Rule = NonNullable<Compiled['quantity']>;

/** The number that is nearest to what was typed among those that may be bought. */
export function nearest(typed: string, { least, most, step }: Rule): number {
	const steps = Math.round((Number(typed) - least) / step);
	const last = Math.floor((most - least) / step);
	return least + step * Math.min(last, Math.max(0, Number.isFinite(steps) ? steps : 0));
}

/**
 * Stands a number of pieces before a button, or takes it away; what a shopper has typed stays. It is the ARIA spinbutton
 * pattern: arrows step, Page Up and Page Down go ten steps, Home and End to the least and the most.
 */
export function paintQuantity(
	root: ShadowRoot,
	button: Element,
	rule: Compiled['quantity'],
	name = '',
	usual?: BoxNames,
): void {
	let box = root.querySelector<HTMLElement>('.q');
	const shape = rule && `${rule.layout ?? 'plain'}`;
	if (box && box.dataset.layout !== shape) {
		box.remove();
		box = null;
	}
	if (!rule) return;
	if (!box) button.before((box = made(rule)));
	const field = box.querySelector('input')!;
	field.dataset.rule = JSON.stringify(rule);
	const [called = '', ...keys] = rule.names?.[(root.host as HTMLElement).lang] ?? usual ?? ENGLISH;
	setAria(field, 'label', name ? `${called}, ${name}` : called);
	box.querySelectorAll('button').forEach((key, n) => setAria(key, 'label', keys[n] ?? ''));
	set(field, rule, nearest(field.value, rule));
}

const ruleOf = (field: HTMLInputElement) => JSON.parse(field.dataset.rule ?? '{}') as Rule;

function made(rule: Rule): HTMLElement {
	const field = document.createElement('input');
	field.inputMode = 'numeric';
	field.autocomplete = 'off';
	field.setAttribute('role', 'spinbutton');
	field.value = `${rule.start}`;
	field.onkeydown = (event) => {
		const now = ruleOf(field);
		const steps: Record<string, number> = { ArrowUp: 1, ArrowDown: -1, PageUp: 10, PageDown: -10 };
		const way = steps[event.key];
		const to =
			event.key === 'Home' ? now.least : event.key === 'End' ? now.most : way && Number(field.value) + way * now.step;
		if (to === undefined) return;
		event.preventDefault();
		set(field, now, nearest(`${to}`, now));
	};
	field.onchange = () => set(field, ruleOf(field), nearest(field.value, ruleOf(field)));
	field.className = 'v';
	const box = document.createElement('span');
	box.className = 'q';
	box.dataset.layout = rule.layout ?? 'plain';
	box.append(field);
	if (box.dataset.layout !== 'plain') {
		field.before(key(field, -1));
		field.after(key(field, 1));
	}
	return box;
}

/** Minus and plus are for pointers: the keyboard has the number itself, as the pattern has it. */
function key(field: HTMLInputElement, way: number): HTMLElement {
	const key = document.createElement('button');
	key.type = 'button';
	key.className = 'k';
	key.tabIndex = -1;
	key.style.gridArea = way < 0 ? 'm' : 'p';
	key.textContent = way < 0 ? '−' : '+';
	key.onclick = () => {
		const now = ruleOf(field);
		set(field, now, nearest(`${Number(field.value) + way * now.step}`, now));
	};
	return key;
}

function set(field: HTMLInputElement, { least, most, step }: Rule, value: number): void {
	field.value = `${value}`;
	setAria(field, 'valuenow', value);
	setAria(field, 'valuemin', least);
	setAria(field, 'valuemax', most);
	for (const [area, end] of [
		['m', value - step < least],
		['p', value + step > most],
	] as const) {
		const key = field.parentElement?.querySelector<HTMLElement>(`.k[style*="${area}"]`);
		if (key) setAria(key, 'disabled', end);
	}
}
