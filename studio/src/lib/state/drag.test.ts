import { describe, expect, it, vi } from 'vitest';
import { drag, type Drag } from './drag';

function begin(how: Pick<Partial<Drag<number>>, 'begin' | 'step'>) {
	const grip = document.createElement('button');
	grip.setPointerCapture = vi.fn();
	document.body.append(grip);
	const all = { begin: vi.fn(() => 7), move: vi.fn(), end: vi.fn(), cancel: vi.fn(), ...how };
	drag(all)(grip);
	const key = (name: string) => {
		const event = new KeyboardEvent('keydown', { key: name, cancelable: true });
		grip.dispatchEvent(event);
		return event.defaultPrevented;
	};
	const send = (kind: string, clientX: number, clientY: number) =>
		grip.dispatchEvent(new PointerEvent(kind, { clientX, clientY, pointerId: 1, bubbles: true, cancelable: true }));
	return { ...all, grip, key, send };
}

describe('what is dragged', () => {
	it('moves by the way of the pointer since it was taken, with what it began with', () => {
		const { grip, send, move, end } = begin({});
		send('pointerdown', 10, 20);
		expect(document.activeElement).toBe(grip);
		send('pointermove', 13, 15);
		expect(move).toHaveBeenCalledWith(7, { x: 3, y: -5 }, expect.anything());
		send('pointerup', 14, 15);
		expect(end.mock.calls).toEqual([[7, { x: 4, y: -5 }]]);
	});

	it('is not taken where its owner refuses', () => {
		const { send, move, end } = begin({ begin: () => null });
		send('pointerdown', 10, 20);
		send('pointermove', 13, 15);
		send('pointerup', 13, 15);
		expect(move).not.toHaveBeenCalled();
		expect(end).not.toHaveBeenCalled();
	});

	it('moves by arrow keys along an axis, and leaves other keys alone', () => {
		const step = vi.fn();
		const { key } = begin({ step });
		expect([key('ArrowLeft'), key('ArrowDown'), key('Tab')]).toEqual([true, true, false]);
		expect(step.mock.calls.map(([way]) => way)).toEqual([
			{ x: -1, y: 0 },
			{ x: 0, y: 1 },
		]);
	});

	it('leaves arrow keys to the page where it has no steps', () => {
		expect(begin({}).key('ArrowLeft')).toBe(false);
	});
});
