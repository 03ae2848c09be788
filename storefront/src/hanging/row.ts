import { goodsReader, tellPlace, type Told } from '../page/goods';
import { element } from '../base/element';
import type { MakeRecent, Tile } from './recent';
import type { Shop } from '../base/shop';
import type { Row } from '../base/types';

/** A tile as it stands: its room is there before its product is known. */
type Drawn = { tile: Tile; item: HTMLElement; place: HTMLElement };

/** Rows of tiles: pictures of products, each with its link and a button of ours, read from the products' own pages. */
function make(shop: Shop, recent?: ReturnType<MakeRecent>) {
	const { manifest } = shop;
	const { read } = goodsReader(shop);
	/** What is to be done once a row comes near. */
	const waiting = new WeakMap<Element, () => void>();
	const nearing = new IntersectionObserver(
		(entries) => {
			for (const { isIntersecting, target } of entries) {
				if (!isIntersecting) continue;
				nearing.unobserve(target);
				waiting.get(target)?.();
			}
		},
		{ rootMargin: `${manifest.draft ? '9999%' : '100%'} 0px` },
	);

	/** Returns a tile without its product: as high as it will be. */
	function draw(tile: Tile, slot: number, row: Row, high: number): Drawn {
		const item = element('li');
		const picture = element('div', 'p');
		const way = element('a');
		const hole = Object.assign(element('slot'), { name: String(slot) });
		const place = Object.assign(element('div'), { slot: String(slot) });
		place.style.minHeight = `${row.over ? 0 : high}px`;
		way.href = tile.path;
		picture.append(way);
		const texts = element('div', 't');
		if (!row.bare) texts.append(Object.assign(element('a', 'n'), { href: tile.path }));
		if (row.price) texts.append(element('span', 'm'));
		item.append(picture, texts);
		if (row.over) {
			const over = element('div', 'o');
			over.append(hole);
			picture.append(over);
		} else item.append(hole);
		return { tile, item, place };
	}

	function fill({ tile, item, place }: Drawn, { product, picture, form }: Told, row: Row, placement: string): void {
		const way = item.querySelector<HTMLAnchorElement>('.p a')!;
		const name = item.querySelector('.n');
		if (picture) {
			const img = Object.assign(element('img'), { src: picture, alt: name ? '' : product.name });
			if (tile.focus) img.style.objectPosition = tile.focus;
			way.append(img);
		} else if (!row.over) way.remove();
		// One way to a product is enough for the keyboard and for who listens.
		if (name) {
			name.textContent = product.name;
			way.tabIndex = -1;
			way.setAttribute('aria-hidden', 'true');
		}
		const price = row.price && shop.fillText?.([{ v: row.price }], product, 0, shop.spoken).replace('\0', '');
		if (price) item.querySelector('.m')!.textContent = price;
		place.style.minHeight = '';
		// What its own page would send is sent from here as well.
		if (form) {
			form.slot = place.slot;
			place.slot = '';
			place.replaceWith(form);
			form.append(place);
		}
		tellPlace(place, placement, product);
	}

	/** Stands a row at its place, or anew where the page speaks another language now; `own` is the page's product. */
	function stand(host: HTMLElement, row: Row, placement: string, own: string): void {
		const others = (tiles: readonly Tile[]) => tiles.filter(({ sku }) => sku !== own);
		const lately = others(recent?.seen() ?? []).slice(0, row.seen ?? 0);
		const tiles = lately[0] ? lately : others(row.tiles);
		const root = host.shadowRoot ?? host.attachShadow({ mode: 'open' });
		const sheet = new CSSStyleSheet();
		sheet.replaceSync(row.css);
		root.adoptedStyleSheets = [sheet];
		const look = manifest.looks[manifest.places[placement]?.looks[''] ?? -1];
		const high = look?.high ?? 0;
		const drawn = tiles.map((tile, n) =>
			draw(tile, n, row, typeof high === 'number' ? high : (high[shop.looker.device] ?? 0)),
		);
		const list = element('ul');
		list.append(...drawn.map(({ item }) => item));
		const heading = row.heading?.[shop.looker.language] ?? row.heading?.[manifest.language];
		const head = Object.assign(element('h2'), { textContent: heading });
		root.replaceChildren(...(heading ? [head] : []), list);
		host.replaceChildren(...drawn.map(({ place }) => place));
		const leave = (why: string) => {
			root.replaceChildren();
			root.adoptedStyleSheets = [];
			host.replaceChildren();
			delete host.dataset.upFilled;
			host.dataset.upKept = why;
		};
		if (!tiles[0]) return leave('nothing seen');
		delete host.dataset.upKept;
		waiting.set(host, async () => {
			const known = await Promise.all(drawn.map(({ tile }) => read(tile).catch(() => null)));
			// It has been drawn anew meanwhile.
			if (!list.isConnected) return;
			drawn.forEach((tileDrawn, n) => {
				const goods = known[n];
				if (goods) return fill(tileDrawn, goods, row, placement);
				tileDrawn.item.remove();
				tileDrawn.place.remove();
			});
			if (!list.firstChild) return leave('told');
			host.dataset.upFilled = '';
		});
		nearing.observe(host);
	}

	return { stand, remember: (sku: string) => void (shop.isSilent || recent?.remember(sku)) };
}
export type MakeRows = typeof make;

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: MakeRows }) | null;
if (own) own.up = make;
