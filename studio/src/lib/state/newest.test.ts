import { describe, expect, it, vi } from 'vitest';
import { Newest } from './newest';

type Asked = { wish: number; answer: (text: string) => void; fail: (error: unknown) => void; signal: AbortSignal };

function begin() {
	const asked: Asked[] = [];
	const got = vi.fn();
	const newest = new Newest<number, string>(
		(wish, signal) => new Promise((answer, fail) => asked.push({ wish, answer, fail, signal })),
		got,
		(error) => error === 'refused',
	);
	return { asked, got, newest };
}
const settled = () => new Promise((done) => setTimeout(done));

describe('the newest wish', () => {
	it('is asked for once the one before is answered; those between are passed over', async () => {
		const { asked, got, newest } = begin();
		for (const wish of [1, 2, 3]) newest.want(wish);
		expect(asked.map((one) => one.wish)).toEqual([1]);
		asked[0]?.answer('one');
		await settled();
		expect(asked.map((one) => one.wish)).toEqual([1, 3]);
		asked[1]?.answer('three');
		await settled();
		expect(got.mock.calls).toEqual([
			['one', 1],
			['three', 3],
		]);
	});

	it('never gets an answer that was on its way when it was stopped, however late that comes', async () => {
		const { asked, got, newest } = begin();
		newest.want(1);
		newest.stop();
		newest.want(2);
		expect(asked.map((one) => one.wish)).toEqual([1, 2]);
		expect(asked[0]?.signal.aborted).toBe(true);
		asked[1]?.answer('two');
		await settled();
		asked[0]?.answer('one, late');
		await settled();
		expect(got.mock.calls).toEqual([['two', 2]]);
	});

	it('goes on after what was refused', async () => {
		const { asked, got, newest } = begin();
		newest.want(1);
		newest.want(2);
		asked[0]?.fail('refused');
		await settled();
		asked[1]?.answer('two');
		await settled();
		expect(got.mock.calls).toEqual([['two', 2]]);
	});

	it('is quiet about a failure of what was stopped', async () => {
		const { asked, got, newest } = begin();
		newest.want(1);
		newest.stop();
		asked[0]?.fail(new Error('aborted'));
		await settled();
		expect(got).not.toHaveBeenCalled();
	});
});
