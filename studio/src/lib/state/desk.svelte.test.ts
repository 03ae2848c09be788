import { QueryClient } from '@tanstack/svelte-query';
import { flushSync } from 'svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { DraftState, DrawView, Patch } from '$lib/api/types';
import { Queries } from '$lib/api/queries';
import { Desk } from './desk.svelte';
import { DraftQueue } from './draft_queue.svelte';
import type { Workshop } from './workshop.svelte';

const api = vi.hoisted(() => ({ GET: vi.fn(), POST: vi.fn(), PATCH: vi.fn() }));
vi.mock('$lib/api/client', async (original) => ({
	...(await original<typeof import('$lib/api/client')>()),
	client: api,
}));

const draftOf = (version: number) =>
	({ version, release: 0, undo_label: '', redo_label: '', changes: 0 }) as DraftState;
const drawn = (version: number, size: number) =>
	({
		draft: draftOf(version),
		editing: { layer: 'place:product_page', own: ['look.type.size_px'] },
		seen: { product: { sku: 'A1', name: 'A', category: 'c' }, device: 'phone', language: 'en-GB' },
		document: { look: { type: { size_px: size } }, icon: { kind: 'none' } },
	}) as unknown as DrawView;

/** A desk of a store whose draft is at version 1, with an API that answers as it is told. */
function begin() {
	const queue = new DraftQueue({ read: () => Promise.resolve(draftOf(9)), onsignedout: () => undefined });
	queue.draft = draftOf(1);
	const patches: Patch[] = [];
	let answer: (patch: Patch) => Promise<DrawView> = () => Promise.resolve(drawn(2, 17));
	const around = {
		queries: new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: 60_000 } } }),
		store: 'sample',
		path: { store: 'sample' },
		get at() {
			return { store: 'sample', stamp: `${queue.draft?.version}.${queue.draft?.release}` };
		},
		get rested() {
			return { store: 'sample', stamp: `${queue.rested?.version}.${queue.rested?.release}` };
		},
		get saving() {
			return queue.saving;
		},
		seen: (view: Promise<DrawView>) => view,
		fix: vi.fn(),
		changeDrawing: (
			_layer: string,
			patch: () => Promise<Patch>,
			_placement: string,
			_query: object,
			take: (view: DrawView) => void,
		) =>
			queue.act(async () => {
				patches.push(await patch());
				const view = await answer(patches.at(-1) ?? {});
				take(view);
				return view.draft;
			}),
	};
	const workshop = Object.assign(around, { ask: new Queries(around as unknown as Workshop) });
	let desk!: Desk;
	const end = $effect.root(() => {
		desk = new Desk(workshop as unknown as Workshop, () => ({
			placement: 'product_page',
			product: '',
			device: '',
			language: 'en-GB',
			layer: '',
		}));
		// Whoever shows the drawing follows it.
		$effect(() => void desk.view);
	});
	ended.push(end);
	return { desk, queue, patches, workshop, answers: (by: typeof answer) => (answer = by) };
}
const ended: (() => void)[] = [];
const arrived = async () => {
	for (let turn = 0; turn < 5; turn++) await new Promise((done) => setTimeout(done, 0));
	flushSync();
};
beforeEach(() => {
	api.GET.mockReset().mockImplementation((path: string) =>
		Promise.resolve({ data: path.endsWith('{placement}') ? drawn(1, 16) : {} }),
	);
	api.POST.mockReset();
});
afterEach(() => ended.splice(0).forEach((end) => end()));

describe('the desk', () => {
	it('shows what an edit answers with, without asking for the drawing again', async () => {
		const { desk, patches } = begin();
		await arrived();
		expect(desk.view?.document.look.type.size_px).toBe(16);
		await desk.set('look.type.size_px', 17);
		await arrived();
		expect(patches).toEqual([{ look: { type: { size_px: 17 } } }]);
		expect(desk.view?.document.look.type.size_px).toBe(17);
		const asked = api.GET.mock.calls.filter(([path]) => String(path).endsWith('{placement}'));
		expect(asked).toHaveLength(1);
		expect(desk.marked).toBe('look.type.size_px');
	});

	it('takes a value that is set while another is being saved from the drawing that comes of that one', async () => {
		const { desk, patches, answers } = begin();
		await arrived();
		const open: ((view: DrawView) => void)[] = [];
		answers(() => new Promise((done) => open.push(done)));
		const first = desk.set('look.type.size_px', 17);
		const second = desk.set('icon.size_px', 20);
		await arrived();
		// The second waits its turn.
		expect(patches).toHaveLength(1);
		open[0]?.({ ...drawn(2, 17), document: { look: { type: { size_px: 17 } }, icon: { kind: 'shipped' } } } as never);
		await arrived();
		open[1]?.(drawn(3, 17));
		await Promise.all([first, second]);
		// A tagged value is written whole: the icon that the first edit brought is in it.
		expect(patches[1]).toEqual({ icon: { kind: 'shipped', size_px: 20 } });
	});

	it('tries without saving, and goes back to what is kept', async () => {
		const { desk, patches } = begin();
		await arrived();
		api.POST.mockResolvedValue({ data: drawn(1, 30) });
		desk.tryOut({ 'look.type.size_px': 30 });
		await arrived();
		expect(desk.view?.document.look.type.size_px).toBe(30);
		expect(desk.kept?.document.look.type.size_px).toBe(16);
		await desk.settle(null);
		expect(desk.view?.document.look.type.size_px).toBe(16);
		expect(patches).toEqual([]);
	});

	it('shows a second drag together with the first one, which is still being kept', async () => {
		const { desk, answers } = begin();
		await arrived();
		let keep: (view: DrawView) => void = () => undefined;
		answers(() => new Promise((done) => (keep = done)));
		void desk.settle({ 'look.type.size_px': 20 });
		await arrived();
		api.POST.mockResolvedValue({ data: drawn(1, 31) });
		desk.tryOut({ 'look.radius': 9 });
		await arrived();
		const asked = api.POST.mock.lastCall?.[1] as { body: { patch: Patch } };
		expect(asked.body.patch).toEqual({ look: { type: { size_px: 20 }, radius: 9 } });
		keep(drawn(2, 20));
		await arrived();
		// What is dragged now is still seen.
		expect(desk.view?.document.look.type.size_px).toBe(31);
		await desk.settle(null);
		expect(desk.view?.document.look.type.size_px).toBe(20);
	});

	it('shows what is kept when an edit is refused', async () => {
		const { desk, queue, answers } = begin();
		await arrived();
		answers(() => Promise.reject(new Error('look.type.size_px must be 8 to 72; it is 900.')));
		await desk.set('look.type.size_px', 900);
		await arrived();
		expect(desk.view?.document.look.type.size_px).toBe(16);
		expect(desk.trying).toBeNull();
		expect(queue.problem?.message).toContain('8 to 72');
	});

	it('resets what the layer sets itself, and leaves an exception’s own fix to the store', async () => {
		const { desk, patches, workshop } = begin();
		await arrived();
		expect([desk.isOwn('look.type.size_px'), desk.isOwn('look.fill')]).toEqual([true, false]);
		await desk.reset('look.type.size_px');
		await desk.resetAll(['look.fill', 'icon']);
		expect(patches).toEqual([{ look: { type: { size_px: null } } }, { look: { fill: null }, icon: null }]);
		const fix = { label: 'Widen', layer: 'exception:a', patch: { reach_words: 'every product' }, of_rule: true };
		await desk.fix(fix);
		expect(workshop.fix).toHaveBeenCalledWith(fix);
		await desk.fix({ label: 'Larger', layer: 'baseline', patch: { look: { type: { size_px: 18 } } }, of_rule: false });
		expect(patches.at(-1)).toEqual({ look: { type: { size_px: 18 } } });
	});
});
