import { describe, expect, it } from 'vitest';
import type { Drawing } from '$lib/api/types';
import { borderOf, holdsOf, type Drawn } from './holds';

const look: Drawn = {
	type: { size_px: 16, line: 0, letter_spacing_px: 0.5 },
	border: { kind: 'line', width_px: 2, style: 'dashed' },
	shadows: {
		kind: 'cast',
		list: [{ x_px: 0, y_px: 2, blur_px: 6, spread_px: -1, colour: '#000000', opacity: 0.2, inner: false }],
	},
};
const drawing = { line_height_px: 19 } as Drawing;

describe('what is taken hold of', () => {
	const holds = holdsOf(look, drawing);

	it('begins with the value that is drawn', () => {
		expect([holds.type.start, holds.line.start, holds.apart.start, holds.border.start]).toEqual([16, 19, 0.5, 2]);
		expect(holds.shadow.map((one) => one.start)).toEqual([0, 2, 6, -1]);
	});

	it('gives pixels of the drawing back as the values of the look', () => {
		expect(holds.line.of(24)).toEqual({ 'look.type.line': 1.5 });
		expect(holds.shadow[1]?.of(5)).toEqual({ 'look.shadows.list.0.y_px': 5 });
		expect(holds.apart.of(1)).toEqual({ 'look.type.letter_spacing_px': 1 });
	});

	it('keeps what else a border is, and takes it away at nothing', () => {
		expect(holds.border.of(4)).toEqual({ 'look.border': { kind: 'line', width_px: 4, style: 'dashed' } });
		expect(borderOf(look, 0)).toEqual({ 'look.border': { kind: 'none' } });
		expect(borderOf({ ...look, border: { kind: 'none' } }, 1)).toEqual({
			'look.border': { kind: 'line', width_px: 1, style: 'solid' },
		});
	});

	it('needs no shadow to be there', () => {
		expect(holdsOf({ ...look, shadows: { kind: 'cast', list: [] } }, drawing).shadow.map((one) => one.start)).toEqual([
			0, 0, 0, 0,
		]);
	});
});
