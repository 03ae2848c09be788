import type { Hanging, Products, Shop, UseLater } from '../base/shop';
import { hold, indexProducts, isA, isInData, LD, readProduct, readSchema, TELLS } from '../page/page';
import { Stand } from '../button/stand';

// What hangs at the window stands after the body, and is no place of the page's.
const PLACE = '[data-up-place]';
const PLACES = `body ${PLACE}`;
/** The attributes by which a place tells of its product. */
const TOLD_BY = 'place product code name category price net was left availability currency url choice set'
	.split(' ')
	.map((name) => TELLS + name);
/** So long work goes on before the page may do its own. */
const SLICE_MS = 8;
/** So often what waits is asked whether it comes near (Intersection Observer, "delay"); others ask at every frame. */
const DELAY_MS = 100;
const ROOT_TELLS = ['lang', 'data-up-consent', 'data-up-shopper'];

export type Following = {
	shop: Shop;
	/** Uses what a page needs only after its buttons stand, once that is loaded. */
	later: UseLater;
	/** Called before the first button stands: what it needs to stand once and as it stays. */
	ready: () => unknown;
	/** Called when the page's root has changed; tells whether that changes who looks, or in which language. */
	turned: () => boolean;
};

/**
 * Follows every place of the page: those that come, go, are used again or change what they tell. There is one observer of
 * each kind for the whole page, and a change is looked at only where it is.
 */
export class Places {
	readonly #of: Following;
	readonly #all = new Map<Element, Stand>();
	readonly #near = new Set<Stand>();
	/** What tells that a place comes near: itself, or what it was pointed at. */
	readonly #seenBy = new Map<Stand, Element>();
	readonly #seen = new WeakMap<Element, Stand>();
	#hung: Hanging['follow'] | null = null;
	#waiting: Stand[] | null = null;
	products: Products = { by: new Map() };
	readonly #nearing: IntersectionObserver;
	readonly #changes = new MutationObserver((records) => this.#hear(records));

	constructor(of: Following) {
		this.#of = of;
		// A place gets its button when it comes within a window's height of being seen: a long list costs no more than a
		// short one. In a draft all stand at once, since the studio measures where; in its frames, of another origin, margins need a root.
		const far = of.shop.manifest.draft ? '9999%' : '100%';
		// Where many wait, asking at every frame costs each of them; a window's height gives time.
		const margins = { rootMargin: `${far} 0px`, scrollMargin: `0px ${far}` };
		const how = { root: document, ...margins, delay: DELAY_MS } as IntersectionObserverInit;
		this.#nearing = new IntersectionObserver((entries) => {
			const come = entries.flatMap(({ isIntersecting, target }) =>
				isIntersecting ? (this.#seen.get(target) ?? []) : [],
			);
			// Now the page is laid out, and measuring costs nothing.
			come.forEach((stand) => stand.measure());
			// What it takes to stand is no part of the frame that is being drawn.
			if (come[0]) setTimeout(() => void this.#come(come));
		}, how);
	}

	start(): void {
		this.#readPage();
		this.#find();
		this.#listen();
		// What a shopper does in a form changes it without a mark in the document; the shop's own script comes first.
		let asked: unknown;
		const soon = () => (asked ||= setTimeout(() => ((asked = 0), this.tend())));
		for (const kind of ['change', 'click']) document.addEventListener(kind, soon, true);
	}

	#listen(): void {
		this.#changes.observe(document.documentElement, {
			childList: true,
			subtree: true,
			characterData: true,
			attributeFilter: [...TOLD_BY, ...ROOT_TELLS, ...(this.#of.shop.finder?.told ?? []), 'data-up-stands', 'value'],
		});
	}

	/** Writes into the page without hearing of it. */
	#write(work: () => void): void {
		const before = this.#changes.takeRecords();
		this.#changes.disconnect();
		work();
		this.#listen();
		if (before[0]) this.#hear(before);
	}

	read(place: HTMLElement, form?: string, instead?: string, of?: Document) {
		const products = of ? indexProducts(readSchema(of)) : this.products;
		return readProduct(place, products, form, instead, this.#of.shop.readAmounts);
	}

	/** Makes every button true; with `anew`, who looks or by what has changed. */
	tend(anew = false): void {
		this.#write(() => {
			if (anew) this.#find();
			this.#near.forEach((stand) => stand.tend(anew));
			this.#tendHung(anew);
		});
	}

	/** Looks for places again, and for what hangs. */
	look(): void {
		this.#write(() => {
			this.#find();
			this.#tendHung();
		});
	}

	#readPage(): void {
		const schema = readSchema(document);
		this.products = indexProducts(schema);
		// Orders are told on few pages, and not always with a load of its own.
		if (!schema.some((node) => isA(node, /\bOrder$/))) return;
		this.#of.later((tools) => tools.tellOrders());
	}

	#find(): void {
		this.#of.shop.finder?.find(this.products);
		for (const [place, stand] of this.#all)
			if (!place.isConnected || !place.matches(PLACES)) {
				stand.leave('gone');
				this.#all.delete(place);
				this.#near.delete(stand);
				this.#await(stand);
			}
		for (const place of document.querySelectorAll<HTMLElement>(PLACES)) {
			let stand = this.#all.get(place);
			if (!stand) this.#all.set(place, (stand = new Stand(this.#of.shop, place)));
			if (!this.#near.has(stand)) this.#await(stand, this.#of.shop.finder?.near.get(place)?.seenBy ?? place);
		}
	}

	/** Waits until a place comes near, seen by an element; without one it waits no more. */
	#await(stand: Stand, by?: Element): void {
		const before = this.#seenBy.get(stand);
		if (before === by) return;
		if (before) this.#nearing.unobserve(before);
		this.#seenBy.delete(stand);
		if (!by) return;
		this.#seenBy.set(stand, by);
		this.#seen.set(by, stand);
		this.#nearing.observe(by);
	}

	/** Stands those that have come near, a slice at a time, so that the page stays quick while many come at once. */
	async #come(come: Stand[]): Promise<void> {
		this.#waiting?.push(...come);
		if (this.#waiting) return;
		this.#waiting = come;
		await this.#of.ready();
		while (this.#waiting.length) {
			this.#write(() => this.#slice(this.#waiting!));
			if (this.#waiting.length) await new Promise((done) => setTimeout(done));
		}
		this.#waiting = null;
		this.#write(() => this.#tendHung());
	}

	#slice(waiting: Stand[]): void {
		const until = performance.now() + SLICE_MS;
		for (let stand = waiting.shift(); stand; stand = performance.now() < until ? waiting.shift() : undefined) {
			if (!this.#all.has(stand.place)) continue;
			this.#near.add(stand);
			stand.tend();
			// It need not be told again that it is near: every place that is followed costs each frame that moves something.
			if (stand.is === 'ours') this.#await(stand);
		}
	}

	/** What hangs follows the product of the page, and there is one of each. */
	#tendHung(anew = false): void {
		const main = [...this.#near].find(({ is, place }) => is === 'ours' && place.dataset.upPlace === 'product_page');
		if (this.#hung) this.#hung(main, anew);
		// It is 2 where something hangs on pages without a button as well; releases of before have `true` for 1.
		else if (this.#of.shop.manifest.bar! > +!main)
			this.#of.later(async (tools) => {
				this.#hung = await tools.hang(Stand, this.#of.ready);
				this.tend();
			});
	}

	#hear(records: MutationRecord[]): void {
		let data = false;
		/** Some place may have come or gone. */
		let isTouched = false;
		const elements = new Set<Element>();
		const changed = new Set<Element | null>();
		for (const { target, addedNodes, removedNodes, attributeName } of records) {
			if (attributeName && target === document.documentElement) {
				if (this.#of.turned()) this.tend(true);
				continue;
			}
			const nodes = [...addedNodes, ...removedNodes];
			const element = target instanceof Element ? target : target.parentElement;
			data ||= isInData(element) || hold(nodes, LD);
			isTouched ||= !!attributeName?.startsWith(TELLS) || hold(nodes, PLACE);
			if (!element) continue;
			// What a text says moves no place.
			if (attributeName || hold(nodes, '*')) elements.add(element);
			changed.add(element.closest(PLACES)).add(element.closest('form'));
		}
		changed.delete(null);
		if (data) this.#readPage();
		// A page that changes something else in every frame pays for no more than being asked.
		const isFound = isTouched || data || this.#of.shop.finder?.isTouched(elements);
		if (!isFound && !changed.size) return;
		this.#write(() => {
			if (isFound) this.#find();
			for (const stand of this.#near) if (data || changed.has(stand.place) || changed.has(stand.form)) stand.tend();
			this.#tendHung();
		});
	}
}
