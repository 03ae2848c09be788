import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Later, Load, MakeStand, Shop, Stand } from '../base/shop';
import { handedOver } from '../testing/parts';

async function load(more: Record<string, object> = {}, files: Record<string, () => Promise<unknown>> = {}) {
	vi.stubGlobal(
		'IntersectionObserver',
		class {
			observe() {}
			unobserve() {}
		},
	);
	const begin = await handedOver<(shop: Shop, load: Load) => Later>(() => import('./later'));
	const asked: string[] = [];
	const loads = ((file?: { file: string }) => {
		asked.push(file?.file ?? 'nothing');
		return files[file?.file ?? '']?.() ?? Promise.reject(new Error('not there'));
	}) as Load;
	const places = { look: vi.fn(), tend: vi.fn(), products: { by: new Map() } };
	const manifest = {
		key: 'K',
		edge: 'http://edge.test',
		release: 1,
		more: Object.fromEntries(Object.keys(more).map((name) => [name, { file: name, integrity: '' }])),
		places: more,
		basket: { read: { path: '/basket.json' } },
	};
	const shop = {
		manifest,
		places,
		looker: { shopper: '' },
		spoken: {},
		isSilent: true,
		basket: { count: 1, items: [] },
	} as unknown as Shop;
	const tools = begin(shop, loads);
	return { tools, shop, asked, places };
}
const soon = () => new Promise((done) => setTimeout(done, 5));
const standOf = (made: object) =>
	({
		host: document.createElement('div'),
		standing: { made },
		product: { sku: 'A1', url: '/p/A1' },
	}) as unknown as Stand;

describe('what a page loads once buttons stand', () => {
	beforeEach(() => {
		document.body.innerHTML = '';
	});

	it('puts a region into the page before the first sentence, and says each one', async () => {
		const { tools, shop } = await load();
		tools.watch(standOf({}));
		const region = document.querySelector('[role=status]')!;
		expect(region.textContent).toBe('');
		shop.announce!('Added, Wax');
		expect(region.textContent).toBe('');
		await new Promise((done) => setTimeout(done, 80));
		expect(region.textContent).toBe('Added, Wax');
	});

	it('loads what hangs only beside a main button, and once', async () => {
		const follow = vi.fn();
		const { tools, asked, places } = await load({ sticky_bar: {}, bar: {} }, { bar: async () => () => ({ follow }) });
		const follows = await tools.hang(class {} as unknown as MakeStand, () => undefined);
		follows(undefined, false);
		expect(asked).toEqual([]);
		const main = standOf({});
		follows(main, false);
		follows(main, false);
		await soon();
		expect(asked).toEqual(['bar']);
		expect(places.look).toHaveBeenCalled();
		follows(main, true);
		expect(follow).toHaveBeenCalledWith(main, true);
	});

	it('asks again for what a press opens where that could not be loaded', async () => {
		let isThere = false;
		const prepare = vi.fn();
		const { tools, asked } = await load(
			{ sheet: {} },
			{ sheet: () => (isThere ? Promise.resolve(() => ({ prepare })) : Promise.reject(new Error('away'))) },
		);
		tools.watch(standOf({ sheet: {} }));
		await soon();
		isThere = true;
		tools.watch(standOf({ sheet: {} }));
		await soon();
		expect([asked, prepare.mock.calls.length]).toEqual([['sheet', 'sheet'], 1]);
	});

	it('tells every button and the shop when the basket has changed', async () => {
		const { shop, places } = await load();
		const heard: unknown[] = [];
		document.addEventListener('up:basket', (event) => heard.push((event as CustomEvent).detail), { once: true });
		shop.changed!({ count: 3, items: [] });
		expect(heard).toEqual([{ count: 3, items: [] }]);
		expect(places.tend).toHaveBeenCalledTimes(1);
	});

	it('asks what is in the basket when somebody comes back, and takes no older answer than a press had', async () => {
		const { shop, places } = await load();
		let answer: (told: object) => void = () => undefined;
		vi.stubGlobal(
			'fetch',
			vi.fn(() => new Promise((done) => (answer = done))),
		);
		const told = (count: number) => ({ ok: true, status: 200, text: async () => JSON.stringify({ count, items: [] }) });
		document.dispatchEvent(new Event('visibilitychange', { bubbles: true }));
		answer(told(2));
		await soon();
		expect([shop.basket?.count, places.tend.mock.calls.length]).toEqual([2, 1]);
		document.dispatchEvent(new Event('visibilitychange', { bubbles: true }));
		shop.basket = { count: 5, items: [] };
		answer(told(4));
		await soon();
		expect(shop.basket.count).toBe(5);
	});

	it('finds rows of tiles where a release has them, and nothing else is loaded for it', async () => {
		const finder = { find: vi.fn() };
		const { shop, asked, places } = await load({ find: {} }, { find: async () => () => finder });
		await soon();
		expect([asked, shop.finder]).toEqual([['find'], finder]);
		expect(places.look).toHaveBeenCalledTimes(1);
	});
});
