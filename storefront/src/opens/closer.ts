import type { Choices, Choosing } from './choices';
import { goodsReader, tellPlace, type Told } from '../page/goods';
import { plainNumber } from '../page/page';
import { DOUBLE_MS, tellingOf } from '../press/press';
import type { SignalOf } from '../signals/signals';
import type { Tools } from './tools';
import type { Shop, Stand } from '../base/shop';

/** A page that was read longer ago than this is read anew: its stock may be another by now. */
const FRESH_MS = 60_000;
const ADDED_MS = 1600;
/** As `Node.DOCUMENT_POSITION_FOLLOWING` is defined (DOM, 4.4). */
const FOLLOWS = 4;
const SHEET =
	'.v{display:flex;gap:8px;overflow-x:auto;scroll-snap-type:x mandatory}.v img{flex:none;width:100%;max-height:46dvh;' +
	'object-fit:contain;scroll-snap-align:center}.p{font-variant-numeric:tabular-nums}.p s{opacity:.7;margin-inline-start:.5em}' +
	'fieldset{display:flex;flex-wrap:wrap;gap:8px}legend{margin-bottom:.4em}fieldset label{display:flex;gap:.4em;' +
	'align-items:center;border:1px solid;padding:.4em .7em;cursor:pointer;min-height:24px}' +
	'label:has(:checked){outline:2px solid;outline-offset:-2px}.gone{text-decoration:line-through}' +
	'.d{white-space:pre-line}nav{display:flex;justify-content:space-between;gap:1em;margin-top:auto}';

/** Opens a product on a sheet: to choose what a list leaves open, or to look at it more closely. */
function make(
	shop: Shop,
	tools: Tools,
	{ choose, kindsOf, pictureOf }: Choices,
	stands: ReadonlySet<Stand>,
	signal: SignalOf,
) {
	const { manifest } = shop;
	const { element, hearOn, key, openSheet } = tools;
	let { read } = goodsReader(shop);
	let since = 0;
	const kept = new Map<string, Promise<Told | null>>();

	/** Returns a product as its own page tells it now; asked for before it is needed. */
	function tellOf({ product }: Stand): Promise<Told | null> {
		if (performance.now() - since > FRESH_MS) {
			({ read } = goodsReader(shop));
			kept.clear();
			since = performance.now();
		}
		const { sku, url } = product!;
		const { origin, pathname, search } = new URL(url, location.href);
		// Only this shop's own pages are asked.
		if (!url || origin !== location.origin) return Promise.resolve(null);
		let known = kept.get(sku);
		if (!known) {
			const kinds = product!.needsChoice && kindsOf(manifest.basket, sku, shop.spoken).catch(() => undefined);
			known = Promise.all([read({ sku, path: pathname + search }), kinds])
				.then(([goods, kinds]) => goods && { ...goods, ...(kinds && { kinds }) })
				.catch(() => null);
			kept.set(sku, known);
		}
		return known;
	}

	/** Fetches what will be opened while a pointer, a finger or the focus rests on what opens it. */
	const rested = new WeakSet<Element>();
	function prepare(stand: Stand): void {
		const { host } = stand;
		if (rested.has(host)) return;
		rested.add(host);
		for (const kind of ['pointerover', 'touchstart', 'focusin'])
			host.addEventListener(kind, () => void (stand.is === 'ours' && tellOf(stand)), { passive: true });
	}

	async function open(stand: Stand, isCloser: boolean): Promise<void> {
		const before = stand.pressedAt;
		stand.pressedAt = performance.now();
		if (stand.pressedAt - before < DOUBLE_MS) return;
		// A look is no press of what buys.
		if (!isCloser) signal('clicked', tellingOf(stand, shop));
		const { closer } = stand.standing!.made;
		const words = closer!.words![shop.looker.language] ?? closer!.words![manifest.language]!;
		const first = await tellOf(stand);
		const drawn = first && draw(stand, first, words, isCloser, go);
		// Where nobody can tell here what there is to choose, its page does.
		if (!drawn || !(isCloser || drawn.isOpen)) return location.assign(stand.product!.url);
		const { host, root, dialog, body } = openSheet(shop, stand, words, isCloser ? 'middle' : closer!.choose!);
		const sheet = new CSSStyleSheet();
		sheet.replaceSync(SHEET);
		root.adoptedStyleSheets.push(sheet);
		dialog.setAttribute('aria-labelledby', 'h');
		hearOn(shop, dialog);
		function fill({ form, parts, focus }: NonNullable<typeof drawn>): void {
			host.replaceChildren(form);
			body.replaceChildren(...parts);
			focus.focus();
		}
		/** Goes to the product before or after, in the order of the page. */
		async function go(from: Stand, way: number): Promise<void> {
			const next = beside(from, way);
			const goods = next && (await tellOf(next));
			if (goods && host.isConnected) fill(draw(next, goods, words, isCloser, go));
			else if (next && !goods) location.assign(next.product!.url);
		}
		fill(drawn);
		if (isCloser) return;
		// What was chosen is added: there is nothing more to do here.
		const added = () => setTimeout(() => host.isConnected && dialog.close(), ADDED_MS);
		document.addEventListener('up:basket', added, { once: true });
		dialog.addEventListener('close', () => document.removeEventListener('up:basket', added));
	}

	/** Returns the button of the same placement before or after one, in the order of the page. */
	function beside(from: Stand, way: number): Stand | undefined {
		const isBeside = ({ is, place, product }: Stand) =>
			is === 'ours' && product?.url && place.dataset.upPlace === from.name() && !place.closest('[data-up-sheet]');
		const row = [...stands]
			.filter(isBeside)
			.sort((a, b) => (a.place.compareDocumentPosition(b.place) & FOLLOWS ? -1 : 1));
		return row[row.indexOf(from) + way];
	}

	function draw(
		stand: Stand,
		goods: Told,
		[gone = '', toPage = '', before = '', after = '']: readonly string[],
		isCloser: boolean,
		go: (from: Stand, way: number) => unknown,
	) {
		const { product } = goods;
		const head = Object.assign(element('h2', '', product.name), { id: 'h', tabIndex: -1 });
		const price = element('p', 'p');
		const place = element('div');
		const form = (goods.form?.cloneNode(true) ?? element('form')) as HTMLFormElement;
		// The theme's rules for forms and boxes are meant for its own page.
		form.style.cssText = 'all:unset!important;display:block!important';
		for (const name of ['margin', 'padding', 'border']) place.style.setProperty(name, '0', 'important');
		form.onsubmit = (event) => event.preventDefault();
		const { node, groups, now, picture }: Choosing = choose(goods, form, manifest.basket, gone, tools, tell);
		const hrefOf = (image: unknown) => new URL(pictureOf(image), location.href).href;
		const pictures = ([node?.image ?? goods.picture].flat() as unknown[])
			.filter(pictureOf)
			.map((image) => Object.assign(element('img'), { src: hrefOf(image), alt: '' }));
		const show = element('div', 'v');
		show.append(...pictures);
		const first = pictures[0]?.src;
		const money = (amount = '') =>
			plainNumber(amount) &&
			shop.fillText?.([{ v: 'price' }], { ...product, price: amount }, 0, shop.spoken).replace('\0', '');

		/** Says what is chosen at the place, by which its button stands: its price, and whether it can be bought at all. */
		function tell(): void {
			const is = now();
			for (const name of ['price', 'was', 'net', 'availability']) place.removeAttribute(`data-up-${name}`);
			tellPlace(place, stand.name(), is);
			if (first) pictures[0]!.src = picture() ? hrefOf(picture()) : first;
			const was = money(is.was);
			price.replaceChildren(money(is.price) ?? '', ...(was ? [element('s', '', was)] : []));
		}
		tell();
		form.append(place);
		const about = element('p', 'd', String(node?.description ?? '').slice(0, 600));
		const ways = element('nav');
		for (const [text, way] of [
			[before, -1],
			[after, 1],
		] as const)
			if (beside(stand, way)) ways.append(key('l', text, () => go(stand, way)));
		const link = Object.assign(element('a', '', toPage), { href: product.url });
		const next = isCloser && beside(stand, 1);
		if (next) void tellOf(next);
		return {
			form,
			isOpen: !!groups[0],
			parts: isCloser
				? [show, head, price, about, ...groups, element('slot'), link, ways]
				: [head, price, ...groups, element('slot'), link],
			focus: (!isCloser && groups[0]?.querySelector('input')) || head,
		};
	}

	return { open, prepare };
}
export type MakeCloser = typeof make;

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: MakeCloser }) | null;
if (own) own.up = make;
