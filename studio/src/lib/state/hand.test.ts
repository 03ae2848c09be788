import { describe, expect, it, vi } from 'vitest';
import type { Hold } from '$lib/pure/holds';
import type { Stage } from '$lib/pure/stage';
import type { Desk } from './desk.svelte';
import { Hand } from './hand.svelte';

const hold: Hold = { start: 10, axis: 'x', pull: 1, of: (px) => ({ 'look.radius': px }), bounds: [0, 40] };

function begin() {
	const desk = { held: null as Stage | null, mark: vi.fn(), tryOut: vi.fn(), settle: vi.fn(() => Promise.resolve()) };
	let stage: Stage = { x: 0, y: 0, zoom: 2, edge: 0 };
	const hand = new Hand(
		() => desk as unknown as Desk,
		() => stage,
	);
	const shrink = () => (stage = { ...stage, zoom: 1 });
	const grip = document.createElement('button');
	grip.setPointerCapture = vi.fn();
	const event = (clientX: number, more = {}) =>
		({
			button: 0,
			clientX,
			clientY: 0,
			pointerId: 1,
			altKey: false,
			currentTarget: grip,
			preventDefault() {},
			...more,
		}) as never;
	return { desk, grips: hand.grips(hold), event, shrink };
}

describe('the hand', () => {
	it('tries each value while it drags, and saves the last one once', () => {
		const { desk, grips, event } = begin();
		grips.onpointerdown(event(100));
		grips.onpointermove(event(110));
		grips.onpointermove(event(120));
		expect(desk.mark).toHaveBeenCalledWith('look.radius');
		expect(desk.tryOut.mock.calls).toEqual([[{ 'look.radius': 15 }], [{ 'look.radius': 20 }]]);
		grips.onpointerup();
		expect(desk.settle.mock.calls).toEqual([[{ 'look.radius': 20 }]]);
	});

	it('measures by the scale with which it began, though the drawing grows smaller by it', () => {
		const { desk, grips, event, shrink } = begin();
		grips.onpointerdown(event(100));
		expect(desk.held?.zoom).toBe(2);
		grips.onpointermove(event(110));
		shrink();
		grips.onpointermove(event(120));
		expect(desk.tryOut).toHaveBeenLastCalledWith({ 'look.radius': 20 });
		grips.onpointerup();
		expect(desk.held).toBeNull();
	});

	it('stays within the bounds', () => {
		const { desk, grips, event } = begin();
		grips.onpointerdown(event(100));
		grips.onpointermove(event(900));
		grips.onpointermove(event(-900));
		expect(desk.tryOut.mock.calls).toEqual([[{ 'look.radius': 40 }], [{ 'look.radius': 0 }]]);
	});

	it('saves nothing where nothing was moved, or where the drag was broken off', () => {
		const { desk, grips, event } = begin();
		grips.onpointerdown(event(100));
		grips.onpointerup();
		expect(desk.settle).toHaveBeenLastCalledWith(null);
		grips.onpointerdown(event(100));
		grips.onpointermove(event(120));
		grips.onpointercancel();
		expect(desk.settle).toHaveBeenLastCalledWith(null);
		grips.onpointerup();
		expect(desk.settle).toHaveBeenCalledTimes(2);
	});

	it('leaves other keys of the mouse alone', () => {
		const { desk, grips, event } = begin();
		grips.onpointerdown(event(100, { button: 2 }));
		grips.onpointermove(event(120));
		expect(desk.tryOut).not.toHaveBeenCalled();
	});
});
