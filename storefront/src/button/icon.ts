import { setAria } from '../base/aria';
import type { Compiled } from '../base/types';

const SVG = 'http://www.w3.org/2000/svg';

/** Returns a look's icon, which says nothing to screen readers: the words do. */
export function drawIcon(icon: NonNullable<Compiled['icon']>): SVGElement {
	const svg = document.createElementNS(SVG, 'svg');
	svg.setAttribute('viewBox', icon.box);
	setAria(svg, 'hidden', true);
	for (const attributes of icon.paths) {
		const path = document.createElementNS(SVG, 'path');
		for (const name in attributes) path.setAttribute(name, attributes[name] ?? '');
		svg.append(path);
	}
	return svg;
}
