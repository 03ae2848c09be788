import type { standBar } from './bar';
import { readBasket } from './basket';
import { indexProducts, readOrder, readProduct, readSchema, schemaText, TOLD_BY } from './page';
import type { fillText } from './live';
import type { frame } from './frame';
import type { shopperKind } from './kind';
import { shopperId, SignalBox } from './signals';
import { Stand, type Shop } from './stand';
import type { paintQuantity } from './quantity';
import type { paintSecond } from './second';
import type { dealVersions, forcedVersions } from './deal';
import type { Looker } from './resolve';
import { DESKTOP_FROM_PX, TABLET_FROM_PX } from './facts';
import type { Manifest } from './types';
import { minorUnits } from './words';

const FONT_WAIT_MS = 1200;
/** A page that takes our buttons away again and again keeps the shop's own after so many times. */
const MOST_TORN = 2000;

function isReady(): Promise<unknown> {
	const parsed =
		document.readyState === 'loading'
			? new Promise((done) => document.addEventListener('DOMContentLoaded', done, { once: true }))
			: Promise.resolve();
	const page = document as Document & { prerendering?: boolean };
	if (!page.prerendering) return parsed;
	return parsed.then(
		() => new Promise((done) => document.addEventListener('prerenderingchange', done, { once: true })),
	);
}

/** Loads the fonts that buttons use, since a font that comes late would move what stands beside them. */
function loadFonts(manifest: Manifest, rtl: boolean): Promise<unknown> {
	const loading = manifest.fonts.map(({ family, weight, range, file }) => {
		const face = new FontFace(family, `url(${manifest.edge}/fonts/${file})`, { weight, unicodeRange: range });
		document.fonts.add(face);
		// Only what the buttons' own letters need: the extended subset comes when a letter asks for it.
		return range.startsWith('U+0-') || (rtl && range.startsWith('U+600-'))
			? face.load().catch(() => undefined)
			: undefined;
	});
	return Promise.race([Promise.all(loading), new Promise((done) => setTimeout(done, FONT_WAIT_MS))]);
}

function announcer(): (text: string) => void {
	const region = document.createElement('div');
	region.style.cssText = 'position:fixed;clip-path:inset(50%)';
	region.setAttribute('role', 'status');
	document.body.append(region);
	return (text) => (region.textContent = text);
}

/** Leaves the page to the script of the draft, which the edge makes for whoever holds a token. */
function standDraft({ edge, key }: Manifest, token: string): void {
	const script = document.createElement('script');
	script.src = `${edge}/s/${key}/draft.js?token=${encodeURIComponent(token)}`;
	document.head.append(script);
}

/** Returns the language of the page as far as the buttons speak it, else the store's first. */
function languageOf({ languages, language }: Manifest): string {
	const told = document.documentElement.lang;
	const alike = Object.keys(languages).find((one) => one.split('-')[0] === told.split('-')[0]);
	return languages[told] ? told : alike || language;
}

function deviceNow(): string {
	return innerWidth < TABLET_FROM_PX ? 'phone' : innerWidth < DESKTOP_FROM_PX ? 'tablet' : 'desktop';
}

function signalOrder(shop: Shop): void {
	const { money } = shop.spoken;
	for (const { order, line, product, price, quantity, currency = money.currency } of readOrder(readSchema())) {
		// An amount that cannot be read, or in another currency than the store's, is not told; the order is.
		const value = currency === money.currency ? minorUnits(price, money.digits) : undefined;
		const told = value === undefined ? {} : { value: value * quantity, currency };
		shop.signals?.add({ kind: 'ordered', order, line, product, quantity, ...told });
	}
}

/** What only some stores need. */
export type Pieces = {
	fillText?: typeof fillText;
	standBar?: typeof standBar;
	dealVersions?: typeof dealVersions;
	forcedVersions?: typeof forcedVersions;
	paintQuantity?: typeof paintQuantity;
	paintSecond?: typeof paintSecond;
	shopperKind?: typeof shopperKind;
	frame?: typeof frame;
};

/** Stands every button of the page, now and as places come in. Nothing that fails here may hurt the shop. */
export default async function start(
	manifest: Manifest,
	{ fillText, standBar, dealVersions, forcedVersions, paintQuantity, paintSecond, shopperKind, frame }: Pieces = {},
): Promise<void> {
	try {
		const query = new URLSearchParams(location.search);
		const token = query.get('up-draft');
		if (token && !manifest.draft) {
			standDraft(manifest, token);
			return;
		}
		await isReady();
		const onlyLooking = token || query.get('up-show');
		const shopper = shopperId();
		const language = languageOf(manifest);
		const spoken = manifest.languages[language];
		if (!spoken) return;
		const looker: Looker = {
			language,
			shopper,
			device: deviceNow(),
			kind: shopperKind?.(shopper) ?? 'new',
			deal: dealVersions,
			forced: forcedVersions?.(query),
		};
		let stands: Stand[] = [];
		let data = '';
		let products = new Map<string, Record<string, unknown>>();
		const redraw = () => stands.forEach((stand) => stand.tend());
		const shop: Shop = {
			manifest,
			looker,
			spoken,
			fillText,
			paintQuantity,
			paintSecond,
			signals: onlyLooking ? null : new SignalBox(manifest.edge, manifest.key, shopper, manifest.release),
			basket: null,
			announce: announcer(),
			changed: (basket) => {
				redraw();
				document.dispatchEvent(new CustomEvent('up:basket', { detail: basket }));
			},
			read: (place, form, instead) => readProduct(place, products, form, instead),
		};
		const fonts = loadFonts(manifest, spoken.rtl);
		const refresh = () =>
			readBasket(manifest.basket).then((basket) => {
				shop.basket = basket ?? shop.basket;
				redraw();
			});
		signalOrder(shop);
		// Both are waited for, so that a button stands once and does not change its words right after.
		await Promise.all([fonts, document.querySelector('[data-up-place]') && refresh()]);
		let bar: Stand | null = null;
		const stand = (place: HTMLElement, ownHigh: number) => {
			try {
				const main = new Stand(shop, place, ownHigh);
				stands.push(main);
				// The bar follows the product of the page, and there is one of them.
				if (place.dataset.upPlace !== 'product_page' || bar || !manifest.bar) return;
				bar = standBar?.(shop, main, Stand) ?? null;
				if (bar) stands.push(bar);
			} catch {
				// The shop's own button has not been touched.
			}
		};
		// A place gets its button when it comes within a window's height of being seen, and its own height is told with
		// that: a long list costs no more than a short one, and no layout is forced to measure anything.
		const nearing = new IntersectionObserver(
			(entries) =>
				entries.forEach(({ target, isIntersecting, boundingClientRect }) => {
					if (!isIntersecting) return;
					nearing.unobserve(target);
					stand(target as HTMLElement, boundingClientRect.height);
				}),
			{ rootMargin: '100% 0px' },
		);
		const places = (which: string) => document.querySelectorAll<HTMLElement>('[data-up-place]' + which);
		let torn = 0;
		const leave = (stand: Stand) => {
			stand.leave();
			if (stand === bar) bar = null;
			if (torn++ < MOST_TORN) delete stand.place.dataset.upTried;
		};
		/** Makes ours true again wherever the page has changed, and finds the places that came. */
		const tendPage = () => {
			const now = schemaText();
			if (now !== data) {
				data = now;
				products = indexProducts(readSchema());
				// Whose product was not told before may be told now.
				places('[data-up-tried=""]:not([data-up-stands])').forEach((place) => delete place.dataset.upTried);
			}
			stands = stands.filter((stand) => stand.tend() || leave(stand));
			places(':not([data-up-tried])').forEach((place) => {
				place.dataset.upTried = '';
				nearing.observe(place);
			});
		};
		tendPage();
		// That ours has come to stand changes nothing for the others.
		const isOurs = ({ addedNodes: [node] }: MutationRecord) => (node as HTMLElement)?.dataset?.upButton === '';
		new MutationObserver((records) => records.every(isOurs) || tendPage()).observe(document.documentElement, {
			childList: true,
			subtree: true,
			characterData: true,
			attributeFilter: [...TOLD_BY, 'value'],
		});
		// What a shopper does in a form changes it without a mark in the document; the shop's own script comes first.
		for (const kind of ['change', 'click']) document.addEventListener(kind, () => setTimeout(tendPage), true);
		addEventListener('resize', () => {
			const device = deviceNow();
			if (device === looker.device) return;
			looker.device = device;
			stands.forEach((stand) => stand.turn());
		});
		frame?.(manifest, () => stands.forEach((stand) => stand.turn()));
		addEventListener('pageshow', (event) => event.persisted && void refresh());
	} catch {
		// The shop sells as it did before.
	}
}
