import type { ToFrame } from '@storefront/studio/messages';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Desk } from './desk.svelte';
import { DraftWindows } from './draft_windows.svelte';
import type { FramedPage } from './framed_page.svelte';
import type { Workshop } from './workshop.svelte';

const api = vi.hoisted(() => ({ GET: vi.fn(), POST: vi.fn() }));
vi.mock('$lib/api/client', async (original) => ({
	...(await original<typeof import('$lib/api/client')>()),
	client: api,
}));

const DEVICES = ['phone', 'tablet', 'desktop'] as const;
const manifest = (radius: number, words = 'Buy') => ({
	css: '',
	words: { ready: { en: [words] } },
	looks: [{ css: `radius:${radius}` }, { css: 'still' }],
});

/** Three windows whose messages are kept, and a desk on which an edit is tried. */
function begin({ loading = [] as string[] } = {}) {
	const told: Record<string, ToFrame[]> = { phone: [], tablet: [], desktop: [] };
	const page = (device: string) =>
		({
			isReady: !loading.includes(device),
			tell: (message: ToFrame) => told[device]!.push(message),
		}) as unknown as FramedPage;
	const pages = { phone: page('phone'), tablet: page('tablet'), desktop: page('desktop') };
	const desk = { trying: { look: {} }, kept: undefined, editedAt: 1000, showing: null } as unknown as Desk;
	const windows = new DraftWindows({ path: { store: 'sample' } } as Workshop, desk, pages);
	const draw = (at: number) => DEVICES.forEach((device) => windows.hear(device, { up: 'drawn', at }));
	return { told, pages, desk, windows, draw };
}
const answers = (...each: object[]) => each.forEach((data) => api.POST.mockResolvedValueOnce({ data }));

beforeEach(() => vi.resetAllMocks());

describe('windows of the shop’s pages', () => {
	it('are told the whole draft once, and then what an edit changes', async () => {
		const { told, windows } = begin();
		answers(manifest(4), manifest(9));
		await windows.show();
		await windows.show();
		expect(told.phone).toEqual([
			{
				up: 'draft',
				manifest: { css: '', words: { ready: { en: ['Buy'] } } },
				looks: { many: 2, changed: { 0: { css: 'radius:4' }, 1: { css: 'still' } } },
			},
			{ up: 'draft', manifest: {}, looks: { many: 2, changed: { 0: { css: 'radius:9' } } } },
		]);
		expect(told.desktop).toEqual(told.phone);
	});

	it('are told everything again once they were loaded anew, and nothing while they load', async () => {
		const { told, windows } = begin({ loading: ['tablet'] });
		answers(manifest(4), manifest(4));
		await windows.show();
		windows.forget('phone');
		await windows.show();
		expect([told.phone, told.tablet, told.desktop].map((messages) => messages!.length)).toEqual([2, 0, 2]);
		expect(told.phone![1]).toEqual(told.phone![0]);
		expect(told.desktop![1]).toEqual({ up: 'draft', manifest: {}, looks: { many: 2, changed: {} } });
	});

	it('have drawn an edit when the last of them has, and are timed once for each', async () => {
		const { windows, draw, desk } = begin();
		answers(manifest(4), manifest(4));
		await windows.show();
		windows.hear('phone', { up: 'drawn', at: 1040 });
		windows.hear('phone', { up: 'drawn', at: 1041 });
		expect(windows.took).toBeNull();
		draw(1060);
		expect(windows.took).toBe(60);
		await desk.showing;
		// Told again once the edit is kept.
		await windows.show();
		draw(9000);
		expect(windows.took).toBe(60);
	});

	it('hold an edit up no longer than a moment where one of them is gone', async () => {
		vi.useFakeTimers();
		const { windows, desk } = begin();
		answers(manifest(4));
		await windows.show();
		const kept = vi.fn();
		void desk.showing!.then(kept);
		await vi.advanceTimersByTimeAsync(149);
		expect(kept).not.toHaveBeenCalled();
		await vi.advanceTimersByTimeAsync(1);
		expect(kept).toHaveBeenCalledOnce();
		vi.useRealTimers();
	});

	it('show the newest of several edits, whichever answer comes first', async () => {
		const { told, windows } = begin();
		let late: (answer: object) => void = () => undefined;
		api.POST.mockReturnValueOnce(new Promise((done) => (late = done)));
		answers(manifest(9));
		const first = windows.show();
		await windows.show();
		late({ data: manifest(4) });
		await first;
		expect(told.phone).toHaveLength(1);
		expect(told.phone![0]).toMatchObject({ looks: { changed: { 0: { css: 'radius:9' } } } });
	});

	it('stay as they are where the edit is refused, and the edit is not held up', async () => {
		const { told, windows, desk } = begin();
		api.POST.mockResolvedValueOnce({ error: { code: 'out_of_range', detail: 'It is 0 to 400.' } });
		await windows.show();
		await desk.showing;
		expect(told.phone).toEqual([]);
	});
});
