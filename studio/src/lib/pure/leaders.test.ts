import { describe, expect, it } from 'vitest';
import type { DrawView, Finding } from '$lib/api/types';
import { Plan } from './dimensions';
import { anchorsOf, leadersOf, numbersOf } from './leaders';

const box = { x: 0, y: 0, width: 300, height: 40 };
const drawing = {
	outer: box,
	words: { x: 100, y: 10, width: 100, height: 20 },
	icon: null,
	second: null,
	container_px: 320,
};
const plan = new Plan({ shown: { drawing } } as unknown as DrawView, { x: 100, y: 120, zoom: 2, edge: 100 });
const about = (spot: string, weight: Finding['weight'] = 'must_fix') => ({ spot, weight }) as Finding;

describe('leaders', () => {
	const findings = [about('words'), about('width'), about('words', 'look_again'), about('fill', 'note')];
	const leaders = leadersOf(plan, findings, [30, 90, 150, 210], 900);

	it('lead to each spot once, and to none that is only noted', () => {
		expect(leaders).toHaveLength(2);
		expect(new Set(leaders.map((leader) => leader.x)).size).toBe(2);
	});

	it('are numbered where a spot has several findings', () => {
		expect(numbersOf(findings)).toEqual([1, 0, 2, 0]);
		expect(leaders.map((leader) => leader.says)).toEqual(['1 2', '']);
	});

	it('begin at the edge of the button, beside the figure of its width', () => {
		for (const x of anchorsOf(plan, ['words', 'width', 'fill', 'focus']).values()) {
			expect(x).toBeGreaterThanOrEqual(plan.x(0));
			expect(x).toBeLessThanOrEqual(plan.right);
			expect(Math.abs(x - (plan.x(0) + plan.right) / 2)).toBeGreaterThan(90);
		}
		expect(leaders.every((leader) => leader.y === plan.y(0))).toBe(true);
	});

	it('go up, along the edge and down to the callout, each in a lane of its own', () => {
		const lanes = leaders.map((one) => /V([\d.]+)H/.exec(one.d)?.[1]);
		expect(new Set(lanes).size).toBe(2);
		expect(lanes.every((lane) => Number(lane) < plan.y(0) - 50)).toBe(true);
		expect(leaders[0]?.d.endsWith('V30H900')).toBe(true);
	});

	it('leave out what is scrolled out of sight', () => {
		expect(leadersOf(plan, findings, [undefined, undefined, 40, undefined], 900).map((one) => one.says)).toEqual([
			'1 2',
		]);
	});
});
