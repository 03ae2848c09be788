import type { PageSurvey } from '@storefront/studio/page_survey';
import { describe, expect, it } from 'vitest';
import type { AlongDevice, Lane } from '$lib/api/types';
import { laneName, STRIP, StripPlan } from './strip';

const survey = { page_high: 2000, window: { wide: 384, high: 740 } } as PageSurvey;
const lane = (name: string) => ({ key: name, name }) as Lane;
const along = (...names: string[]) => ({ lanes: names.map(lane) }) as unknown as AlongDevice['along'];

describe('the plan of a strip', () => {
	it('has the whole page between the names of the lanes and the foot', () => {
		const plan = new StripPlan(survey, undefined, STRIP.top + 8 + 500);
		expect([plan.y(0), plan.y(2000), plan.scale]).toEqual([STRIP.top, STRIP.top + 500, 0.25]);
		expect(plan.across * 384).toBe(STRIP.page);
	});
	it('gives lanes as much room as there is, and no more than they need', () => {
		const few = new StripPlan(survey, along('own', 'bar'), 600);
		expect(few.xOf('bar') - few.xOf('own')).toBe(38);
		const many = new StripPlan(survey, along(...'abcdefgh'), 600);
		expect(many.end).toBeLessThanOrEqual(STRIP.wide);
		expect(many.xOf('h')).toBe(many.laneX(7));
	});
	it('is drawn before anything was measured, and takes the first lane for a name it has not', () => {
		const plan = new StripPlan(undefined, along('own'), 600);
		expect(Number.isFinite(plan.scale) && Number.isFinite(plan.across)).toBe(true);
		expect(plan.xOf('somewhere else')).toBe(plan.laneX(0));
	});
	it('shortens long names, and drops the brackets of a tag', () => {
		expect([laneName(lane('<aside>')), laneName(lane('Cookies and more'))]).toEqual(['aside', 'Cookies and…']);
	});
});
