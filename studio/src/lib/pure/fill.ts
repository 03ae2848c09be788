import type { StateFill } from '$lib/api/types';

export type Stop = { at: number; colour: string };

/** Returns the stops of a gradient; other fills have none. */
export function stopsOf(fill: StateFill): readonly Stop[] {
	return fill.kind === 'linear' || fill.kind === 'radial' ? fill.stops : [];
}

/** Returns the colour that a fill begins with, where it has one. */
export function leadColour(fill: StateFill): string | undefined {
	return fill.kind === 'solid' ? fill.colour : stopsOf(fill)[0]?.colour;
}

/** Returns a fill as CSS writes it, so far as it can be painted without a picture. */
export function paintOf(fill: StateFill): string {
	const stops = stopsOf(fill)
		.map((stop) => `${stop.colour} ${stop.at}%`)
		.join();
	if (fill.kind === 'solid') return fill.colour;
	if (fill.kind === 'linear') return `linear-gradient(${fill.angle_deg}deg in ${fill.space}, ${stops})`;
	if (fill.kind === 'radial') return `radial-gradient(at ${fill.x}% ${fill.y}% in ${fill.space}, ${stops})`;
	return 'none';
}
