import type { paintQuantity } from './quantity';
import type { paintSecond } from './second';
import type { BoxNames, Compiled, Moment } from './types';

const SVG = 'http://www.w3.org/2000/svg';
const sheets = new Map<string, CSSStyleSheet>();

function sheetOf(css: string): CSSStyleSheet {
	let sheet = sheets.get(css);
	if (!sheet) {
		sheet = new CSSStyleSheet();
		sheet.replaceSync(css);
		sheets.set(css, sheet);
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
	/** Draws the quantity box; only where some button has one. */
	paintQuantity?: typeof paintQuantity;
	/** Draws the second button; only where some button has one. */
	paintSecond?: typeof paintSecond;
};

/**
 * Stands a compiled button in the shadow root of `host`, or changes the one that stands there, and returns it.
 * The studio draws with this very function.
 */
export function paint(host: HTMLElement, of: Painting): HTMLButtonElement {
	const { made, moment } = of;
	const root = host.shadowRoot ?? host.attachShadow({ mode: 'open', delegatesFocus: true });
	const sheet = sheetOf(of.base + made.css);
	if (root.adoptedStyleSheets[0] !== sheet) root.adoptedStyleSheets = [sheet];
	let button = root.querySelector<HTMLButtonElement>('.b');
	if (!button) {
		button = document.createElement('button');
		button.type = 'button';
		button.className = 'b';
		root.append(button);
	}
	host.dir = of.rtl ? 'rtl' : 'ltr';
	host.lang = of.lang || '';
	button.dataset.moment = moment;
	button.ariaDisabled = of.inactive ? 'true' : null;
	const words = document.createElement('span');
	words.className = 'w';
	words.append(of.spoken || of.text);
	const parts: Node[] = [words];
	if (made.icon) parts[made.icon.side === 'before' ? 'unshift' : 'push'](iconOf(made.icon));
	if (of.name) {
		const hidden = document.createElement('span');
		hidden.className = 'n';
		hidden.append(`, ${of.name}`);
		parts.push(hidden);
	}
	button.replaceChildren(...parts);
	of.paintQuantity?.(root, button, made.quantity, of.name, of.box);
	of.paintSecond?.(root, made.second && of.second, of.inactive);
	return button;
}

const icons = new WeakMap<object, SVGElement>();

function iconOf(icon: NonNullable<Compiled['icon']>): Node {
	let made = icons.get(icon);
	if (!made) icons.set(icon, (made = drawIcon(icon)));
	return made.cloneNode(true);
}

function drawIcon(icon: NonNullable<Compiled['icon']>): SVGElement {
	const svg = document.createElementNS(SVG, 'svg');
	svg.setAttribute('viewBox', icon.box);
	svg.ariaHidden = 'true';
	for (const attributes of icon.paths) {
		const path = document.createElementNS(SVG, 'path');
		for (const name in attributes) path.setAttribute(name, attributes[name] ?? '');
		svg.append(path);
	}
	return svg;
}
