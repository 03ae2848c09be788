/** What a pointer and the keyboard would bring, by the attribute that stands for each of them in the frame. */
export const STATE_ATTRIBUTE = 'up-state';

/** The pseudo-classes that hold of a button in a state, and of whatever it stands in. */
export const HOLDS = {
	rest: { own: [], around: [] },
	hover: { own: ['hover'], around: ['hover'] },
	// Whoever presses also points at it, and it has the focus by then.
	pressed: { own: ['hover', 'active', 'focus', 'focus-within'], around: ['hover', 'active', 'focus-within'] },
	focus: { own: ['focus', 'focus-visible', 'focus-within'], around: ['focus-within'] },
	disabled: { own: [], around: [] },
} as const;
export type StateName = keyof typeof HOLDS;
export const STATE_NAMES = Object.keys(HOLDS) as StateName[];

const ENTERED = new Set(['hover', 'active', 'focus', 'focus-visible', 'focus-within']);

/**
 * Returns a selector in which the pseudo-classes of states are attributes, so that each state can be entered by hand.
 * An attribute counts as much as a pseudo-class does (Selectors 4, section 17), so the cascade stays what it was.
 */
export function withAttributes(selector: string): string {
	let out = '';
	for (let n = 0; n < selector.length; n++) {
		const c = selector[n]!;
		const skipped = skip(selector, n);
		if (skipped > n) {
			out += selector.slice(n, skipped);
			n = skipped - 1;
			continue;
		}
		const name =
			c === ':' && selector[n - 1] !== ':' ? /^:([a-z-]+)(?![\w(-])/i.exec(selector.slice(n))?.[1] : undefined;
		if (name && ENTERED.has(name.toLowerCase())) {
			out += `[${STATE_ATTRIBUTE}~="${name.toLowerCase()}"]`;
			n += name.length;
		} else out += c;
	}
	return out;
}

/** Returns where an escape, a text or a bracket that begins at a place ends; the place itself where none begins. */
export function skip(text: string, n: number): number {
	const c = text[n];
	if (c === '\\') return n + 2;
	if (c === '"' || c === "'") {
		let end = n + 1;
		while (end < text.length && text[end] !== c) end += text[end] === '\\' ? 2 : 1;
		return Math.min(end + 1, text.length);
	}
	if (c === '[') {
		let end = n + 1;
		while (end < text.length && text[end] !== ']') end = Math.max(end + 1, skip(text, end));
		return Math.min(end + 1, text.length);
	}
	return n;
}

/** Returns the selectors of a list, parted at its outer commas. */
export function parted(list: string): string[] {
	const parts: string[] = [];
	let depth = 0;
	let from = 0;
	for (let n = 0; n < list.length; n++) {
		const skipped = skip(list, n);
		if (skipped > n) n = skipped - 1;
		else if (list[n] === '(') depth++;
		else if (list[n] === ')') depth--;
		else if (list[n] === ',' && depth === 0) {
			parts.push(list.slice(from, n).trim());
			from = n + 1;
		}
	}
	return [...parts, list.slice(from).trim()].filter(Boolean);
}

/** Returns a nested selector with what it stands in put in place of each `&` (CSS Nesting 1, section 3). */
export function unnested(selector: string, within: string): string {
	let out = '';
	let stood = false;
	for (let n = 0; n < selector.length; n++) {
		const skipped = skip(selector, n);
		if (skipped > n) {
			out += selector.slice(n, skipped);
			n = skipped - 1;
		} else if (selector[n] === '&') {
			out += `:is(${within})`;
			stood = true;
		} else out += selector[n];
	}
	return stood ? out : `:is(${within}) ${selector}`;
}
