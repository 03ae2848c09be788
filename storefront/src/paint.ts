import type { Compiled, Moment } from './types';

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

/**
 * Stands a compiled button in the shadow root of `host`, or changes the one that stands there, and returns it.
 * The studio draws with this very function. `name` follows the visible words in the accessible name.
 */
export function paint(host: HTMLElement, made: Compiled, moment: Moment, text: string, name = ''): HTMLButtonElement {
	const root = host.shadowRoot ?? host.attachShadow({ mode: 'open', delegatesFocus: true });
	const sheet = sheetOf(made.css);
	if (root.adoptedStyleSheets[0] !== sheet) root.adoptedStyleSheets = [sheet];
	let button = root.querySelector('button');
	if (!button) {
		button = document.createElement('button');
		button.type = 'button';
		button.className = 'b';
		root.append(button);
	}
	button.dataset.moment = moment;
	if (moment === 'sold_out' || moment === 'working') button.setAttribute('aria-disabled', 'true');
	else button.removeAttribute('aria-disabled');
	const words = document.createElement('span');
	words.className = 'w';
	words.textContent = text;
	const parts: Node[] = [words];
	if (made.icon) parts[made.icon.side === 'before' ? 'unshift' : 'push'](iconOf(made.icon));
	if (name) {
		const hidden = document.createElement('span');
		hidden.className = 'n';
		hidden.textContent = `, ${name}`;
		parts.push(hidden);
	}
	button.replaceChildren(...parts);
	return button;
}

const icons = new Map<string, SVGElement>();

function iconOf(icon: NonNullable<Compiled['icon']>): Node {
	let made = icons.get(icon.path);
	if (!made) icons.set(icon.path, (made = drawIcon(icon)));
	return made.cloneNode(true);
}

function drawIcon(icon: NonNullable<Compiled['icon']>): SVGElement {
	const svg = document.createElementNS(SVG, 'svg');
	svg.setAttribute('viewBox', `0 0 ${icon.box} ${icon.box}`);
	svg.setAttribute('aria-hidden', 'true');
	const path = document.createElementNS(SVG, 'path');
	path.setAttribute('d', icon.path);
	svg.append(path);
	return svg;
}
