import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import type { InBasket, Load, Shop, Stand } from '../base/shop';
import type { MakeSheets } from './sheet';
import type { MakeShow } from './show';
import { handedOver } from '../testing/parts';

// jsdom has dialogs without their acts, and no constructed style sheets; those are tested in the real browser.
beforeAll(() => {
	HTMLDialogElement.prototype.showModal = function () {
		this.open = true;
	};
	HTMLDialogElement.prototype.close = function () {
		this.open = false;
		this.dispatchEvent(new Event('close'));
	};
});

const soon = () => new Promise((done) => setTimeout(done, 5));

type ShopsLine = { id: string; sku: string; name: string; qty: number; each: string };
/** The shop's own basket: what it answers, and what it was asked. */
class Counter {
	lines: ShopsLine[] = [
		{ id: 'l1', sku: 'A1', name: 'Wax', qty: 2, each: '2.00' },
		{ id: 'l2', sku: 'B1', name: 'Hive', qty: 1, each: '9.00' },
	];
	asked: { line: string; qty: string }[] = [];
	takes = true;
	/** Lines have no name but their place in the list. */
	isByPlace = false;
	answer = (_: string, init?: RequestInit) => {
		if (init?.body) {
			const { line, qty } = Object.fromEntries(new URLSearchParams(String(init.body))) as { line: string; qty: string };
			this.asked.push({ line, qty });
			if (this.takes) this.lines = this.lines.flatMap((at) => (at.id !== line ? at : +qty ? { ...at, qty: +qty } : []));
			if (this.isByPlace) this.number();
		}
		return Promise.resolve({ ok: true, status: 200, text: async () => JSON.stringify(this.told) });
	};
	number() {
		this.isByPlace = true;
		this.lines = this.lines.map((line, n) => ({ ...line, id: `${n + 1}` }));
	}
	get told() {
		return { count: this.lines.reduce((sum, { qty }) => sum + qty, 0), items: this.lines, sum: '13.00' };
	}
	get basket(): InBasket {
		const items = this.lines.map(({ sku, qty }) => ({ sku, option: '', quantity: qty }));
		return { count: this.told.count, items, told: this.told };
	}
}

const WORDS =
	'Basket|Nothing in it|Take out|{name} is out|Put back|Sum|To the basket|To the checkout|Go on|It is free|{amount} are missing|The shop did not take that.|How many|Close|en'.split(
		'|',
	);

async function begin() {
	document.body.innerHTML = '<button id=before></button><div id=place></div>';
	const counter = new Counter();
	vi.stubGlobal('fetch', counter.answer);
	const read = { kind: 'json', path: '/basket.json', count: 'count', items: 'items', sku: 'sku', name: 'name' };
	const manifest = {
		base: '',
		language: 'en',
		more: { show: { file: 'show' } },
		basket: {
			read: { ...read, line: 'id', amount: 'each', sum: 'sum' },
			change: { path: '/change', method: 'POST', sent_as: 'form', body: { line: '{line}', qty: '{quantity}' } },
			basket_path: '/basket',
			checkout_path: '/checkout',
		},
	};
	const basketIn = (text: string) => {
		const told = JSON.parse(text) as { count: number; items: ShopsLine[] };
		return { count: told.count, items: told.items.map(({ sku, qty }) => ({ sku, option: '', quantity: qty })), told };
	};
	const shop = {
		manifest,
		looker: { language: 'en', device: 'desktop' },
		spoken: { money: { digits: 2 } },
		reads: { acceptFor: () => 'application/json', basketIn },
		fillText: (_: unknown, { price }: { price: string }) => price,
		changed: vi.fn(),
		announce: vi.fn(),
	} as unknown as Shop;
	const load: Load = (file) =>
		(file as unknown as { file: string }).file === 'show'
			? handedOver(() => import('./show'))
			: Promise.reject(new Error('not there'));
	const make = await handedOver<MakeSheets>(() => import('./sheet'));
	const sheets = make(shop, () => undefined, load);
	const host = document.getElementById('before')!;
	const stand = {
		host,
		place: document.getElementById('place'),
		product: { sku: 'A1', url: '' },
		standing: { made: { sheet: { css: '' }, show: { words: { en: WORDS }, side: true, free: '15.00' } } },
		moment: () => 'ready',
		unchosen: () => null,
	} as unknown as Stand;
	await (shop.show!(stand, counter.basket) as ReturnType<ReturnType<MakeShow>>);
	const root = () => document.querySelector('[data-up-sheet]')?.shadowRoot;
	const named = (name: string) => root()!.querySelector<HTMLElement>(`[aria-label="${name}"]`)!;
	const lines = () => Array.from(root()!.querySelectorAll('li'), ({ textContent }) => textContent);
	return { counter, shop, stand, sheets, host, root, named, lines };
}

describe('a sheet', () => {
	beforeEach(() => vi.unstubAllGlobals());

	it('keeps the page behind it still, and goes back to where the focus came from', async () => {
		const { root, host, shop } = await begin();
		expect(document.documentElement.style.overflow).toBe('hidden');
		root()!.querySelector('dialog')!.close();
		expect([document.documentElement.style.overflow, document.activeElement, shop.opened]).toEqual([
			'',
			host,
			undefined,
		]);
		expect(root()).toBeUndefined();
	});

	it('opens instead of the one before it, and goes back to where that came from', async () => {
		const { shop, stand, counter, host } = await begin();
		await shop.show!({ ...stand, host: document.createElement('b') } as Stand, counter.basket);
		expect(document.querySelectorAll('[data-up-sheet]')).toHaveLength(1);
		expect(shop.opened?.back).toBe(host);
	});

	it('is closed by a press beside it, not by one on it', async () => {
		const { root } = await begin();
		const dialog = root()!.querySelector('dialog')!;
		root()!
			.querySelector('h2')!
			.dispatchEvent(new Event('click', { bubbles: true }));
		expect(dialog.open).toBe(true);
		dialog.dispatchEvent(new Event('click'));
		expect(root()).toBeUndefined();
	});

	it('is nothing that a press means where there is nothing to choose', async () => {
		const { sheets, stand } = await begin();
		expect(sheets.press(stand, 'stay')).toBeUndefined();
	});
});

describe('the basket shown', () => {
	beforeEach(() => vi.unstubAllGlobals());

	it('says its lines, their sum and what is missing', async () => {
		const { lines, root } = await begin();
		expect(lines()).toEqual(['Wax2.00Take out', 'Hive9.00Take out']);
		expect(root()!.querySelector('h2')!.textContent).toBe('Basket (3)');
		expect(root()!.querySelector('.m')!.textContent).toBe('Sum13.00');
		expect(root()!.textContent).toContain('2.00 are missing');
	});

	it('changes a line as the shop wants to hear it, and tells the page what the shop answers', async () => {
		const { counter, named, shop, lines } = await begin();
		const field = named('How many, Wax') as HTMLInputElement;
		field.value = '5';
		field.dispatchEvent(new Event('change'));
		await soon();
		expect(counter.asked).toEqual([{ line: 'l1', qty: '5' }]);
		expect((shop.changed as ReturnType<typeof vi.fn>).mock.calls[0]![0]).toMatchObject({ count: 6 });
		expect(lines()).toHaveLength(2);
	});

	it('takes a line out once, however often that is pressed, and puts it back', async () => {
		const { counter, named, lines } = await begin();
		const takes = named('Take out: Wax');
		takes.click();
		takes.click();
		await soon();
		expect(counter.asked).toEqual([{ line: 'l1', qty: '0' }]);
		expect(lines()).toEqual(['Wax is outPut back', 'Hive9.00Take out']);
		counter.lines.unshift({ id: 'l1', sku: 'A1', name: 'Wax', qty: 1, each: '2.00' });
		named('Put back: Wax').click();
		await soon();
		expect(counter.asked.at(-1)).toEqual({ line: 'l1', qty: '2' });
	});

	it('says so where the shop did not take a change, and shows what the shop has', async () => {
		const { counter, named, root } = await begin();
		counter.takes = false;
		const field = named('How many, Wax') as HTMLInputElement;
		field.value = '5';
		field.dispatchEvent(new Event('change'));
		await soon();
		expect(root()!.querySelector('[role=status]')!.textContent).toBe('The shop did not take that.');
		expect((named('How many, Wax') as HTMLInputElement).value).toBe('2');
	});

	it('never asks for another product’s line, where lines are named by their places', async () => {
		const { counter, named, root, shop, stand, lines } = await begin();
		root()!.querySelector('dialog')!.close();
		counter.number();
		await shop.show!(stand, counter.basket);
		named('Take out: Wax').click();
		await soon();
		// What was second is first now, under the name that the first had: putting back would change that one.
		expect(lines()).toEqual(['Wax is out', 'Hive9.00Take out']);
		named('Take out: Hive').click();
		await soon();
		expect(counter.asked).toEqual([
			{ line: '1', qty: '0' },
			{ line: '1', qty: '0' },
		]);
		expect(counter.lines).toEqual([]);
	});
});
