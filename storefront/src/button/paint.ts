import { setAria } from '../base/aria';
import type { DrawIcon, PaintQuantity, PaintSecond } from '../base/shop';
import type { BoxNames, Compiled, Moment } from '../base/types';

const looks = new WeakMap<Compiled, CSSStyleSheet>();
const shared = new Map<string, CSSStyleSheet>();

/** Returns the sheet that `kept` has for a key, made once and adopted by reference. */
function sheetOf<K>(
	kept: { get(key: K): CSSStyleSheet | undefined; set(key: K, sheet: CSSStyleSheet): unknown },
	key: K,
	css: string,
): CSSStyleSheet {
	let sheet = kept.get(key);
	if (!sheet) {
		sheet = new CSSStyleSheet();
		sheet.replaceSync(css);
		kept.set(key, sheet);
	}
	return sheet;
}

export type Painting = {
	/** The part of the style sheet that all buttons share. */
	base: string;
	made: Compiled;
	moment: Moment;
	text: string;
	/** Follows the visible words in the accessible name. */
	name?: string;
	rtl?: boolean;
	/** The language of the words, by which they are read out and written in capitals. */
	lang?: string;
	/** It cannot be pressed now. */
	inactive?: boolean;
	/** What a button without words is called instead of them. */
	spoken?: string;
	/** Words of the second button. */
	second?: string;
	/** What a quantity box is usually called in that language. */
	box?: BoxNames;
	/** Does what a press means; nothing where it is only drawn. */
	press?: (after: string) => void;
	/** Draws an icon; only where some button has one. */
	drawIcon?: DrawIcon;
	/** Draws the quantity box; only where some button has one. */
	paintQuantity?: PaintQuantity;
	/** Draws the second button; only where some button has one. */
	paintSecond?: PaintSecond;
};

/**
 * Stands a compiled button in the shadow root of `host`, or changes the one that stands there, and returns it.
 * The studio draws with this very function.
 */
export function paint(host: HTMLElement, of: Painting): HTMLButtonElement {
	const { made, moment } = of;
	const root = host.shadowRoot ?? host.attachShadow({ mode: 'open', delegatesFocus: true });
	const look = sheetOf(looks, made, made.css);
	if (root.adoptedStyleSheets[1] !== look) root.adoptedStyleSheets = [sheetOf(shared, of.base, of.base), look];
	const drawn = templateOf(of).cloneNode(true) as HTMLButtonElement;
	let button = root.querySelector<HTMLButtonElement>('.b');
	// What stands there stays, with the focus and the pointer that are on it.
	if (button) button.replaceChildren(...drawn.childNodes);
	else root.append((button = drawn));
	host.dir = of.rtl ? 'rtl' : 'ltr';
	host.lang = of.lang || '';
	button.dataset.moment = moment;
	if (of.inactive || button !== drawn) setAria(button, 'disabled', !!of.inactive);
	button.querySelector('.w')!.append(of.spoken || of.text);
	if (of.name) {
		const hidden = document.createElement('span');
		hidden.className = 'n';
		hidden.append(`, ${of.name}`);
		button.append(hidden);
	}
	of.paintQuantity?.(root, button, made.quantity, of.name, of.box);
	of.paintSecond?.(root, of);
	if (of.press) button.onclick = () => of.press!(made.after);
	return button;
}

const templates = new WeakMap<Compiled, HTMLButtonElement>();

/** Returns a look's button without its words, to be copied. */
function templateOf({ made, drawIcon }: Painting): HTMLButtonElement {
	let button = templates.get(made);
	if (button) return button;
	button = document.createElement('button');
	button.type = 'button';
	button.className = 'b';
	const words = document.createElement('span');
	words.className = 'w';
	button.append(words);
	const { icon } = made;
	if (icon && drawIcon) button[icon.side === 'before' ? 'prepend' : 'append'](drawIcon(icon));
	templates.set(made, button);
	return button;
}
