import type { Ruled } from './sheet';
import { parted } from './states';

/** A button that a stylesheet seems to have: what it is written as, and what it is called. */
export type Likely = { name: string; markup: string };

const LIKELY = /btn|button|buy|cart|basket|checkout|purchase|submit/i;
const TAGS = new Set(['button', 'a', 'input']);
export const MOST_LIKELY = 60;

type Compound = { tag: string; classes: string[] };

/** Returns the selectors of a list that is one of `:where()` or `:is()`; any other stays as it is. */
function alternatives(selector: string): string[] {
	const list = /^:(?:where|is)\(([^()]*)\)(?::[a-z-]+)*$/i.exec(selector.replace(/\[up-state~="[a-z-]+"\]/g, ''));
	return list ? parted(list[1]!) : [selector];
}

/** Returns the last compound of a selector as tag and classes, or nothing where it needs more than these. */
function compoundOf(selector: string): Compound | null {
	const plain = selector.replace(/\[up-state~="[a-z-]+"\]/g, '').replace(/:not\([^()]*\)/g, '');
	const last = plain.split(/[\s>+~]+/).at(-1) ?? '';
	const match = /^([a-z]*)((?:\.(?:[\w-]|\\.)+)*)(?::(?:link|visited|any-link|enabled|disabled))*$/i.exec(last);
	if (!match || (!match[1] && !match[2])) return null;
	const classes = (match[2]!.match(/\.(?:[\w-]|\\.)+/g) ?? []).map((part) => part.slice(1).replace(/\\(.)/g, '$1'));
	return { tag: match[1]!.toLowerCase(), classes };
}

/**
 * Returns the buttons that a stylesheet seems to have, the plainest first. A class that begins like another likely one
 * stands on it: `btn-large` is worn together with `btn`.
 */
export function likelyButtons(rules: readonly Ruled[], words: string): Likely[] {
	const buttons = buttonsAmong(rules, words, isLikely);
	// A short piece may call its button whatever it likes.
	return buttons.length ? buttons : buttonsAmong(rules, words, ({ classes }) => classes.length > 0);
}

function buttonsAmong(rules: readonly Ruled[], words: string, isMeant: (compound: Compound) => boolean): Likely[] {
	const compounds = new Map<string, Compound>();
	const bases = new Set<string>();
	for (const { selectors } of rules)
		for (const selector of selectors.flatMap(alternatives)) {
			const compound = compoundOf(selector);
			if (!compound || !isMeant(compound)) continue;
			for (const base of compound.classes) if (LIKELY.test(base)) bases.add(base);
			compounds.set(`${compound.tag}.${[...compound.classes].sort().join('.')}`, compound);
		}
	const byMarkup = new Map<string, Likely>();
	for (const { tag, classes } of compounds.values()) {
		const worn = new Set(classes);
		for (const part of classes) {
			const under = [...bases].filter((base) => part !== base && new RegExp(`^${escaped(base)}[-_]`).test(part));
			const plainest = under.sort((a, b) => a.length - b.length)[0];
			if (plainest) worn.add(plainest);
		}
		const all = [...worn].sort((a, b) => Number(bases.has(b)) - Number(bases.has(a)) || a.length - b.length);
		const kind = TAGS.has(tag) ? tag : 'button';
		const name = [TAGS.has(tag) ? tag : '', ...all].join('.') || kind;
		const worn_ = all.length ? ` class="${all.join(' ').replace(/"/g, '&quot;')}"` : '';
		const markup =
			kind === 'input'
				? `<input type="submit" value="${words}"${worn_}>`
				: kind === 'a'
					? `<a href="#"${worn_}>${words}</a>`
					: `<button type="button"${worn_}>${words}</button>`;
		if (!byMarkup.has(markup)) byMarkup.set(markup, { name, markup });
	}
	return [...byMarkup.values()]
		.sort((a, b) => a.name.split('.').length - b.name.split('.').length || a.name.length - b.name.length)
		.slice(0, MOST_LIKELY);
}

function isLikely({ tag, classes }: Compound): boolean {
	if (tag && !TAGS.has(tag)) return false;
	if (!classes.length) return tag === 'button';
	return classes.some((part) => LIKELY.test(part) && !/group|toolbar|wrap|list|nav|icon$|bar$/i.test(part));
}

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
