import { afterEach, describe, expect, it, vi } from 'vitest';
import { Taking } from './taking.svelte';
import type { Workshop } from './workshop.svelte';

const file = new File(['sku\nA1\n'], 'goods.csv');
const report = { applied: false, counts: { new: 1, changed: 0 } };

function begin(answer: (url: string, init: RequestInit) => Promise<Response>) {
	const asked: string[] = [];
	vi.stubGlobal('fetch', (url: string, init: RequestInit) => {
		asked.push(url);
		return answer(url, init);
	});
	const workshop = { store: 'sample', reloadStore: vi.fn(() => Promise.resolve()) };
	return { asked, workshop, taking: new Taking(workshop as unknown as Workshop) };
}
/** Answers in pieces that end anywhere, as a network does. */
function pieces(...texts: string[]): Response {
	const bytes = new TextEncoder();
	return new Response(
		new ReadableStream({
			start(controller) {
				for (const text of texts) controller.enqueue(bytes.encode(text));
				controller.close();
			},
		}),
	);
}
afterEach(() => vi.unstubAllGlobals());

describe('a catalogue that is imported', () => {
	it('is looked at first, and nothing is done', async () => {
		const { asked, taking, workshop } = begin(() => Promise.resolve(Response.json(report)));
		await taking.look(file);
		expect(asked).toEqual(['/api/stores/sample/catalogue/preview?whole=false']);
		expect(taking.report).toEqual(report);
		expect(workshop.reloadStore).not.toHaveBeenCalled();
	});

	it('tells its progress line by line, wherever the network cuts, and what it came to', async () => {
		const { asked, taking, workshop } = begin((url) =>
			Promise.resolve(
				url.includes('preview')
					? Response.json(report)
					: pieces('{"progress":{"done":2', '000,"of":4000}}\n{"report":{"appl', 'ied":true}}\n'),
			),
		);
		await taking.look(file);
		taking.whole = true;
		await taking.take(true);
		expect(asked[1]).toBe('/api/stores/sample/catalogue?whole=true&really=true');
		expect(taking.report).toEqual({ applied: true });
		expect(taking.progress).toBeNull();
		expect(workshop.reloadStore).toHaveBeenCalledOnce();
	});

	it('says why it was refused, and that nothing is left half done', async () => {
		const problem = { code: 'bad_catalogue', detail: 'Line 3 has no code.' };
		const { taking, workshop } = begin((url) =>
			Promise.resolve(url.includes('preview') ? Response.json(report) : pieces(`${JSON.stringify({ problem })}\n`)),
		);
		await taking.look(file);
		await taking.take(false);
		expect(taking.wrong).toBe('Line 3 has no code.');
		expect(taking.report).toBeNull();
		expect(workshop.reloadStore).not.toHaveBeenCalled();
	});

	it('can be stopped midway', async () => {
		const { taking } = begin((url, init) =>
			url.includes('preview')
				? Promise.resolve(Response.json(report))
				: new Promise((_, fail) =>
						init.signal?.addEventListener('abort', () => fail(new DOMException('', 'AbortError'))),
					),
		);
		await taking.look(file);
		const done = taking.take(false);
		taking.stop();
		await done;
		expect(taking.wrong).toBe('Stopped. Nothing was imported.');
		expect(taking.progress).toBeNull();
	});

	it('says what was wrong with a file that cannot be read', async () => {
		const { taking } = begin(() => Promise.resolve(Response.json({ detail: 'It is no CSV.' }, { status: 422 })));
		await taking.look(file);
		expect(taking.wrong).toBe('It is no CSV.');
		taking.close();
		expect([taking.wrong, taking.report]).toEqual(['', null]);
	});
});
