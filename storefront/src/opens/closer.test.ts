import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Shop, Stand } from '../base/shop';
import { indexProducts, readProduct, readSchema } from '../page/page';
import type { Choices } from './choices';
import type { MakeCloser } from './closer';
import type { Tools } from './tools';
import { answerWith, handedOver } from '../testing/parts';

const pages: Record<string, string> = {};
const page = (sku: string, name: string, form = '') =>
	`<script type="application/ld+json">${JSON.stringify({
		'@type': 'Product',
		sku,
		name,
		description: `All about ${name}`,
		image: `/${sku}.png`,
		offers: { price: '3.00' },
	})}</script><form><input name=sku value=${sku}>${form}</form>`;
const SIZES =
	'<select name=size required><option value="">–</option><option>small</option><option>large</option></select>';

const soon = () => new Promise((done) => setTimeout(done, 20));

async function begin(goes = vi.fn()) {
	document.body.innerHTML = '<ul><li><div id=a></div></li><li><div id=b></div></li></ul>';
	vi.stubGlobal('location', Object.assign(new URL('http://shop.test/list'), { assign: goes }));
	const signals: string[] = [];
	const shop = {
		manifest: { language: 'en', basket: { product_field: 'sku', option_fields: ['size'] }, places: {}, trials: [] },
		looker: { language: 'en', device: 'desktop' },
		spoken: { money: { digits: 2 } },
		fillText: (_: unknown, { price }: { price: string }) => price,
		read: (place: HTMLElement, form?: string, instead?: string, of?: Document) =>
			readProduct(place, indexProducts(readSchema(of!)), form, instead),
	} as unknown as Shop;
	let sheet: { host: HTMLElement; root: ShadowRoot; dialog: HTMLDialogElement; body: HTMLElement } | undefined;
	const tools = {
		element: (name: string, className = '', text = '') =>
			Object.assign(document.createElement(name), { className, textContent: text }),
		called: (at: Element) => at,
		hearOn: () => undefined,
		key: (className: string, text: string, press: () => void) =>
			Object.assign(document.createElement('button'), { className, textContent: text, onclick: press }),
		openSheet: () => {
			const host = document.body.appendChild(document.createElement('div'));
			const root = host.attachShadow({ mode: 'open' });
			const dialog = root.appendChild(document.createElement('dialog'));
			return (sheet = { host, root, dialog, body: dialog.appendChild(document.createElement('div')) });
		},
	} as unknown as Tools;
	const choices = await handedOver<Choices>(() => import('./choices'));
	const make = await handedOver<MakeCloser>(() => import('./closer'));
	const stands = new Set<Stand>();
	const closer = make(shop, tools, choices, stands, (kind) => void signals.push(kind));
	const standOf = (id: string, sku: string, more: object = {}) => {
		const place = document.getElementById(id)!;
		place.dataset.upPlace = 'listing_card';
		const stand = {
			is: 'ours',
			place,
			host: document.createElement('div'),
			pressedAt: -1e9,
			product: { sku, url: `/p/${sku}`, needsChoice: false, ...more },
			standing: {
				versions: {},
				made: { closer: { words: { en: ['Gone', 'To its page', 'Before', 'After'] }, choose: 'card' } },
			},
			name: () => 'listing_card',
			moment: () => 'ready',
			option: () => '',
		} as unknown as Stand;
		stands.add(stand);
		return stand;
	};
	return { closer, standOf, goes, signals, seen: () => sheet?.body.textContent ?? '', sheet: () => sheet };
}

describe('a product on a sheet', () => {
	let asked: string[];
	beforeEach(() => {
		for (const path of Object.keys(pages)) delete pages[path];
		Object.assign(pages, { '/p/A1': page('A1', 'Wax'), '/p/B1': page('B1', 'Hive') });
		asked = answerWith(pages);
	});

	it('is looked at as its own page tells it, and that is no press of what buys', async () => {
		const { closer, standOf, seen, signals, sheet } = await begin();
		await closer.open(standOf('a', 'A1'), true);
		expect(seen()).toContain('Wax');
		expect(seen()).toContain('3.00');
		expect(seen()).toContain('All about Wax');
		expect(sheet()!.body.querySelector('img')!.src).toBe('http://shop.test/A1.png');
		expect(signals).toEqual([]);
	});

	it('has been read before it is opened, and is read once', async () => {
		const { closer, standOf } = await begin();
		const stand = standOf('a', 'A1');
		closer.prepare(stand);
		stand.host.dispatchEvent(new Event('pointerover'));
		await soon();
		expect(asked).toEqual(['/p/A1']);
		await closer.open(stand, true);
		expect(asked).toEqual(['/p/A1']);
	});

	it('leads to the next one in the order of the page', async () => {
		const { closer, standOf, seen, sheet } = await begin();
		const [stand] = [standOf('a', 'A1'), standOf('b', 'B1')];
		await closer.open(stand!, true);
		const ways = [...sheet()!.body.querySelectorAll<HTMLElement>('nav button')];
		expect(ways.map(({ textContent }) => textContent)).toEqual(['After']);
		ways[0]!.click();
		await soon();
		expect(seen()).toContain('Hive');
		expect(seen()).toContain('Before');
	});

	it('is chosen of on the card, where its page has a form for that', async () => {
		pages['/p/A1'] = page('A1', 'Wax', SIZES);
		const { closer, standOf, seen, signals, goes } = await begin();
		await closer.open(standOf('a', 'A1', { needsChoice: true }), false);
		expect([seen().includes('small'), seen().includes('large'), signals, goes.mock.calls]).toEqual([
			true,
			true,
			['clicked'],
			[],
		]);
	});

	it('is gone to where nobody can tell here what there is to choose, or its page does not answer', async () => {
		const { closer, standOf, goes, sheet } = await begin();
		await closer.open(standOf('a', 'A1', { needsChoice: true }), false);
		delete pages['/p/B1'];
		await closer.open(standOf('b', 'B1'), true);
		expect(goes.mock.calls).toEqual([['/p/A1'], ['/p/B1']]);
		expect(sheet()).toBeUndefined();
	});

	it('of another shop is not asked for, but gone to', async () => {
		const { closer, standOf, goes } = await begin();
		await closer.open(standOf('a', 'A1', { url: 'https://other.test/p/A1' }), true);
		expect([asked, goes.mock.calls]).toEqual([[], [['https://other.test/p/A1']]]);
	});

	it('opens once for a double click', async () => {
		const { closer, standOf, signals } = await begin();
		const stand = standOf('a', 'A1', { needsChoice: true });
		await Promise.all([closer.open(stand, false), closer.open(stand, false)]);
		expect(signals).toEqual(['clicked']);
	});
});
