import type { Gradient, StateFill } from '$lib/api/types';

export type Stop = Gradient['stops'][number];

/** Returns the stops of a gradient; other fills have none. */
export function stopsOf(fill: StateFill): readonly Stop[] {
	return fill.kind === 'linear' || fill.kind === 'radial' ? fill.stops : [];
}

/** Returns the gradients that lie over one another, the uppermost first. */
export function layersOf(fill: StateFill): readonly Gradient[] {
	if (fill.kind === 'layers') return fill.list;
	return fill.kind === 'linear' || fill.kind === 'radial' ? [fill] : [];
}

/** Returns the colour that a fill begins with, where it has one. */
export function leadColour(fill: StateFill): string | undefined {
	if (fill.kind === 'solid') return fill.colour;
	if (fill.kind === 'layers' && fill.ground) return fill.ground;
	return layersOf(fill)[0]?.stops[0]?.colour;
}

/** Returns where a stop stands, as a designer writes it: a number is a percentage. */
export function placeOf(stop: Stop): string {
	if (stop.at == null) return '';
	return typeof stop.at === 'number' ? `${stop.at}%` : stop.at;
}

/** Returns the place that somebody has typed: percent as a number, pixels as a text, null for "evenly"; else undefined. */
export function typedPlace(text: string): number | string | null | undefined {
	const bare = text.trim().toLowerCase().replace(',', '.');
	if (!bare) return null;
	const match = /^(-?\d+(?:\.\d+)?)\s*(%|px)?$/.exec(bare);
	if (!match) return undefined;
	const number = Number(match[1]);
	if (match[2] === 'px') return Math.abs(number) <= 2000 ? `${number}px` : undefined;
	return number >= -200 && number <= 300 ? number : undefined;
}

function gradientOf(fill: Gradient): string {
	const stops = fill.stops.map((stop) => `${stop.colour} ${placeOf(stop)}`.trim()).join();
	const name = `${fill.repeats ? 'repeating-' : ''}${fill.kind}-gradient`;
	if (fill.kind === 'linear')
		return `${name}(${fill.toward ? `to ${fill.toward}` : `${fill.angle_deg}deg`} in ${fill.space}, ${stops})`;
	return `${name}(${fill.shape} ${fill.extent} at ${fill.x}% ${fill.y}% in ${fill.space}, ${stops})`;
}

/** Returns a fill as CSS writes it, so far as it can be painted without a picture. */
export function paintOf(fill: StateFill): string {
	if (fill.kind === 'solid') return fill.colour;
	const layers = layersOf(fill);
	if (!layers.length) return 'none';
	const ground = fill.kind === 'layers' && fill.ground ? ` ${fill.ground}` : '';
	return layers.map(gradientOf).join() + ground;
}
