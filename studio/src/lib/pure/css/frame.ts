import { likelyButtons, type Likely } from './likely';
import { writtenIn } from './lines';
import { isFor, rulesOf, type Ruled } from './sheet';
import { HOLDS, STATE_ATTRIBUTE, STATE_NAMES, withAttributes, type StateName } from './states';

/** Window widths that a stylesheet is read at, one for each device, in CSS pixels. */
export const READ_AT_PX = [1280, 768, 390] as const;
export const MOST_CSS = 2_000_000;

type Values = Record<string, string>;
/** Values of the button and of the element that has its words. */
export type Styled = { button: Values; words: Values };

/** What a browser makes of a stylesheet for one button; the core makes a look of it. */
export type Reading = {
	selector: string;
	tag: string;
	/** Its words stand in an element of their own. */
	inner: boolean;
	widths: {
		window_px: number;
		rest: Styled;
		states: Record<string, Styled>;
		box: { width: number; height: number; room: number; words_off_y: number; words_off_x: number; overflows: boolean };
	}[];
	/** Properties that rules for the button set; those of what it stands in and of what is in it, apart. */
	said: string[];
	said_around: string[];
	said_in: Record<string, string[]>;
	/** What the browser has not taken, or what stands beside the button's own box, in words. */
	told: string[];
};

const EMPTY =
	'<!doctype html><html><head><meta charset="utf-8"><meta http-equiv="Content-Security-Policy" ' +
	`content="default-src 'none'; style-src 'unsafe-inline'"></head><body></body></html>`;
const STILL = '*,*::before,*::after{transition:none!important;animation:none!important}';
const BUTTON = 'button,a,input,summary,[role=button],[class*=btn],[class*=button]';
const LINES = ['border-top-width', 'border-right-width', 'border-bottom-width', 'border-left-width', 'outline-width'];
const TIMES = [
	'animation-name',
	'transition-property',
	'transition-duration',
	'transition-delay',
	'transition-timing-function',
];

/** A frame in which no script runs and for which nothing is fetched, with a stylesheet that was brought. */
export class CssFrame {
	readonly rules: readonly Ruled[];
	readonly #sheetTold: readonly string[];
	readonly #element: HTMLIFrameElement;
	readonly #css: string;
	readonly #own: HTMLStyleElement;
	readonly #still: HTMLStyleElement;

	private constructor(element: HTMLIFrameElement, css: string) {
		this.#element = element;
		this.#css = css;
		this.#own = this.#style(css);
		this.#still = this.#style(STILL);
		this.#still.disabled = true;
		const sheet = this.#own.sheet;
		const sheetRules = sheet ? rulesOf(sheet, (condition) => CSS.supports(condition)) : { rules: [], told: [] };
		this.rules = sheetRules.rules;
		this.#sheetTold = sheetRules.told;
	}

	/** Opens a frame in some place of the page. `seen` is one that is to be looked at; another stands out of sight. */
	static async open(css: string, place: HTMLElement, seen = false): Promise<CssFrame> {
		const element = document.createElement('iframe');
		element.setAttribute('sandbox', 'allow-same-origin');
		element.title = 'The stylesheet that was brought';
		element.tabIndex = -1;
		if (!seen) {
			element.setAttribute('aria-hidden', 'true');
			element.style.cssText = 'position:fixed;left:-9999px;top:0;height:900px;border:0;visibility:hidden';
		}
		element.style.width = `${READ_AT_PX[0]}px`;
		const loaded = new Promise((resolve) => element.addEventListener('load', resolve, { once: true }));
		element.srcdoc = EMPTY;
		place.append(element);
		await loaded;
		return new CssFrame(element, css);
	}

	close(): void {
		this.#element.remove();
	}

	get #document(): Document {
		return this.#element.contentDocument!;
	}

	get #window(): Window & typeof globalThis {
		return this.#element.contentWindow as Window & typeof globalThis;
	}

	#style(css: string): HTMLStyleElement {
		const style = this.#document.createElement('style');
		style.textContent = css;
		this.#document.head.append(style);
		return style;
	}

	/** Returns the buttons that the stylesheet seems to have. */
	likely(words: string): Likely[] {
		return likelyButtons(this.rules, words);
	}

	/**
	 * Lays some buttons out and returns where each of them stands in the frame; those that are not seen are null. The
	 * frame becomes as high as they need.
	 */
	layOut(buttons: readonly Likely[], width: number): (DOMRect | null)[] {
		const { body } = this.#document;
		this.#element.style.width = `${width}px`;
		body.setAttribute('style', 'display:block!important;margin:0!important;padding:0!important;min-height:0!important');
		const cells = buttons.map(
			({ markup }) => `<div style="all:initial;display:block;padding:12px 12px 30px">${markup}</div>`,
		);
		body.innerHTML = `<div style="all:initial;display:grid;grid-template-columns:repeat(3,1fr);align-items:end">${cells.join('')}</div>`;
		this.#still.disabled = false;
		this.#element.style.height = `${Math.min(4000, body.scrollHeight)}px`;
		return Array.from(body.firstElementChild!.children, (cell) => {
			const holder = cell.firstElementChild!;
			const box = holder.getBoundingClientRect();
			const style = this.#window.getComputedStyle(holder);
			const isSeen = box.width > 4 && box.height > 4 && style.visibility === 'visible' && style.opacity !== '0';
			return isSeen ? box : null;
		});
	}

	/**
	 * Returns what the browser makes of the stylesheet for a button in its own markup, in every state and width; null
	 * where the markup has no element.
	 */
	read(markup: string, name = ''): Reading | null {
		const button = this.#stand(markup);
		if (!button) return null;
		const words = wordsIn(button);
		const plain = this.#without(() => this.#all(button, words));
		const widths = READ_AT_PX.map((px) => this.#readAt(px, button, words, plain));
		for (const other of widths.slice(1)) thin(other, widths[0]!);
		const written = this.#said(button, words);
		return {
			selector: name || nameOf(button),
			tag: button.localName,
			inner: words !== button,
			widths,
			...written,
			told: [...this.#sheetTold, ...written.told, ...this.#unknown(button, words), ...this.#beside(button, words)],
		};
	}

	#stand(markup: string): HTMLElement | null {
		const parsed = new DOMParser().parseFromString(markup, 'text/html');
		for (const bad of parsed.querySelectorAll('script,iframe,object,embed,link,meta,base,style')) bad.remove();
		const { body } = this.#document;
		body.removeAttribute('style');
		body.replaceChildren(...Array.from(parsed.body.childNodes, (node) => this.#document.importNode(node, true)));
		return body.querySelector<HTMLElement>(BUTTON) ?? body.querySelector<HTMLElement>('*');
	}

	#without<T>(work: () => T): T {
		this.#own.disabled = true;
		this.#still.disabled = false;
		const result = work();
		this.#own.disabled = false;
		return result;
	}

	#enter(button: HTMLElement, state: StateName): void {
		const { own, around } = HOLDS[state];
		for (let ancestor: Element | null = button; ancestor; ancestor = ancestor.parentElement)
			ancestor.setAttribute(STATE_ATTRIBUTE, (ancestor === button ? own : around).join(' '));
		const off = state === 'disabled';
		button.toggleAttribute('disabled', off);
		if (button.localName !== 'button' && button.localName !== 'input') {
			if (off) button.setAttribute('aria-disabled', 'true');
			else button.removeAttribute('aria-disabled');
			button.classList.toggle('disabled', off);
		}
	}

	/** Values as computed, not as used: percentages stay percentages where nothing is laid out. */
	#all(button: HTMLElement, words: HTMLElement): Styled {
		const read = (element: HTMLElement): Values => {
			const style = this.#window.getComputedStyle(element);
			const values: Values = {};
			for (const name of Array.from(style))
				if (!name.startsWith('--')) values[name] = short(style.getPropertyValue(name));
			return values;
		};
		// These two are there only for what is laid out.
		const { display, transform } = this.#window.getComputedStyle(button);
		const ofWords = this.#window.getComputedStyle(words).transform;
		const before = button.getAttribute('style');
		button.style.setProperty('display', 'none', 'important');
		const styled: Styled = {
			button: { ...read(button), display, transform: unmoved(transform) },
			words: { ...read(words), transform: unmoved(ofWords) },
		};
		// Our own stylesheets say so how words are centred; CSS has no word for it.
		const centring = this.#window.getComputedStyle(button).getPropertyValue('--centring').trim();
		if (centring) styled.button['--centring'] = centring;
		// Lines are rounded down to whole dots of the screen: enlarged, they say what they were written as.
		button.style.setProperty('zoom', '64', 'important');
		const large = this.#window.getComputedStyle(button);
		for (const name of LINES) styled.button[name] = large.getPropertyValue(name);
		if (before === null) button.removeAttribute('style');
		else button.setAttribute('style', before);
		return styled;
	}

	#readAt(px: number, button: HTMLElement, words: HTMLElement, plain: Styled): Reading['widths'][number] {
		this.#element.style.width = `${px}px`;
		const times = new Map<StateName, Values>();
		this.#still.disabled = true;
		for (const state of STATE_NAMES) {
			this.#enter(button, state);
			const style = this.#window.getComputedStyle(button);
			times.set(state, Object.fromEntries(TIMES.map((name) => [name, style.getPropertyValue(name)])));
		}
		this.#still.disabled = false;
		this.#enter(button, 'rest');
		const box = this.#box(button, words);
		const of = (state: StateName): Styled => {
			this.#enter(button, state);
			const reading = this.#all(button, words);
			Object.assign(reading.button, times.get(state));
			return reading;
		};
		const rest = of('rest');
		const states: Record<string, Styled> = {};
		for (const state of STATE_NAMES)
			if (state !== 'rest') {
				const entered = of(state);
				states[state] = {
					button: differing(entered.button, rest.button),
					words: differing(entered.words, rest.words),
				};
			}
		this.#enter(button, 'rest');
		return {
			window_px: px,
			rest: {
				button: { ...kept(rest.button), ...differing(rest.button, plain.button) },
				words: { ...kept(rest.words), ...differing(rest.words, plain.words) },
			},
			states,
			box,
		};
	}

	#box(button: HTMLElement, words: HTMLElement): Reading['widths'][number]['box'] {
		const outer = button.getBoundingClientRect();
		const parent = button.parentElement!;
		const around = this.#window.getComputedStyle(parent);
		const inner = (side: string) => parseFloat(around.getPropertyValue(side)) || 0;
		const room =
			parent.getBoundingClientRect().width -
			['padding-left', 'padding-right', 'border-left-width', 'border-right-width'].reduce(
				(sum, s) => sum + inner(s),
				0,
			);
		// Words are looked for in the middle of what padding and border leave.
		const own = this.#window.getComputedStyle(button);
		const edge = (side: string) =>
			(parseFloat(own.getPropertyValue(`padding-${side}`)) || 0) +
			(parseFloat(own.getPropertyValue(`border-${side}-width`)) || 0);
		const middle = {
			x: outer.x + edge('left') + (outer.width - edge('left') - edge('right')) / 2,
			y: outer.y + edge('top') + (outer.height - edge('top') - edge('bottom')) / 2,
		};
		const range = this.#document.createRange();
		range.selectNodeContents(words);
		const text = range.getBoundingClientRect();
		const isText = text.width > 0 && words.localName !== 'input';
		// Where there is no room for them they stand wherever it is left.
		const isTight = text.height > outer.height - edge('top') - edge('bottom') + 1;
		return {
			width: outer.width,
			height: outer.height,
			room,
			words_off_y: isText && !isTight ? text.y + text.height / 2 - middle.y : 0,
			words_off_x: isText ? text.x + text.width / 2 - middle.x : 0,
			overflows: (isText && isTight) || button.scrollHeight > button.clientHeight + 1,
		};
	}

	/** Finds which properties the stylesheet sets, and where else it would set some. */
	#said(button: HTMLElement, words: HTMLElement) {
		const written = new Set<string>(button.style);
		const around = new Set<string>(words.style);
		const in_: Record<string, Set<string>> = {};
		const elsewhere = new Map<string, Set<string>>();
		const unset = new Set<string>();
		const others: Element[] = [];
		for (let ancestor: Element | null = words; ancestor; ancestor = ancestor.parentElement)
			if (ancestor !== button) others.push(ancestor);
		const active = new Map<string, boolean>();
		const counts = (rule: Ruled) =>
			rule.media.every((condition) => {
				if (!active.has(condition)) active.set(condition, this.#everHolds(condition));
				return active.get(condition)!;
			});
		const at: Record<string, Set<Ruled>> = {};
		for (const state of STATE_NAMES) {
			this.#enter(button, state);
			at[state] = new Set(this.rules.filter((rule) => isFor(rule, button)));
		}
		this.#enter(button, 'rest');
		for (const state of STATE_NAMES) {
			for (const rule of at[state]!) {
				if (!counts(rule)) {
					const condition = `@media ${rule.media.join(' and ')}`;
					if (!elsewhere.has(condition)) elsewhere.set(condition, new Set());
					for (const name of Array.from(rule.style)) elsewhere.get(condition)!.add(name);
					continue;
				}
				const names = Array.from(rule.style);
				if (state === 'rest') for (const name of names) written.add(name);
				else if (!at['rest']!.has(rule)) for (const name of names) (in_[state] ??= new Set()).add(name);
				for (const use of rule.style.cssText.matchAll(/var\(\s*(--[\w-]+)\s*\)/g))
					if (!this.#window.getComputedStyle(button).getPropertyValue(use[1]!)) unset.add(use[1]!);
			}
			if (state !== 'rest')
				for (const rule of at['rest']!)
					if (!at[state]!.has(rule) && counts(rule))
						for (const name of Array.from(rule.style)) (in_[state] ??= new Set()).add(name);
		}
		for (const rule of this.rules)
			if (others.some((other) => isFor(rule, other)) && counts(rule))
				for (const name of Array.from(rule.style)) around.add(name);
		return {
			said: [...written],
			said_around: [...around],
			said_in: Object.fromEntries(Object.entries(in_).map(([state, names]) => [state, [...names]])),
			told: [
				...Array.from(elsewhere, ([condition, names]) => `${condition}: ${[...names].slice(0, 12).join(', ')}`),
				...Array.from(unset, (name) => `var(${name}): it is set nowhere in the file`),
			],
		};
	}

	#everHolds(condition: string): boolean {
		return READ_AT_PX.some((px) => {
			this.#element.style.width = `${px}px`;
			return this.#window.matchMedia(condition).matches;
		});
	}

	/** Tells the declarations that this browser does not take. */
	#unknown(button: HTMLElement, words: HTMLElement): string[] {
		const known = new Map<string, boolean>();
		const texts = new Map<string, string>();
		for (const { selector, name, value, line } of writtenIn(this.#css)) {
			if (name.startsWith('--') || selector.startsWith('@')) continue;
			const plain = value.replace(/\s*!\s*important\s*$/i, '');
			const declaration = `${name}: ${plain}`;
			if (!known.has(declaration)) known.set(declaration, CSS.supports(name, plain));
			if (known.get(declaration) || texts.has(declaration) || !this.#isAbout(selector, button, words)) continue;
			texts.set(declaration, `line ${line}: ${declaration.slice(0, 80)}: no value that this browser takes`);
			if (texts.size >= 60) break;
		}
		return [...texts.values()];
	}

	#isAbout(selector: string, button: HTMLElement, words: HTMLElement): boolean {
		// Any of its states will do.
		const any = withAttributes(selector).replace(/\[up-state~="[a-z-]+"\]/g, '') || '*';
		try {
			return button.matches(any.replaceAll('&', '*')) || words.matches(any.replaceAll('&', '*'));
		} catch {
			return false;
		}
	}

	/** Tells what is drawn at the button besides its own box and words. */
	#beside(button: HTMLElement, words: HTMLElement): string[] {
		const notes: string[] = [];
		for (const state of STATE_NAMES) {
			this.#enter(button, state);
			for (const part of ['::before', '::after']) {
				const style = this.#window.getComputedStyle(button, part);
				if (style.content === 'none' || style.content === 'normal' || style.display === 'none') continue;
				const size = `${style.width} × ${style.height}`;
				const when = state === 'rest' ? '' : ` in the state ${state}`;
				notes.push(
					`${part}${when}: what stands ${part === '::before' ? 'before' : 'after'} the words, ${size}, ${style.backgroundColor}`,
				);
			}
		}
		this.#enter(button, 'rest');
		for (const inner of Array.from(button.querySelectorAll('*')))
			if (inner !== words && !inner.contains(words) && !inner.closest('svg')?.contains(inner.parentElement))
				notes.push(`<${inner.localName}> in it: bring it in as an icon or as words`);
		return [...new Set(notes)];
	}
}

/** Longhands that are always told, whether or not the stylesheet sets them. */
const KEPT =
	/^(padding-(top|right|bottom|left)|border-(top|right|bottom|left)-(width|style|color)|border-(top|bottom)-(left|right)-radius|background-(color|image|size|position|position-x|position-y|repeat|clip|origin|attachment|blend-mode)|box-(shadow|sizing)|opacity|(min-|max-)?(width|height)|display|outline-(width|style|color|offset)|transition-(property|duration|delay|timing-function)|color|font-(family|size|weight|style)|line-height|letter-spacing|text-(transform|shadow|overflow|align)|text-decoration-(line|style|color|thickness)|text-underline-offset|white-space(-collapse)?|text-wrap(-mode)?|overflow-x)$/;

const kept = (values: Values): Values => Object.fromEntries(Object.entries(values).filter(([name]) => KEPT.test(name)));

const differing = (values: Values, plain: Values): Values =>
	Object.fromEntries(Object.entries(values).filter(([name, value]) => plain[name] !== value));

/** Leaves out of a width what is as in another. */
function thin(width: Reading['widths'][number], first: Reading['widths'][number]): void {
	width.rest = {
		button: differing(width.rest.button, first.rest.button),
		words: differing(width.rest.words, first.rest.words),
	};
}

function short(value: string): string {
	return value.length < 400 ? value : value.replace(/url\("?data:[^)]*\)/g, 'url(data:)').slice(0, 2000);
}

/** Returns a transform, or none where it moves nothing. */
function unmoved(transform: string): string {
	return transform === 'matrix(1, 0, 0, 1, 0, 0)' ? 'none' : transform;
}

/** Returns the innermost element that has the first words of a button. */
function wordsIn(button: HTMLElement): HTMLElement {
	const walker = button.ownerDocument.createTreeWalker(button, NodeFilter.SHOW_TEXT);
	for (let node = walker.nextNode(); node; node = walker.nextNode())
		if (node.textContent?.trim()) return node.parentElement as HTMLElement;
	return button;
}

const nameOf = (button: HTMLElement): string =>
	[button.localName, ...button.classList].join('.').replace(/\.disabled$/, '') || button.localName;
