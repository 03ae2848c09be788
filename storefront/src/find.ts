import type { Node } from './page';
import type { covers } from './resolve';
import type { Manifest, Pointed, Product } from './types';

/** A framework that takes our place out again and again keeps its page as it is. */
const MOST_TORN = 100;
const NEAR_FORM = '[type=submit],button:not([type])';
// A place takes no room until something stands in it, and what it stands instead of is not touched, only not shown.
const SHEET =
	'up-place{display:block}up-place:empty{position:absolute}' +
	'@layer{[data-up-where=instead][data-up-stands]+*{display:none!important}}';
/** By these an element takes its room among others; what stands instead of it takes the same. */
const ROOM = 'margin,flex,align-self,justify-self,grid-area,order,float,vertical-align'.split(',');

/** Where a place belongs: the shop's own button or form, and what it stands instead of. */
export type Near = { at: Element; own?: HTMLElement };

type Made = { spot: Pointed; place: HTMLElement; torn: number };

export type Finder = {
	/** Puts a place wherever one was pointed at on this page, and takes those out that are no longer there. */
	find: (kind: string, products: Map<string, Node>) => void;
	near: WeakMap<Element, Near>;
	/** Attributes by which the page tells which product lies where. */
	told: string[];
};

/** Returns what holds for an element: what is found in the smallest element around it that has it and none of the others. */
function around<T>(anchor: Element, others: Element[], look: (at: Element) => T | null | undefined): T | null {
	for (let at: Element | null = anchor; at && at !== document.documentElement; at = at.parentElement) {
		if (others.some((other) => other !== anchor && at!.contains(other))) return null;
		const found = look(at);
		if (found) return found;
	}
	return null;
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
function codeAt(spot: Pointed, anchor: Element, others: Element[], products: Map<string, Node>): string | null {
	const { attribute, link, address } = spot;
	if (attribute)
		return around(anchor, others, (at) => selves(at, `[${CSS.escape(attribute)}]`)[0]?.getAttribute(attribute));
	if (link)
		return around(anchor, others, (at) =>
			byLink(at, (path) => {
				const code = new RegExp(link).exec(path)?.[1];
				return code && decodeURIComponent(code);
			}),
		);
	if (!address) return '';
	const at = new Map<string, string>();
	for (const [code, { url }] of products)
		if (typeof url === 'string') at.set(new URL(url, location.href).pathname, code);
	return around(anchor, others, (element) => byLink(element, (path) => at.get(path)));
}

/** Finds the places that were chosen by pointing, besides those that the shop's own code marks. */
export function finder(
	manifest: Manifest,
	isCovered: typeof covers,
	read: (place: HTMLElement) => Product | null,
): Finder {
	const near: Finder['near'] = new WeakMap();
	const made = new Map<Element, Made>();
	let isDressed = false;

	function dress(): void {
		if (isDressed) return;
		isDressed = true;
		const sheet = new CSSStyleSheet();
		sheet.replaceSync(SHEET);
		document.adoptedStyleSheets.push(sheet);
	}

	/** The shop's own button or form beside a place; a form that holds the code of another product is none of its. */
	function ownOf(spot: Pointed, anchor: Element, others: Element[]): Element {
		if (spot.where === 'instead' && anchor.closest('form')) return anchor;
		const field = `[name="${CSS.escape(manifest.basket.product_field)}"]`;
		const form = around(anchor, others, (at) =>
			(selves(at, 'form') as HTMLFormElement[]).find((one) => one.querySelector(field)),
		);
		return spot.where === 'instead' && !form ? anchor : (form?.querySelector(NEAR_FORM) ?? form ?? anchor);
	}

	function put({ spot, place }: Made, anchor: Element): void {
		if (spot.where === 'after') anchor.after(place);
		else if (spot.where === 'inside') anchor.append(place);
		else anchor.before(place);
	}

	function isThere({ spot, place }: Made, anchor: Element): boolean {
		if (spot.where === 'inside') return place.parentNode === anchor;
		return (spot.where === 'after' ? place.previousElementSibling : place.nextElementSibling) === anchor;
	}

	function isMeant({ kinds, paths, not_paths: away }: Pointed, kind: string): boolean {
		if (kinds && !kinds.includes(kind)) return false;
		const { pathname } = location;
		return !(away && new RegExp(away).test(pathname)) && (!paths || new RegExp(paths).test(pathname));
	}

	function anchorsOf(spot: Pointed, kind: string): Element[] {
		if (!isMeant(spot, kind)) return [];
		try {
			return [...document.querySelectorAll(spot.selector)].filter(
				// What the shop's own code marks counts before what was pointed at.
				(anchor) => !anchor.closest('[data-up-place]:not(up-place)') && !anchor.closest('up-place'),
			);
		} catch {
			return [];
		}
	}

	function tell(spot: Pointed, place: HTMLElement, code: string): void {
		if (place.dataset.upProduct === code) return;
		if (code) place.dataset.upProduct = code;
		else delete place.dataset.upProduct;
	}

	function make(spot: Pointed, anchor: Element): Made {
		const place = document.createElement('up-place');
		place.dataset.upPlace = spot.place;
		place.dataset.upWhere = spot.where;
		if (spot.where === 'instead') {
			const style = getComputedStyle(anchor);
			for (const name of ROOM) place.style.setProperty(name, style.getPropertyValue(name));
			if (style.display.startsWith('inline')) place.style.display = 'inline-block';
		}
		return { spot, place, torn: 0 };
	}

	function find(kind: string, products: Map<string, Node>): void {
		const seen = new Set<Element>();
		for (const spot of manifest.pointed ?? []) {
			const anchors = anchorsOf(spot, kind).filter((anchor) => !seen.has(anchor));
			for (const anchor of anchors) {
				const code = codeAt(spot, anchor, anchors, products);
				if (code === null) continue;
				let one = made.get(anchor);
				if (one && one.spot !== spot) {
					one.place.remove();
					one = undefined;
				}
				if (!one) {
					dress();
					made.set(anchor, (one = make(spot, anchor)));
				}
				tell(spot, one.place, code);
				const own = spot.where === 'instead' ? (anchor as HTMLElement) : undefined;
				near.set(one.place, { at: ownOf(spot, anchor, anchors), own });
				if (spot.reach) {
					const product = read(one.place);
					const about = { products: product?.sku ?? code, categories: product?.category ?? '' };
					if (!isCovered(spot.reach, about)) continue;
				}
				seen.add(anchor);
				if (isThere(one, anchor) || one.torn > MOST_TORN) continue;
				one.torn++;
				put(one, anchor);
			}
		}
		for (const [anchor, { place }] of made)
			if (!seen.has(anchor)) {
				place.remove();
				made.delete(anchor);
			}
	}

	return { find, near, told: ['href', ...(manifest.pointed ?? []).flatMap(({ attribute }) => attribute ?? [])] };
}
