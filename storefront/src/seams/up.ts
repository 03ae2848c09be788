import type { readBasket } from '../basket/first';
import type { loadFonts } from '../button/fonts';
import type { fillText, readAmounts } from '../button/live';
import type { finder } from '../places/find';
import type { frame } from '../studio/frame';
import type { shopperKind } from '../signals/kind';
import type { drawIcon } from '../button/icon';
import type { Begin } from './later';
import { Places } from '../places/places';
import { consent, hasKept } from '../signals/ids';
import type { shopperId } from '../signals/shopper';
import type { Later, Load, Looker, Reads, Shop, UseLater } from '../base/shop';
import type { paintQuantity } from '../button/quantity';
import type { paintSecond } from '../button/second';
import type { dealVersions, forcedVersions } from '../button/deal';
import type { covering } from '../button/rules';
import { wait } from '../base/wait';
import { DESKTOP_FROM_PX, TABLET_FROM_PX } from '../base/facts';
import type { Manifest } from '../base/types';

/** So long buttons wait for the count that they may say; a slower basket is told to buttons that stand. */
const BASKET_WAIT_MS = 250;
/** A file that could not be loaded is asked for again after so long, each time after twice as long. */
const AGAIN_MS = 2000;
/** The root of a page that has a line of ours: under no name that a page could meet, and gone with the root. */
type Root = HTMLElement & { [line: symbol]: string | undefined };
// Whatever else lies in a place is hidden, also what the page puts there later. A layer goes before every rule of the
// theme among those that are important, and no element of the shop's is touched.
const HIDES = '@layer{[data-up-stands]>:not([data-up-button],[data-up-note]){display:none!important}}';

/** Waits for an event of the document, as long as it is still to come. */
function once(event: string, isToCome: unknown): unknown {
	return isToCome && new Promise((done) => document.addEventListener(event, done));
}

/**
 * Claims the page for this line. A page has one: a second one, as from a theme and a tag manager, would write and hear the
 * same attributes for ever.
 */
function claim({ key, draft }: Manifest): boolean {
	const root = document.documentElement as Root;
	const mark = Symbol.for(draft ? 'up.draft' : 'up.line');
	const first = root[mark];
	if (first && first !== key) console.warn(`Up Tick: ${first} came first`);
	root[mark] ??= key;
	return !first;
}

type Policy = { createScriptURL: (url: string) => string };
let policy: Policy | undefined;
/** Returns an address as a page takes it that asks for trusted types (W3C Trusted Types, 2.3); a page may forbid us that. */
function trusted(url: string): string {
	try {
		const { trustedTypes } = window as { trustedTypes?: { createPolicy: (name: string, rules: Policy) => Policy } };
		policy ??= trustedTypes?.createPolicy('up-tick', { createScriptURL: (url) => url });
	} catch {
		// Where such types are not asked for the bare address serves.
	}
	return policy?.createScriptURL(url) ?? url;
}

function addScript<T>(url: string, more?: Partial<HTMLScriptElement>): HTMLScriptElement & { up?: T } {
	const src = trusted(url);
	const script = Object.assign(document.createElement('script'), more, { src });
	document.head.append(script);
	return script;
}

/** Loads more of the script, which hands itself over on its own element: no page needs it before its buttons stand. */
function loadFile<T>(edge: string, { file, integrity }: Manifest['later'], nonce = ''): Promise<T> {
	return new Promise((done, fail) => {
		const script = addScript<T>(`${edge}/later/${file}`, {
			crossOrigin: '',
			integrity,
			nonce,
			onload: () => (script.up ? done(script.up) : fail()),
			onerror: fail,
		});
	});
}

/** Returns the language of the page as far as the buttons speak it, else the store's first. */
function languageOf({ languages, language }: Manifest): string {
	// Pages write it in any case, and some with the underscore of a locale's name.
	const pageTag = document.documentElement.lang.toLowerCase().replace('_', '-');
	const known = Object.keys(languages);
	const speaks = (of: (tag: string) => string) => known.find((tag) => of(tag.toLowerCase()) === of(pageTag));
	return speaks((tag) => tag) || speaks((tag) => tag.split('-')[0]!) || language;
}

/** Returns the device by the window's width; `innerWidth` would lay the whole page out to tell it. */
function deviceNow(): string {
	const isFrom = (px: number) => matchMedia(`(min-width:${px}px)`).matches;
	return isFrom(DESKTOP_FROM_PX) ? 'desktop' : isFrom(TABLET_FROM_PX) ? 'tablet' : 'phone';
}

/** What only some stores need. */
export type Pieces = {
	fillText?: typeof fillText;
	readAmounts?: typeof readAmounts;
	dealVersions?: typeof dealVersions;
	forcedVersions?: typeof forcedVersions;
	drawIcon?: typeof drawIcon;
	paintQuantity?: typeof paintQuantity;
	paintSecond?: typeof paintSecond;
	loadFonts?: typeof loadFonts;
	readBasket?: typeof readBasket;
	shopperId?: typeof shopperId;
	shopperKind?: typeof shopperKind;
	covering?: typeof covering;
	reads?: Reads;
	options?: Shop['options'];
	frame?: typeof frame;
	findPlaces?: typeof finder;
};

/** Stands every button of the page, now and as places come in. Nothing that fails here may hurt the shop. */
export default async function start(manifest: Manifest, pieces: Pieces = {}): Promise<void> {
	try {
		if (!claim(manifest)) return;
		const { nonce } = document.currentScript ?? {};
		const query = new URLSearchParams(location.search);
		const token = query.get('up-draft');
		if (token && !manifest.draft) {
			// The edge makes the script of the draft for whoever holds a token.
			addScript(`${manifest.edge}/s/${manifest.key}/draft.js?token=${encodeURIComponent(token)}`, { nonce });
			return;
		}
		await once('DOMContentLoaded', document.readyState === 'loading');
		await once('prerenderingchange', (document as { prerendering?: boolean }).prerendering);
		const { shopperKind, reads } = pieces;
		const onlyLooking = token || query.get('up-show');
		/** Who looks, as the page tells it now. */
		const told = () => {
			const language = languageOf(manifest);
			// A shopper’s no counts on every page, also where nothing depends on who looks.
			consent();
			const shopper = (!onlyLooking && pieces.shopperId?.()) || '';
			return { language, shopper, device: deviceNow(), kind: shopperKind?.(shopper) ?? 'new' };
		};
		const looker: Looker = {
			...told(),
			covering: pieces.covering,
			deal: pieces.dealVersions,
			forced: pieces.forcedVersions?.(query),
		};
		const spoken = manifest.languages[looker.language];
		if (!spoken) return;
		const shop: Shop = {
			...pieces,
			manifest,
			looker,
			spoken,
			isSilent: onlyLooking,
			basket: null,
			read: (...of) => places.read(...of),
			press: (stand, after) =>
				later(
					(tools) => tools.press(stand, after),
					// Nothing was sent: the shop's own button takes over.
					() => stand.giveUp(),
				),
			watch: (stand) => later((tools) => tools.watch(stand)),
		};
		let begun: Promise<Later> | undefined;
		const load: Load = (file) => loadFile(manifest.edge, file!, nonce);
		let tries = 0;
		const lame = (is: boolean) => {
			shop.isLame = is;
			places.tend();
		};
		/** Loads what presses mean. Where that fails the shop's own buttons stand, and it is asked for again. */
		const begin = (): Promise<Later> =>
			(begun ??= load<Begin>(manifest.later)
				.then((begin) => {
					const tools = begin(shop, load);
					// Where nothing depends on who looks it is asked no earlier.
					pieces.shopperId ??= tools.shopperId;
					turned();
					if (shop.isLame) lame(false);
					return tools;
				})
				.catch((error: unknown) => {
					lame(true);
					begun = undefined;
					setTimeout(() => void begin().catch(() => undefined), AGAIN_MS << tries++);
					throw error;
				}));
		const later: UseLater = (then, fails = () => undefined) =>
			shop.isLame ? fails() : void begin().then(then).catch(fails);
		const refresh = async () => {
			const before = shop.basket;
			const basket = await pieces.readBasket?.(manifest.basket, reads);
			// What a press was answered meanwhile is younger.
			if (shop.basket === before) shop.basket = basket ?? before;
			places.tend();
		};
		/** Tells whether somebody else looks now, or in another language, or on another device. */
		const turned = () => {
			const now = told();
			const before = JSON.stringify(looker);
			const isOther = JSON.stringify(Object.assign(looker, now)) !== before;
			shop.spoken = manifest.languages[looker.language] ?? spoken;
			return isOther;
		};
		let getting: unknown;
		const places = new Places({
			shop,
			turned,
			later,
			// A page without a place gets nothing of ours: no font, no region, no question about its basket.
			ready: () => {
				if (!getting) {
					const sheet = new CSSStyleSheet();
					sheet.replaceSync(HIDES + manifest.css);
					document.adoptedStyleSheets.push(sheet);
					getting = Promise.all([
						pieces.loadFonts?.(manifest, shop.spoken.rtl),
						Promise.race([refresh(), wait(BASKET_WAIT_MS)]),
					]);
				}
				return getting;
			},
		});
		shop.places = places;
		shop.finder = pieces.findPlaces?.(shop, later);
		places.start();
		if (manifest.soon) later(() => undefined);
		// What an earlier page could not send goes on, also from a page without a button.
		setTimeout(() => hasKept(manifest.key) && later(() => undefined), BASKET_WAIT_MS);
		addEventListener('resize', () => turned() && places.tend(true));
		pieces.frame?.(shop, () => places.tend(true));
	} catch {
		// The shop sells as it did before.
	}
}
