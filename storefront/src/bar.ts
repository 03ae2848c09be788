import { BAR_CSS } from './later_facts';
import type { Shop, Stand } from './stand';

/** The bar at the bottom edge; it comes in once the page's own button has been scrolled past. */
export class Bar {
	readonly #shop: Shop;
	readonly #Stand: typeof Stand;
	readonly #host = document.createElement('div');
	readonly place = document.createElement('div');
	readonly #name = document.createElement('span');
	readonly #price = document.createElement('span');
	#stand: Stand | null = null;
	#main: Stand | undefined;
	#isPast = false;
	readonly #passing = new IntersectionObserver(
		(entries) => {
			const entry = entries[entries.length - 1]!;
			this.#isPast = !entry.isIntersecting && entry.boundingClientRect.top < 0;
			this.#show();
		},
		// What lies below counts as seen: a jump from above it to below it would else change nothing.
		{ rootMargin: '0px 0px 99999px' },
	);

	constructor(shop: Shop, Standing: typeof Stand) {
		this.#shop = shop;
		this.#Stand = Standing;
		this.place.dataset.upPlace = 'sticky_bar';
		const root = this.#host.attachShadow({ mode: 'open' });
		const sheet = new CSSStyleSheet();
		sheet.replaceSync(BAR_CSS);
		root.adoptedStyleSheets = [sheet];
		const row = document.createElement('div');
		this.#name.className = 'n';
		row.append(this.#name, this.#price, document.createElement('slot'));
		root.append(row);
		this.#host.append(this.place);
	}

	/** Stands for the page's main button, whichever that is now; without one it goes out. */
	follow(main: Stand | undefined, anew: boolean): void {
		if (main !== this.#main) {
			this.#passing.disconnect();
			this.#stand?.leave();
			this.#main = main;
			this.#isPast = false;
			this.#stand = main ? new this.#Stand(this.#shop, this.place, main) : null;
			if (this.#stand) this.#stand.drawn = () => this.#draw();
			if (main) this.#passing.observe(main.place);
		}
		this.#stand?.tend(anew);
		this.#show();
	}

	#draw(): void {
		const { product, standing } = this.#stand ?? {};
		if (!product || !standing) return;
		this.#name.textContent = product.name;
		this.#name.hidden = !standing.made.name;
		this.#price.textContent = (this.#shop.fillText?.([{ v: 'price' }], product, 0, this.#shop.spoken) ?? '').replace(
			'\0',
			'',
		);
		this.#price.hidden = !standing.made.price || !this.#price.textContent;
	}

	#show(): void {
		const stands = this.#stand?.is === 'ours' || this.#stand?.is === 'given back';
		// A page may draw its whole body anew.
		if (stands && !this.#host.isConnected) document.body.append(this.#host);
		else if (!stands) this.#host.remove();
		const isIn = stands && this.#isPast;
		this.#host.dir = this.#shop.spoken.rtl ? 'rtl' : 'ltr';
		this.#host.inert = !isIn;
		if (this.#host.hasAttribute('data-in') === isIn) return;
		this.#host.toggleAttribute('data-in', isIn);
		// What is focused by the keyboard must not stand behind the bar (WCAG 2.2, 2.4.11).
		document.documentElement.style.scrollPaddingBottom = isIn ? `${this.#host.offsetHeight}px` : '';
	}
}
