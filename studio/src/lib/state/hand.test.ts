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
	document.body.append(grip);
	grip.setPointerCapture = vi.fn();
	const detach = hand.drags(hold)(grip);
	const send = (kind: string, clientX = 0, more: PointerEventInit = {}) =>
		grip.dispatchEvent(new PointerEvent(kind, { clientX, pointerId: 1, bubbles: true, ...more }));
	return { desk, send, shrink, grip, detach };
}

describe('the hand', () => {
	it('tries each value while it drags, and saves the last one once', () => {
		const { desk, send } = begin();
		send('pointerdown', 100);
		send('pointermove', 110);
		send('pointermove', 120);
		expect(desk.mark).toHaveBeenCalledWith('look.radius');
		expect(desk.tryOut.mock.calls).toEqual([[{ 'look.radius': 15 }], [{ 'look.radius': 20 }]]);
		send('pointerup');
		expect(desk.settle.mock.calls).toEqual([[{ 'look.radius': 20 }]]);
	});

	it('measures by the scale with which it began, though the drawing grows smaller by it', () => {
		const { desk, send, shrink } = begin();
		send('pointerdown', 100);
		expect(desk.held?.zoom).toBe(2);
		send('pointermove', 110);
		shrink();
		send('pointermove', 120);
		expect(desk.tryOut).toHaveBeenLastCalledWith({ 'look.radius': 20 });
		send('pointerup');
		expect(desk.held).toBeNull();
	});

	it('stays within the bounds', () => {
		const { desk, send } = begin();
		send('pointerdown', 100);
		send('pointermove', 900);
		send('pointermove', -900);
		expect(desk.tryOut.mock.calls).toEqual([[{ 'look.radius': 40 }], [{ 'look.radius': 0 }]]);
	});

	it('saves nothing where nothing was moved, or where the drag was broken off', () => {
		const { desk, send } = begin();
		send('pointerdown', 100);
		send('pointerup');
		expect(desk.settle).toHaveBeenLastCalledWith(null);
		send('pointerdown', 100);
		send('pointermove', 120);
		send('pointercancel');
		expect(desk.settle).toHaveBeenLastCalledWith(null);
		send('pointerup');
		expect(desk.settle).toHaveBeenCalledTimes(2);
	});

	it('leaves other keys of the mouse alone', () => {
		const { desk, send } = begin();
		send('pointerdown', 100, { button: 2 });
		send('pointermove', 120);
		expect(desk.tryOut).not.toHaveBeenCalled();
	});

	it('is as before where Escape breaks it off, and follows no other pointer', () => {
		const { desk, send, grip } = begin();
		const closed = vi.fn();
		addEventListener('keydown', closed);
		send('pointerdown', 100);
		send('pointermove', 500, { pointerId: 2 });
		send('pointermove', 110);
		expect(desk.tryOut.mock.calls).toEqual([[{ 'look.radius': 15 }]]);
		grip.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
		expect(desk.settle.mock.calls).toEqual([[null]]);
		expect(desk.held).toBeNull();
		// What the key would do otherwise, as closing a sheet, it does not do.
		expect(closed).not.toHaveBeenCalled();
		send('pointermove', 130);
		send('pointerup', 130);
		expect(desk.tryOut).toHaveBeenCalledTimes(1);
		expect(desk.settle).toHaveBeenCalledTimes(1);
		removeEventListener('keydown', closed);
	});

	it('goes on where what is dragged is drawn anew meanwhile', () => {
		const { desk, send, detach } = begin();
		send('pointerdown', 100);
		(detach as () => void)();
		send('pointermove', 120);
		send('pointerup', 120);
		expect(desk.settle.mock.calls).toEqual([[{ 'look.radius': 20 }]]);
	});

	it('ends where the element goes', () => {
		const { desk, send } = begin();
		send('pointerdown', 100);
		send('pointermove', 120);
		send('lostpointercapture');
		expect(desk.settle.mock.calls).toEqual([[null]]);
	});
});
