import type { standBar } from './bar';
import { readBasket } from './basket';
import { indexProducts, readOrder, readProduct, readSchema } from './page';
import type { frame } from './frame';
import type { shopperKind } from './kind';
import { shopperId, SignalBox } from './signals';
import { Stand, type Shop } from './stand';
import type { paintQuantity } from './quantity';
import type { paintSecond } from './second';
import type { dealVersions, forcedVersions } from './deal';
import type { Looker } from './resolve';
import type { Manifest } from './types';
import { fillText, minorUnits } from './words';

const FONT_WAIT_MS = 1200;

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
	const host = document.createElement('div');
	const region = document.createElement('div');
	host.style.cssText = 'position:fixed;clip-path:inset(50%)';
	region.setAttribute('role', 'status');
	host.attachShadow({ mode: 'open' }).append(region);
	document.body.append(host);
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
	return innerWidth < 600 ? 'phone' : innerWidth < 1024 ? 'tablet' : 'desktop';
}

function signalOrder(shop: Shop): void {
	const { digits } = shop.spoken.money;
	for (const { order, line, product, price, quantity, currency } of readOrder(readSchema())) {
		const value = minorUnits(price, digits) * quantity;
		shop.signals?.add({ kind: 'ordered', order, line, product, quantity, value, currency });
	}
}

/** What only some stores need. */
export type Pieces = {
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
	{ standBar, dealVersions, forcedVersions, paintQuantity, paintSecond, shopperKind, frame }: Pieces = {},
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
		const stands: Stand[] = [];
		const redraw = () => stands.forEach((stand) => stand.draw());
		const shop: Shop = {
			manifest,
			looker,
			spoken,
			paintQuantity,
			paintSecond,
			signals: onlyLooking ? null : new SignalBox(manifest.edge, manifest.key, shopper, manifest.release),
			basket: { count: 0, items: [] },
			announce: announcer(),
			changed: (basket) => {
				redraw();
				document.dispatchEvent(new CustomEvent('up:basket', { detail: basket }));
			},
		};
		const fonts = loadFonts(manifest, spoken.rtl);
		const refresh = () =>
			readBasket(manifest.basket)
				.then((basket) => {
					shop.basket = basket;
					redraw();
				})
				.catch(() => undefined);
		signalOrder(shop);
		// Both are waited for, so that a button stands once and does not change its words right after.
		await Promise.all([fonts, document.querySelector('[data-up-place]') ? refresh() : undefined]);
		let products = new Map<string, Record<string, unknown>>();
		let barred = false;
		const stand = (place: HTMLElement, ownHigh: number) => {
			try {
				const product = readProduct(place, products);
				if (!product) return;
				stands.push(new Stand(shop, place, product, ownHigh));
				// The bar follows the product of the page, and there is one of them.
				const main = place.dataset.upPlace === 'product_page' && !barred && manifest.bar && standBar;
				const bar = main && main(shop, place, product, { Stand, fillText });
				if (main) barred = true;
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
		const findPlaces = () => {
			const places = document.querySelectorAll<HTMLElement>('[data-up-place]:not([data-up-tried])');
			if (places.length) products = indexProducts(readSchema());
			places.forEach((place) => {
				place.dataset.upTried = '';
				nearing.observe(place);
			});
		};
		findPlaces();
		new MutationObserver(findPlaces).observe(document.body, { childList: true, subtree: true });
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
