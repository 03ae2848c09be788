import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Rows, Shop } from '../base/shop';
import type { Row } from '../base/types';
import { indexProducts, readProduct, readSchema } from '../page/page';
import { answerWith, handedOver } from '../testing/parts';

let near: (element: Element) => void;
const pages: Record<string, string> = {};
const page = (sku: string, name: string) =>
	`<script type="application/ld+json">${JSON.stringify({ '@type': 'Product', sku, name, offers: { price: '3.00' } })}</script>
	<form><input name=sku value=${sku}><input name=token value=t></form>`;

beforeAll(() => {
	vi.stubGlobal(
		'IntersectionObserver',
		class {
			constructor(tell: (entries: { isIntersecting: boolean; target: Element }[]) => void) {
				near = (target) => tell([{ isIntersecting: true, target }]);
			}
			observe() {}
			unobserve() {}
		},
	);
	answerWith(pages);
});

async function load(recent?: object) {
	const make = await handedOver<(shop: Shop, recent?: object) => Rows>(() => import('./row'));
	const shop = {
		manifest: {
			looks: [{ high: { desktop: 44, phone: 52 } }],
			places: { tile: { looks: { '': 0 } } },
			basket: { product_field: 'sku', option_fields: [] },
			language: 'en',
		},
		looker: { device: 'desktop', language: 'en' },
		read: (place: HTMLElement, form?: string, instead?: string, of?: Document) =>
			readProduct(place, indexProducts(readSchema(of!)), form, instead),
	} as unknown as Shop;
	return make(shop, recent);
}
const row = (more: Partial<Row> = {}): Row =>
	({
		css: '',
		tiles: [
			{ sku: 'A1', path: '/p/A1' },
			{ sku: 'B1', path: '/p/B1' },
		],
		heading: { en: 'Goes with it' },
		...more,
	}) as Row;
const soon = () => new Promise((done) => setTimeout(done, 20));

describe('a row of tiles', () => {
	let host: HTMLElement;
	beforeEach(() => {
		document.body.innerHTML = '<up-place></up-place>';
		host = document.querySelector('up-place')!;
		Object.assign(pages, { '/p/A1': page('A1', 'Wax'), '/p/B1': page('B1', 'Hive') });
	});
	const names = () => Array.from(host.shadowRoot!.querySelectorAll('.n'), ({ textContent }) => textContent);
	const places = () => [...host.querySelectorAll<HTMLElement>('[slot] [data-up-place], [slot][data-up-place]')];

	it('has the room of its buttons before anything is known of its products', async () => {
		(await load()).stand(host, row(), 'tile', '');
		expect(Array.from(host.children, (place) => (place as HTMLElement).style.minHeight)).toEqual(['44px', '44px']);
		expect(host.shadowRoot!.querySelector('h2')!.textContent).toBe('Goes with it');
		expect(names()).toEqual(['', '']);
	});

	it('reads its products from their own pages once it comes near, with what those would send', async () => {
		(await load()).stand(host, row(), 'tile', '');
		near(host);
		await soon();
		expect(names()).toEqual(['Wax', 'Hive']);
		expect(places().map(({ dataset }) => dataset.upProduct)).toEqual(['A1', 'B1']);
		expect(new FormData(places()[0]!.closest('form')!).get('token')).toBe('t');
		expect(host.hasAttribute('data-up-filled')).toBe(true);
	});

	it('leaves out the page’s own product and one whose page tells of another or does not answer', async () => {
		pages['/p/B1'] = page('X9', 'Something else');
		const tiles = [...row().tiles, { sku: 'C1', path: '/p/C1' }, { sku: 'D1', path: '/p/D1' }];
		pages['/p/D1'] = page('D1', 'Veil');
		(await load()).stand(host, row({ tiles } as Partial<Row>), 'tile', 'A1');
		near(host);
		await soon();
		expect(names()).toEqual(['Veil']);
	});

	it('is not there where none of its products can be read, and says why', async () => {
		for (const path of Object.keys(pages)) delete pages[path];
		(await load()).stand(host, row(), 'tile', '');
		near(host);
		await soon();
		expect([host.childElementCount, host.shadowRoot!.childElementCount, host.dataset.upKept]).toEqual([0, 0, 'told']);
	});

	it('shows what was seen lately instead of what was chosen, as many as are wished', async () => {
		const recent = { seen: () => ['A1', 'B1', 'A1'].map((sku) => ({ sku, path: `/p/${sku}` })), remember: vi.fn() };
		(await load(recent)).stand(host, row({ seen: 1, tiles: [] } as Partial<Row>), 'tile', 'A1');
		near(host);
		await soon();
		expect(names()).toEqual(['Hive']);
	});

	it('that is drawn anew before its pages have come is filled once', async () => {
		const rows = await load();
		rows.stand(host, row(), 'tile', '');
		near(host);
		rows.stand(host, row({ heading: { en: 'Anew' } } as Partial<Row>), 'tile', '');
		near(host);
		await soon();
		expect([host.shadowRoot!.querySelectorAll('h2').length, names()]).toEqual([1, ['Wax', 'Hive']]);
	});
});
