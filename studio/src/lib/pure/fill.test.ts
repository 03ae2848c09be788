import { describe, expect, it } from 'vitest';
import type { StateFill } from '$lib/api/types';
import { leadColour, paintOf, stopsOf } from './fill';

const stops = [
	{ at: 0, colour: '#112233' },
	{ at: 80, colour: '#ffffff' },
];
const linear: StateFill = { kind: 'linear', angle_deg: 45, space: 'oklch', stops };

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
		expect(paintOf({ kind: 'radial', x: 10, y: 20, space: 'srgb', stops })).toBe(
			'radial-gradient(at 10% 20% in srgb, #112233 0%,#ffffff 80%)',
		);
		expect(paintOf({ kind: 'none' })).toBe('none');
	});
});
