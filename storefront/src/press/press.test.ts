import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { InBasket, Shop, Stand } from '../base/shop';
import type { Moment } from '../base/types';
import { DOUBLE_MS, press, tellingOf } from './press';

const inBasket = (count: number): InBasket => ({ count, items: [{ sku: 'A1', option: '', quantity: count }] });
const answer = (count: number, status = 200) =>
	({
		status,
		ok: status < 400,
		url: 'http://shop.test/basket.json',
		headers: new Headers({ 'Content-Type': 'application/json' }),
		text: async () => JSON.stringify(inBasket(count)),
		json: async () => inBasket(count),
		redirected: false,
	}) as unknown as Response;

let now = 10_000;
function made(more: { moment?: Moment; isInactive?: boolean; basket?: InBasket | null } = {}) {
	document.body.innerHTML =
		'<form action=/add><input name=sku value=A1><button>Buy</button></form><div id=place></div>';
	const place = document.getElementById('place')!;
	const host = place.appendChild(document.createElement('div'));
	host.attachShadow({ mode: 'open' }).innerHTML = '<button class=b>Added</button>';
	const passed: string[] = [];
	const given: string[] = [];
	const stand = {
		place,
		host,
		is: 'ours',
		product: { sku: 'A1', code: 'A1', name: 'Wax', url: '/p/A1', situation: 'plain' },
		standing: { versions: { 3: 'B' } },
		form: document.forms[0],
		submit: document.querySelector('form button'),
		pressedAt: -1e9,
		name: () => 'product_page',
		option: () => '',
		unchosen: () => null,
		moment: () => more.moment ?? 'ready',
		inactive: () => more.isInactive ?? false,
		tend: vi.fn(),
		pass: (moment: string) => passed.push(moment),
		giveBack: (why: string, note: HTMLElement) => given.push(`${why}: ${note.textContent}`),
	} as unknown as Stand;
	const shop = {
		manifest: {
			basket: {
				kind: 'form_post',
				add_path: '/add',
				product_field: 'sku',
				quantity_field: 'qty',
				option_fields: [],
				basket_path: '/basket',
				checkout_path: '/checkout',
				read: {
					kind: 'json',
					path: '/basket.json',
					count: 'count',
					items: 'items',
					sku: 'sku',
					quantity: 'quantity',
					option: 'option',
				},
			},
			outcomes: { en: ['It was not added. Use this button.', 'Nobody knows. Look.', 'See the basket'] },
		},
		looker: { language: 'en', kind: 'new', device: 'phone' },
		basket: more.basket === undefined ? inBasket(0) : more.basket,
		announce: vi.fn(),
		changed: vi.fn(),
		show: vi.fn(),
	} as unknown as Shop;
	const signals: string[] = [];
	const run = (after = 'stay') => press(stand, shop, after, (kind) => signals.push(kind));
	return { stand, shop, run, signals, passed, given };
}

beforeEach(() => {
	now += 10_000;
	vi.spyOn(performance, 'now').mockImplementation(() => now);
});

describe('a press', () => {
	it('asks the basket once, tells what was pressed and what came of it, and says added', async () => {
		const fetching = vi.fn(async () => answer(1));
		vi.stubGlobal('fetch', fetching);
		const { run, signals, passed, shop } = made();
		await run();
		expect(fetching.mock.calls.filter((asked: unknown[]) => String(asked[0]).includes('/add'))).toHaveLength(1);
		expect(signals).toEqual(['clicked', 'added']);
		expect(passed).toEqual(['working', 'added']);
		expect(shop.basket?.count).toBe(1);
		expect(shop.changed).toHaveBeenCalledOnce();
	});

	it('that follows another at once is the same press', async () => {
		const fetching = vi.fn(async () => answer(1));
		vi.stubGlobal('fetch', fetching);
		const { run, signals } = made();
		const first = run();
		now += DOUBLE_MS - 1;
		await Promise.all([first, run()]);
		expect(signals).toEqual(['clicked', 'added']);
	});

	it('is refused in words, and the shop’s own button is given back', async () => {
		vi.stubGlobal('fetch', async () => answer(0, 422));
		const { run, signals, given, shop } = made();
		await run();
		expect(signals).toEqual(['clicked']);
		expect(given).toEqual(['refused: It was not added. Use this button.']);
		expect(shop.announce).toHaveBeenCalledWith('It was not added. Use this button.');
		expect(shop.changed).not.toHaveBeenCalled();
	});

	it('of which nobody knows what came is never called added, and leads to the basket', async () => {
		vi.stubGlobal('fetch', async () => Promise.reject(new TypeError('offline')));
		const { run, signals, given } = made();
		await run();
		expect(signals).toEqual(['clicked']);
		expect(given[0]).toMatch(/^unknown: Nobody knows\. Look\. See the basket/);
	});

	it('on what is inactive sends nothing and counts nothing, and the next one is not its double', async () => {
		const fetching = vi.fn(async () => answer(1));
		vi.stubGlobal('fetch', fetching);
		const { run, signals, stand } = made({ moment: 'sold_out', isInactive: true });
		const before = stand.pressedAt;
		await run();
		expect(fetching).not.toHaveBeenCalled();
		expect(signals).toEqual([]);
		expect(stand.pressedAt).toBe(before);
	});

	it('on a button that has left its place does nothing', async () => {
		const fetching = vi.fn(async () => answer(1));
		vi.stubGlobal('fetch', fetching);
		const { run, stand, signals } = made();
		(stand as { is: string }).is = 'own';
		await run();
		expect(fetching).not.toHaveBeenCalled();
		expect(signals).toEqual([]);
	});

	it('says nothing of a product that is no longer there, and keeps what the basket told', async () => {
		const { run, stand, passed, shop } = made();
		vi.stubGlobal('fetch', async () => {
			(stand as { product: unknown }).product = { sku: 'B1', code: 'B1', situation: 'plain' };
			return answer(1);
		});
		await run();
		expect(passed).toEqual(['working']);
		expect(shop.basket?.count).toBe(1);
	});

	it('shows the basket or says the count where that is what follows', async () => {
		vi.stubGlobal('fetch', async () => answer(1));
		const shown = made();
		await shown.run('show');
		expect(shown.shop.show).toHaveBeenCalledOnce();
		const counted = made();
		await counted.run('count');
		expect(counted.passed).toEqual(['working', '']);
		expect(counted.shop.announce).toHaveBeenCalledWith('Added');
	});
});

describe('what a signal tells', () => {
	it('is where it was seen and as what, by whom, and of which versions', () => {
		const { stand, shop } = made({ moment: 'in_basket' });
		expect(tellingOf(stand, shop)).toEqual({
			place: 'product_page',
			seen_as: 'in_basket',
			situation: 'plain',
			shopper_kind: 'new',
			product: 'A1',
			versions: { 3: 'B' },
			device: 'phone',
			language: 'en',
		});
	});
});
