import type { Drawing, Look, SideLine } from '$lib/api/types';

/** The values of a look that the drawing shows as dimensions. */
export type Drawn = Pick<Look, 'border' | 'shadows'> & {
	type: Pick<Look['type'], 'size_px' | 'line' | 'letter_spacing_px'>;
};

type Values = Readonly<Record<string, unknown>>;
/** A dimension that can be taken hold of. */
export type Hold = {
	/** Its value in pixels when it is taken hold of. */
	start: number;
	axis: 'x' | 'y';
	/** How far the value goes with each pixel of the drawing: 1, or −1 where it grows the other way. */
	pull: number;
	/** The values that a number of pixels stands for. */
	of: (value: number) => Values;
	bounds: readonly [number, number];
};

export const SHADOW = [
	['x_px', 'across', -400, 400],
	['y_px', 'down', -400, 400],
	['blur_px', 'blur', 0, 400],
	['spread_px', 'spread', -400, 2000],
] as const;

/** A border of some width, or none. */
export function borderOf(look: Drawn, width: number): Values {
	if (width <= 0) return { 'look.border': { kind: 'none' } };
	const { border } = look;
	if (border.kind !== 'sides') return { 'look.border': { style: 'solid', ...border, kind: 'line', width_px: width } };
	// Sides that have a line keep one; the others stay without.
	const as = (side: SideLine) => ({ ...side, width_px: side.width_px > 0 ? width : 0 });
	const { top, right, bottom, left } = border;
	return { 'look.border': { kind: 'sides', top: as(top), right: as(right), bottom: as(bottom), left: as(left) } };
}

/** Returns how thick a border is, at its thickest side. */
export function thickness({ border }: Pick<Drawn, 'border'>): number {
	if (border.kind === 'line') return border.width_px;
	if (border.kind !== 'sides') return 0;
	return Math.max(...[border.top, border.right, border.bottom, border.left].map((side) => side.width_px));
}

/** Returns what is taken hold of for the dimensions of type, edge and shadow; distances on the drawing are theirs. */
export function holdsOf(
	look: Drawn,
	drawing: Drawing,
): Record<'type' | 'line' | 'apart' | 'border', Hold> & { shadow: Hold[] } {
	const { size_px, letter_spacing_px } = look.type;
	const shadow = look.shadows.list[0];
	return {
		type: { start: size_px, axis: 'y', pull: 1, of: (px) => ({ 'look.type.size_px': px }), bounds: [8, 72] },
		line: {
			start: drawing.line_height_px,
			axis: 'y',
			pull: 1,
			of: (px) => ({ 'look.type.line': Math.round((px / size_px) * 1000) / 1000 }),
			bounds: [size_px * 0.8, size_px * 3],
		},
		apart: {
			start: letter_spacing_px,
			axis: 'x',
			pull: 0.25,
			of: (px) => ({ 'look.type.letter_spacing_px': px }),
			bounds: [-2, 20],
		},
		border: {
			start: thickness(look),
			axis: 'x',
			pull: 1,
			of: (px) => borderOf(look, px),
			bounds: [0, 24],
		},
		shadow: SHADOW.map(([key, , least, most]) => ({
			start: shadow?.[key] ?? 0,
			axis: key === 'y_px' ? 'y' : 'x',
			pull: 1,
			of: (px) => ({ [`look.shadows.list.0.${key}`]: px }),
			bounds: [least, most],
		})),
	};
}
