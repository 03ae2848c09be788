import { isMeant } from './on_page';
import { kindOf, ownCode, pathOf } from '../page/page';
import { covers } from '../button/rules';
import type { Finder, Products, Shop, UseLater } from '../base/shop';
import type { Pointed, Row } from '../base/types';

/** A framework that takes our place out again and again keeps its page as it is. */
const MOST_TORN = 100;
const NEAR_FORM = '[type=submit],button:not([type])';
// A place takes no room until something stands in it, and what it stands instead of is not touched, only not shown.
const SHEET =
	'up-place{display:block}up-place:empty,up-place[data-up-place=over_picture]{position:absolute}' +
	'up-place[data-up-waits]:empty{display:none!important}' +
	'@layer{[data-up-where=instead][data-up-stands]+*{display:none!important}}';
/** After so many changes in a row that moved no place, a page that never rests is asked no more often than so. */
const MOST_FRUITLESS = 10;
const PAUSE_MS = 100;
/** By these an element takes its room among others; what stands instead of it takes the same. */
const ROOM = 'margin,flex,align-self,justify-self,grid-area,order,float,vertical-align'.split(',');

type Made = { spot: Pointed; place: HTMLElement; torn: number };

/** How many of some elements lie in each element around them. */
type Holds = Map<Element, number>;

function holdsOf(anchors: Element[]): Holds {
	const holds: Holds = new Map();
	for (const anchor of anchors)
		for (let at: Element | null = anchor; at; at = at.parentElement) holds.set(at, (holds.get(at) ?? 0) + 1);
	return holds;
}

/**
 * Returns what is found in the smallest element around a place that has it, and none of the other places. What lies
 * anywhere in the page's main part belongs to no one place.
 */
function around<T>(
	anchor: Element,
	holds: Holds,
	look: (at: Element) => T | null | undefined,
	until = 'main,body',
): T | null {
	for (let at: Element | null = anchor; at && holds.get(at) === 1 && !at.matches(until); at = at.parentElement) {
		const element = look(at);
		if (element) return element;
	}
	return null;
}

/** What a page holds may be written in any way; what cannot be read is not there. */
function tryTo<T>(work: () => T): T | undefined {
	try {
		return work();
	} catch {
		return undefined;
	}
}

const selves = (at: Element, selector: string) => [
	...(at.matches(selector) ? [at] : []),
	...at.querySelectorAll(selector),
];

function byLink(at: Element, look: (path: string) => string | undefined): string | undefined {
	for (const link of selves(at, 'a[href]') as HTMLAnchorElement[]) {
		const code = look(link.pathname);
		if (code) return code;
	}
	return undefined;
}

/** Returns the code of the product at an element as the release says that it is told; empty where the page itself tells. */
function codeAt(spot: Pointed, anchor: Element, holds: Holds, byAddress: Map<string, string>): string | null {
	const { attribute, link, address } = spot;
	if (attribute)
		return around(anchor, holds, (at) => selves(at, `[${CSS.escape(attribute)}]`)[0]?.getAttribute(attribute));
	if (link)
		return around(anchor, holds, (at) =>
			byLink(at, (path) => {
				const code = new RegExp(link).exec(path)?.[1];
				return code && tryTo(() => decodeURIComponent(code));
			}),
		);
	return address ? around(anchor, holds, (at) => byLink(at, (path) => byAddress.get(path))) : '';
}

/** Finds the places that were chosen by pointing, besides those that the shop's own code marks. */
export function finder(shop: Shop, later: UseLater): Finder {
	const { manifest, read } = shop;
	const near: Finder['near'] = new WeakMap();
	const made = new Map<Element, Made>();
	const rowSays = new WeakMap<Element, string>();
	/** What belongs to one place alone, and what the selectors found when places were last looked for. */
	let cards = new WeakSet<Element>();
	let lists: Element[][] = [];
	/** The page's address and what it says that is, by which it is about one product, several or none. */
	let here = '';
	const hereNow = () => location.href + document.querySelector<HTMLLinkElement>('link[rel=canonical]')?.href;
	/** Codes by the paths of their pages, for as long as the page tells the same. */
	let byAddress = new Map<string, string>();
	let addressesOf: Products | undefined;
	let remembered = '';
	let fruitless = 0;
	let pause: unknown;
	let isDressed = false;

	function dress(): void {
		if (isDressed) return;
		isDressed = true;
		const sheet = new CSSStyleSheet();
		sheet.replaceSync(SHEET);
		document.adoptedStyleSheets.push(sheet);
	}

	/** Returns the form beside a place that holds a product's code. */
	function formAt(anchor: Element, holds: Holds): HTMLFormElement | null {
		const field = `[name="${CSS.escape(manifest.basket.product_field)}"]`;
		return around(
			anchor,
			holds,
			(at) => (selves(at, 'form') as HTMLFormElement[]).find((form) => form.querySelector(field)),
			'html',
		);
	}

	/** A row within a form would send that one's product: it stands after it. */
	const isAfter = (spot: Pointed, anchor: Element) =>
		spot.where === 'after' || (spot.row && anchor.tagName === 'FORM' && spot.where === 'inside');

	function put({ spot, place }: Made, anchor: Element): void {
		if (isAfter(spot, anchor)) anchor.after(place);
		else if (spot.where === 'inside') anchor.append(place);
		else anchor.before(place);
	}

	function isThere({ spot, place }: Made, anchor: Element): boolean {
		if (isAfter(spot, anchor)) return place.previousElementSibling === anchor;
		if (spot.where === 'inside') return place.parentNode === anchor;
		return place.nextElementSibling === anchor;
	}

	/** Returns what a selector finds now; one that a browser cannot read finds nothing. */
	const select = ({ selector }: Pointed): Element[] => tryTo(() => [...document.querySelectorAll(selector)]) ?? [];

	function anchorsOf(spot: Pointed, kind: string): Element[] {
		if (!isMeant(spot, kind)) return [];
		// What the shop's own code marks counts before what was pointed at.
		return select(spot).filter((anchor) => !anchor.closest('[data-up-place]:not(up-place),up-place'));
	}

	function isTouched(changed: Set<Element>): boolean {
		if (!changed.size) return false;
		for (const element of changed)
			for (let at: Element | null = element; at; at = at.parentElement) if (cards.has(at)) return true;
		if (fruitless < MOST_FRUITLESS) return isOther();
		pause ??= setTimeout(() => {
			pause = undefined;
			if (isOther()) shop.places!.look();
		}, PAUSE_MS);
		return false;
	}

	/** Tells whether places would be found elsewhere now than where they are. */
	function isOther(): boolean {
		const isSame =
			here === hereNow() &&
			[...made].every(([anchor, mark]) => isThere(mark, anchor)) &&
			(manifest.pointed ?? []).map(select).every((now, n) => {
				const before = lists[n]!;
				return now.length === before.length && now.every((at, k) => at === before[k]);
			});
		fruitless = isSame ? fruitless + 1 : 0;
		return !isSame;
	}

	function tell(place: HTMLElement, code: string): void {
		if (place.dataset.upProduct === code) return;
		if (code) place.dataset.upProduct = code;
		else delete place.dataset.upProduct;
	}

	function make(spot: Pointed, anchor: Element): Made {
		const place = document.createElement('up-place');
		// A row is no place itself: its tiles have them.
		place.dataset[spot.row ? 'upRow' : 'upPlace'] = spot.place;
		place.dataset.upWhere = spot.where;
		if (spot.where === 'instead') {
			const style = getComputedStyle(anchor);
			for (const name of ROOM) place.style.setProperty(name, style.getPropertyValue(name));
			if (style.display.startsWith('inline')) place.style.display = 'inline-block';
		}
		return { spot, place, torn: 0 };
	}

	/** What a row says depends on the page's language and on whether the browser may remember. */
	function standRow(place: HTMLElement, spot: Pointed, row: Row, ownSku: string): void {
		const { lang, dataset } = document.documentElement;
		const saysIn = `${lang} ${dataset.upConsent} ${ownSku}`;
		if (rowSays.get(place) === saysIn) return;
		rowSays.set(place, saysIn);
		later((tools) => tools.rows((rows) => rows.stand(place, row, spot.place, ownSku)));
	}

	/**
	 * Lets places in which nothing stands yet be seen by what they were pointed at: a place that takes no room is laid out
	 * anew at every change of the page. What has no box itself, as where the shop hides its own, is seen by its place.
	 */
	function hideWaiting(): void {
		const waiting = [...made].filter(([, { spot, place }]) => !spot.row && !place.firstChild);
		const haveBoxes = waiting.map(([anchor]) => anchor.checkVisibility?.());
		waiting.forEach(([anchor, { spot, place }], n) => {
			const isHidden = !!haveBoxes[n] && spot.place !== 'over_picture';
			place.toggleAttribute('data-up-waits', isHidden);
			near.get(place)!.seenBy = isHidden ? anchor : place;
		});
	}

	function find(products: Products): void {
		const seen = new Set<Element>();
		if (products !== addressesOf) {
			addressesOf = products;
			// Of two at one address the one that the page describes first counts.
			byAddress = new Map([...products.by].map(([code, { url }]) => [pathOf(url), code]));
		}
		here = hereNow();
		cards = new WeakSet();
		lists = (manifest.pointed ?? []).map(select);
		const ownSku = ownCode(products);
		const kind = kindOf(products, ownSku);
		for (const spot of manifest.pointed ?? []) {
			let anchors = anchorsOf(spot, kind).filter((anchor) => !seen.has(anchor));
			if (spot.row) anchors = anchors.slice(0, 1).map((anchor) => anchor.closest('form') ?? anchor);
			const holds = holdsOf(anchors);
			for (const [at, count] of holds) if (count === 1) cards.add(at);
			for (const anchor of anchors) {
				const code = spot.row ? '' : codeAt(spot, anchor, holds, byAddress);
				const form = spot.row ? null : formAt(anchor, holds);
				// The page's own product is that of one place; of several nobody could tell whose it is.
				if (code === null || (!code && !form && anchors.length > 1)) continue;
				let mark = made.get(anchor);
				// A draft tells the same place anew with every edit.
				if (mark && mark.spot !== spot && JSON.stringify(mark.spot) !== JSON.stringify(spot)) {
					mark.place.remove();
					mark = undefined;
				}
				if (!mark) {
					dress();
					made.set(anchor, (mark = make(spot, anchor)));
				}
				// Where the page tells of several it is about one of them; a form holds its own.
				tell(mark.place, code || (form || spot.row ? '' : ownSku));
				const own = spot.where === 'instead' ? (anchor as HTMLElement) : undefined;
				const at = own?.closest('form') ? own : (form?.querySelector(NEAR_FORM) ?? form ?? anchor);
				near.set(mark.place, { at, own });
				if (spot.reach) {
					const product = read(mark.place);
					const about = { products: product?.sku ?? code, categories: product?.category ?? '' };
					if (!covers(spot.reach, about)) continue;
				}
				seen.add(anchor);
				if (spot.row) standRow(mark.place, spot, spot.row, ownSku);
				if (isThere(mark, anchor) || mark.torn > MOST_TORN) continue;
				mark.torn++;
				put(mark, anchor);
			}
		}
		if (ownSku && ownSku !== remembered && manifest.pointed?.some(({ row }) => row?.seen)) {
			remembered = ownSku;
			later((tools) => tools.rows((rows) => rows.remember(ownSku)));
		}
		for (const [anchor, { place }] of made)
			if (!seen.has(anchor)) {
				place.remove();
				made.delete(anchor);
			}
		hideWaiting();
	}

	// Another width may hide what a place is seen by, or show it.
	let resizing: ReturnType<typeof setTimeout> | undefined;
	addEventListener('resize', () => {
		clearTimeout(resizing);
		resizing = setTimeout(() => shop.places!.look(), PAUSE_MS);
	});

	return {
		find,
		isTouched,
		near,
		told: ['href', ...(manifest.pointed ?? []).flatMap(({ attribute }) => attribute ?? [])],
	};
}
