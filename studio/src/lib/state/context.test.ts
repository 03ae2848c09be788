import { beforeEach, describe, expect, it } from 'vitest';
import { Context } from './context.svelte';
import { setRouter } from './way';

/** A router as slow as the real one: the address changes a moment after it was told to. */
const steps: string[] = [];
setRouter({
	async navigate(path, { search = {}, replace = false } = {}) {
		const mine = Symbol();
		newest = mine;
		await Promise.resolve();
		if (newest !== mine) return;
		const values = new URLSearchParams(search).toString();
		history[replace ? 'replaceState' : 'pushState'](null, '', values ? `${path}?${values}` : path);
		steps.push(`${replace ? 'in place ' : ''}${location.pathname}${location.search}`);
	},
	route: {
		get params() {
			return { placement: /^\/draw\/(.+)/.exec(location.pathname)?.[1] };
		},
		get pathname() {
			return location.pathname;
		},
		search: {},
	},
});
let newest: symbol;
const settled = () => new Promise((done) => setTimeout(done));

describe('what is looked at', () => {
	const context = new Context();
	beforeEach(() => {
		history.replaceState(null, '', '/');
		steps.length = 0;
	});

	it('is in the address, as it is written there', () => {
		history.replaceState(null, '', '/words?product=00123&device=phone&moment=added&language=de-AT&placement=strip');
		expect([context.product, context.device, context.moment]).toEqual(['00123', 'phone', 'added']);
		expect([context.language, context.placement]).toEqual(['de-AT', 'strip']);
	});

	it('is nothing where the address has what there is not', () => {
		history.replaceState(null, '', '/?device=watch&moment=constructor');
		expect([context.device, context.moment, context.product]).toEqual(['', '', '']);
	});

	it('stays when one goes to another station, and what was one station’s own does not', async () => {
		history.replaceState(null, '', '/draw/strip?product=A&device=phone&layer=exception:1&page=/x');
		expect(context.href('/words')).toBe('/words?product=A&device=phone&placement=strip');
		context.go('/place', { point: '1' });
		await settled();
		expect(steps).toEqual(['/place?product=A&device=phone&placement=strip&point=1']);
		expect(context.href('/draw')).toBe('/draw/strip?product=A&device=phone');
		expect(context.href('/draw/floating', { product: '' })).toBe('/draw/floating?device=phone');
		expect(context.href('/')).toBe('/?product=A&device=phone&placement=strip');
	});

	it('changes at the same station with a step to go back to, or none while one passes by', async () => {
		history.replaceState(null, '', '/draw/strip?product=A&layer=exception:1');
		context.look({ device: 'phone' });
		await settled();
		context.look({ product: 'A&B=C', layer: '' });
		await settled();
		context.look({ placement: 'tile' }, { isPassing: true });
		await settled();
		expect(steps).toEqual([
			'/draw/strip?product=A&layer=exception%3A1&device=phone',
			'/draw/strip?product=A%26B%3DC&device=phone',
			'in place /draw/tile?product=A%26B%3DC&device=phone',
		]);
	});

	it('keeps the first of two changes that come at once', async () => {
		context.look({ device: 'phone' });
		expect(context.isMoving).toBe(true);
		context.look({ language: 'de' });
		await settled();
		expect(location.search).toBe('?device=phone&language=de');
		expect(context.isMoving).toBe(false);
	});
});
