import { describe, expect, it } from 'vitest';
import type { StateFill } from '$lib/api/types';
import { leadColour, paintOf, placeOf, stopsOf, typedPlace } from './fill';

const stops = [
	{ at: 0, colour: '#112233' },
	{ at: 80, colour: '#ffffff' },
];
const linear: StateFill = { kind: 'linear', angle_deg: 45, space: 'oklch', stops, repeats: false };

describe('a fill', () => {
	it('leads with its colour, or with the first of its stops', () => {
		expect(leadColour({ kind: 'solid', colour: '#aa0000' })).toBe('#aa0000');
		expect(leadColour(linear)).toBe('#112233');
		expect(leadColour({ kind: 'none' })).toBeUndefined();
		expect(stopsOf({ kind: 'rule' })).toEqual([]);
	});

	it('is painted as CSS writes it', () => {
		expect(paintOf({ kind: 'solid', colour: '#aa0000' })).toBe('#aa0000');
		expect(paintOf(linear)).toBe('linear-gradient(45deg in oklch, #112233 0%,#ffffff 80%)');
		const radial = {
			kind: 'radial',
			x: 10,
			y: 20,
			space: 'srgb',
			stops,
			repeats: true,
			shape: 'circle',
			extent: 'closest-side',
		} as const;
		expect(paintOf(radial)).toBe(
			'repeating-radial-gradient(circle closest-side at 10% 20% in srgb, #112233 0%,#ffffff 80%)',
		);
		expect(paintOf({ kind: 'layers', list: [{ ...linear, toward: 'top left' }, radial], ground: '#aa000080' })).toBe(
			'linear-gradient(to top left in oklch, #112233 0%,#ffffff 80%),' +
				'repeating-radial-gradient(circle closest-side at 10% 20% in srgb, #112233 0%,#ffffff 80%) #aa000080',
		);
		expect(paintOf({ kind: 'none' })).toBe('none');
	});

	it('has stops at percentages, at pixels and evenly between the others', () => {
		expect(['', ' 40 ', '12.5%', '-8px', '1,5 px'].map(typedPlace)).toEqual([null, 40, 12.5, '-8px', '1.5px']);
		expect(['x', '400', '12em', '9999px'].map(typedPlace)).toEqual([undefined, undefined, undefined, undefined]);
		expect([{ colour: '#000000' }, { at: 4, colour: '#000000' }].map(placeOf)).toEqual(['', '4%']);
	});
});
