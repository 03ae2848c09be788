import { describe, expect, it } from 'vitest';
import { lookAt, movedBy, ticks, tickStep } from './scroll';

describe('the rule along a page', () => {
	it('has round steps, and no more ticks than there is room for', () => {
		expect(tickStep(3000, 7)).toBe(500);
		expect(tickStep(12_345, 7)).toBe(2000);
		expect(ticks(1000, 5)).toEqual([0, 200, 400, 600, 800, 1000]);
		expect(ticks(0, 5)).toHaveLength(1);
	});

	it('looks at a short stretch from its middle, and at a long one from a little after its start', () => {
		expect(lookAt([100, 120], 800)).toBe(110);
		expect(lookAt([100, 5000], 800)).toBe(300);
	});
});

describe('a row of parts', () => {
	it('moves one by one place and no further than its ends', () => {
		expect(movedBy(['a', 'b', 'c'], 'a', 1)).toEqual(['b', 'a', 'c']);
		expect(movedBy(['a', 'b', 'c'], 'a', -1)).toEqual(['a', 'b', 'c']);
		expect(movedBy(['a', 'b', 'c'], 'c', 1)).toEqual(['a', 'b', 'c']);
	});
});
