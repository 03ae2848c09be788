import { describe, expect, it, vi } from 'vitest';
import { Problem } from '$lib/api/client';
import type { DraftState } from '$lib/api/types';
import { DraftQueue } from './draft_queue.svelte';

const draft = (version: number) => ({ version, undo_label: '', redo_label: '', changes: 0, release: 0 }) as DraftState;

function begin(now = 7) {
	const around = { read: vi.fn(() => Promise.resolve(draft(now))), onsignedout: vi.fn() };
	const queue = new DraftQueue(around);
	queue.draft = draft(1);
	return { queue, around };
}

describe('the draft’s changes', () => {
	it('are done one after the other, each on the version that the one before has made', async () => {
		const { queue } = begin();
		const told: string[] = [];
		let answer: (state: DraftState) => void = () => undefined;
		const first = queue.act((headers) => {
			told.push(headers['If-Match'] ?? '');
			return new Promise((done) => (answer = done));
		});
		const second = queue.act((headers) => {
			told.push(headers['If-Match'] ?? '');
			return Promise.resolve(draft(3));
		});
		await Promise.resolve();
		expect(told).toEqual(['"1"']);
		expect(queue.saving).toBe(true);
		answer(draft(2));
		expect(await first).toBe(true);
		expect(await second).toBe(true);
		expect(told).toEqual(['"1"', '"2"']);
		expect([queue.draft?.version, queue.saving, queue.savedOnce]).toEqual([3, false, true]);
	});

	it('say what went wrong and let the next one be done', async () => {
		const { queue, around } = begin();
		const refused = () => Promise.reject(new Problem({ code: 'bad_document', detail: 'look.radius: too large.' }));
		expect(await queue.act(refused)).toBe(false);
		expect(queue.problem?.message).toBe('look.radius: too large.');
		expect([queue.draft?.version, queue.saving]).toEqual([1, false]);
		expect(around.read).not.toHaveBeenCalled();
		expect(await queue.act(() => Promise.resolve(draft(2)))).toBe(true);
		expect(queue.problem).toBeNull();
	});

	it('show what others have changed where the version was overtaken', async () => {
		const { queue } = begin(9);
		expect(await queue.act(() => Promise.reject(new Problem({ code: 'stale' })))).toBe(false);
		expect(queue.draft?.version).toBe(9);
	});

	it('go on where the state could not be read again after somebody else had changed it', async () => {
		const { queue, around } = begin();
		around.read.mockRejectedValueOnce(new Error('cannot reach the server'));
		expect(await queue.act(() => Promise.reject(new Problem({ code: 'stale' })))).toBe(false);
		expect([queue.draft?.version, queue.saving, queue.failed]).toEqual([1, false, 'Somebody else changed it.']);
		// The next one is told the same, and what is there now is read.
		expect(await queue.act(() => Promise.reject(new Problem({ code: 'stale' })))).toBe(false);
		expect(queue.draft?.version).toBe(7);
		expect(await queue.act(() => Promise.resolve(draft(8)))).toBe(true);
	});

	it('say which act failed', async () => {
		const { queue } = begin();
		await queue.act(() => Promise.reject(new Problem({ code: 'findings_left' })), 'It was not released.');
		expect(queue.failed).toBe('It was not released.');
	});

	it('end with the session', async () => {
		const { queue, around } = begin();
		await queue.act(() => Promise.reject(new Problem({ code: 'not_signed_in' })));
		expect(around.onsignedout).toHaveBeenCalledOnce();
	});

	it('turn what is no problem of the API into one', async () => {
		const { queue } = begin();
		await queue.act(() => Promise.reject(new TypeError('no network')));
		expect(queue.problem?.message).toContain('no network');
	});

	it('are followed at once by what is drawn, and by what lies beside it once they rest', async () => {
		vi.useFakeTimers();
		const { queue } = begin();
		expect(queue.rested?.version).toBe(1);
		for (const version of [2, 3, 4]) {
			await queue.act(() => Promise.resolve(draft(version)));
			vi.advanceTimersByTime(100);
			expect([queue.draft?.version, queue.rested?.version]).toEqual([version, 1]);
		}
		vi.advanceTimersByTime(200);
		expect(queue.rested?.version).toBe(4);
		// Whoever signs out leaves nothing.
		queue.draft = null;
		expect(queue.rested).toBeNull();
		vi.useRealTimers();
	});
});
