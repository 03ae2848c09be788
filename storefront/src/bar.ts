import type { Compiled } from './types';
import type { Shop, Stand } from './stand';

type Made = NonNullable<Compiled['bar']>;
/** What lies below counts as seen: a jump from above it to below it would else change nothing. */
const PASSING = { root: document, rootMargin: '0px 0px 999999px' };
/** A keyboard on the screen takes at least so much of it, in CSS pixels. */
const KEYBOARD_PX = 150;

function element<Name extends keyof HTMLElementTagNameMap>(name: Name, className = '') {
	return Object.assign(document.createElement(name), { className });
}

/** Returns the first picture of a product that the page's data tells, or that of its card for social pages. */
function pictureOf(sku: string): string {
	let src: string | undefined;
	for (const { textContent } of document.querySelectorAll('script[type="application/ld+json"]'))
		try {
			JSON.parse(textContent!, (_, value) => {
				const [first] = [(value?.sku === sku && value.image) || []].flat();
				src ||= first?.url ?? first;
				return value;
			});
		} catch {
			// Another script's data may be broken.
		}
	return src || (document.querySelector<HTMLMetaElement>('[property="og:image"]')?.content ?? '');
}

/** Keeps until when the bar stays away, if that is told, and returns it; where nothing can be kept, this page knows. */
function closing(until = 0): number {
	try {
		if (until) localStorage['up.bar'] = until;
		// What was never kept is no number, and no time is before that.
		return +localStorage['up.bar'];
	} catch {
		return until;
	}
}

/** Returns what of the shop's is stuck to the upper edge of the window now. */
function stuckAbove(own: Element): Element | undefined {
	for (const at of document.elementsFromPoint(innerWidth / 2, 1))
		for (let x: Element | null = at; x && x !== own; x = x.parentElement)
			if (/fixed|sticky/.test(getComputedStyle(x).position) && x.clientHeight < innerHeight / 2) return x;
}

/**
 * The bar at an edge of the window: it comes and goes as the release says, by observers instead of by listening to every
 * scroll. Its own element stands after the page's body and keeps as much room there as the bar covers.
 */
class Bar {
	readonly #shop: Shop;
	readonly #Stand: typeof Stand;
	readonly #host = element('div');
	readonly place = element('div');
	readonly #sheet = new CSSStyleSheet();
	readonly #row = element('div', 'r');
	/** Points of the page that are passed when the bar comes and when it goes. */
	readonly #come = element('i');
	readonly #foot = element('i');
	#made: Made | undefined;
	#stand: Stand | null = null;
	#main: Stand | undefined;
	#is = { past: false, seen: false, come: false, foot: false, up: false, typing: false };
	#wasAt = 0;
	#padding = '';
	readonly #passing = this.#watch('past', PASSING);
	readonly #seeing = this.#watch('seen');
	readonly #coming = this.#watch('come', PASSING);
	readonly #ending = this.#watch('foot', PASSING);

	constructor(shop: Shop, Standing: typeof Stand) {
		this.#shop = shop;
		this.#Stand = Standing;
		this.#host.dataset.upBar = '';
		this.place.dataset.upPlace = 'sticky_bar';
		const root = this.#host.attachShadow({ mode: 'open' });
		root.adoptedStyleSheets = [this.#sheet];
		root.append(this.#row, this.#come, this.#foot);
		this.#host.append(this.place);
		const sizes = new ResizeObserver(() => this.#measure());
		sizes.observe(this.#row);
		sizes.observe(document.documentElement);
		visualViewport?.addEventListener('resize', () => {
			this.#is.typing = innerHeight - visualViewport!.height > KEYBOARD_PX;
			this.#show();
		});
	}

	/** With `PASSING` it is told whether something has been scrolled past, else whether it is in the window. */
	#watch(what: 'past' | 'seen' | 'come' | 'foot', how?: IntersectionObserverInit): IntersectionObserver {
		return new IntersectionObserver((entries) => {
			const { isIntersecting, boundingClientRect } = entries[entries.length - 1]!;
			this.#is[what] = how ? !isIntersecting && boundingClientRect.top < 0 : isIntersecting;
			this.#show();
		}, how);
	}

	/** Stands for the page's main button, whichever that is now; without one it goes out. */
	follow(main: Stand | undefined, anew: boolean): void {
		if (main !== this.#main) {
			for (const observer of [this.#passing, this.#seeing]) {
				observer.disconnect();
				if (main) observer.observe(main.place);
			}
			this.#stand?.leave();
			this.#main = main;
			this.#is.past = this.#is.seen = false;
			this.#stand = main ? new this.#Stand(this.#shop, this.place, main) : null;
			if (this.#stand) this.#stand.drawn = () => this.#draw();
		}
		this.#stand?.tend(anew);
		this.#show();
	}

	#draw(): void {
		const { product, standing } = this.#stand ?? {};
		const made = standing?.made.bar;
		if (!product || !made) return;
		if (made !== this.#made) {
			this.#made = made;
			this.#sheet.replaceSync(this.#shop.css + made.css);
			this.#is.foot = this.#is.come = false;
			// The way of scrolling is heard only where it decides.
			if (made.up) addEventListener('scroll', this.#turned);
			this.#measure();
		}
		const { fillText, spoken, looker, manifest } = this.#shop;
		const heading = made.heading?.[looker.language] ?? made.heading?.[manifest.language] ?? '';
		const price = fillText?.([{ v: made.net ? 'price without tax' : 'price' }], product, 0, spoken) ?? '';
		const texts: Record<string, string> = { name: product.name, heading, price: price.replace('\0', '') };
		const inner = element('div', 'w');
		for (const part of made.parts)
			if (part === 'button') inner.append(element('slot', part));
			else if (part === 'picture') {
				const src = pictureOf(product.sku);
				// The name beside it says what is to be seen.
				if (src) inner.append(Object.assign(element('img', part), { src, alt: '' }));
			} else if (texts[part]) inner.append(Object.assign(element('span', `t ${part}`), { textContent: texts[part] }));
		if (made.close) inner.append(this.#closing(made.close));
		this.#row.replaceChildren(inner);
	}

	#closing({ hours, names }: NonNullable<Made['close']>): HTMLElement {
		const key = Object.assign(element('button', 'x'), { textContent: '×' });
		key.setAttribute('aria-label', names[this.#shop.looker.language]!);
		key.onclick = () => {
			this.#closedUntil = closing(Date.now() + hours * 36e5);
			this.#show();
			this.#main?.host?.shadowRoot?.querySelector<HTMLElement>('.b')?.focus();
		};
		return key;
	}

	#closedUntil = closing();

	/** Sets the points at which the bar comes and goes, and keeps room at the page's end for what it covers there. */
	#measure(): void {
		const { px, share, foot, top } = this.#made ?? {};
		const most = document.documentElement.scrollHeight - innerHeight;
		const at = (mark: HTMLElement, observer: IntersectionObserver, atPx?: number) => {
			observer.disconnect();
			mark.style.top = `${(atPx ?? 0) - 1}px`;
			if (atPx !== undefined) observer.observe(mark);
		};
		at(this.#come, this.#coming, px ?? (share && share * most));
		at(this.#foot, this.#ending, foot && most - foot);
		this.#host.style.height = `${top || foot ? 0 : this.#row.offsetHeight}px`;
	}

	readonly #turned = (): void => {
		this.#is.up = scrollY < this.#wasAt;
		this.#wasAt = scrollY;
		this.#show();
	};

	/** Stands under what the shop has stuck to the upper edge. */
	#stick(): void {
		const under = Math.max(0, stuckAbove(this.#host)?.getBoundingClientRect().bottom ?? 0);
		this.#row.style.setProperty('--up-under', `${under}px`);
	}

	get #isDue(): boolean {
		const { past, seen, come, foot, up, typing } = this.#is;
		const made = this.#made;
		if (!made || typing || foot || this.#closedUntil > Date.now() || (made.up && !up)) return false;
		// What stays once it has come does not go again on this page.
		if (made.stays && this.#host.hasAttribute('data-in')) return true;
		return made.share === undefined && made.px === undefined ? past : come && (made.stays || !seen);
	}

	#show(): void {
		const host = this.#host;
		const { top } = this.#made ?? {};
		const stands = !!this.#stand && this.#stand.is !== 'own';
		// After the page's own body it is no part of how that sets its parts, and stays when a page draws it anew.
		if (!stands) host.remove();
		else if (!host.isConnected) document.documentElement.append(host);
		const isIn = stands && (this.#isDue || this.#shop.held === 'sticky_bar');
		host.dir = this.#shop.spoken.rtl ? 'rtl' : 'ltr';
		host.inert = !isIn;
		if (host.hasAttribute('data-in') === isIn) return;
		const { style } = document.documentElement;
		const side = top ? 'scrollPaddingTop' : 'scrollPaddingBottom';
		if (isIn) {
			if (top) this.#stick();
			this.#padding = style[side];
		}
		host.toggleAttribute('data-in', isIn);
		// What is focused by the keyboard must not stand behind the bar (WCAG 2.2, 2.4.11).
		const { offsetTop, offsetHeight } = this.#row;
		style[side] = isIn ? `${offsetHeight + (top ? offsetTop : 0)}px` : this.#padding;
	}
}

function make(shop: Shop, Standing: typeof Stand): Bar {
	return new Bar(shop, Standing);
}
export type { Bar };
export type MakeBar = typeof make;

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: MakeBar }) | null;
if (own) own.up = make;
