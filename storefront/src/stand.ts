import { addToBasket, countOf, Refused, type InBasket } from './basket';
import { paint } from './paint';
import { resolve, type Standing } from './resolve';
import type { SignalBox, SignalEvent } from './signals';
import type { Manifest, Moment, Product } from './types';
import { fillText } from './words';

const ADDED_MS = 1600;
const VIEW_MS = 1000;

export type Shop = {
	manifest: Manifest;
	shopper: string;
	forced: Record<string, string>;
	/** Null while somebody only looks at a draft or a forced version. */
	signals: SignalBox | null;
	basket: InBasket;
	/** Says a sentence to screen readers. */
	announce: (text: string) => void;
	/** Called with the basket after it has changed. */
	changed: (basket: InBasket) => void;
};

type Seen = (ratio: number, stop: () => void) => void;
const watched = new Map<Element, Seen>();
let observer: IntersectionObserver | undefined;

/** Tells how much of an element is in view, whenever half of it comes or goes; one observer for the whole page. */
function whenSeen(element: Element, tell: Seen): void {
	observer ??= new IntersectionObserver(
		(entries, own) =>
			entries.forEach(({ target, intersectionRatio }) =>
				watched.get(target)?.(intersectionRatio, () => {
					own.unobserve(target);
					watched.delete(target);
				}),
			),
		{ threshold: [0, 0.5] },
	);
	watched.set(element, tell);
	observer.observe(element);
}

/** One of our buttons in one place of the page. The shop's own stays in the page, unseen, and comes back if ours fails. */
export class Stand {
	readonly #shop: Shop;
	readonly #place: HTMLElement;
	readonly #product: Product;
	readonly #standing: Standing;
	readonly #host = document.createElement('div');
	readonly #own: HTMLElement[];
	#passing: Moment | '' = '';

	/** `ownHigh` is the height of the place as the shop has it; measured before, since a look at it costs a layout. */
	constructor(shop: Shop, place: HTMLElement, product: Product, ownHigh: number) {
		const standing = resolve(shop.manifest, this.#nameOf(place), product, shop.shopper, shop.forced);
		if (!standing) throw new Error('no button for this place');
		this.#shop = shop;
		this.#place = place;
		this.#product = product;
		this.#standing = standing;
		this.#own = Array.from(place.children) as HTMLElement[];
		// Neither a lower nor a higher button of ours may move what stands below.
		const reserved = Math.max(ownHigh, standing.high);
		place.style.setProperty('min-height', `${reserved}px`);
		this.#host.style.setProperty('min-height', `${standing.high}px`);
		this.#host.dataset.upButton = '';
		const hadFocus = place.contains(document.activeElement);
		const button = this.draw();
		this.#own.forEach((own) => own.style.setProperty('display', 'none', 'important'));
		place.append(this.#host);
		place.dataset.upStands = '';
		if (hadFocus) button.focus();
		this.#watch();
		this.#form()?.addEventListener('change', () => this.draw());
	}

	#nameOf(place: HTMLElement): string {
		return place.dataset.upPlace ?? '';
	}

	#form(): HTMLFormElement | null {
		return this.#place.closest('form');
	}

	#choice(): HTMLSelectElement | HTMLInputElement | null {
		const name = CSS.escape(this.#shop.manifest.basket.option_field);
		return this.#form()?.querySelector(`select[name="${name}"], input[name="${name}"]:not([type=radio])`) ?? null;
	}

	#option(): string {
		const name = this.#shop.manifest.basket.option_field;
		const form = this.#form();
		return form ? String(new FormData(form).get(name) ?? '') : '';
	}

	#moment(): Moment {
		if (this.#product.soldOut) return 'sold_out';
		if (this.#product.needsChoice && !this.#option()) return 'choose_first';
		if (this.#passing) return this.#passing;
		return this.#count() ? 'in_basket' : 'ready';
	}

	#count(): number {
		// An empty basket is the usual case, and needs no look at the form.
		if (!this.#shop.basket.count) return 0;
		return countOf(this.#shop.basket, this.#product.sku, this.#option());
	}

	draw(): HTMLButtonElement {
		const moment = this.#moment();
		const { manifest } = this.#shop;
		const words = this.#standing.made.words;
		const language = document.documentElement.lang in words ? document.documentElement.lang : manifest.language;
		const pattern = words[language]?.[moment] ?? [];
		const text = fillText(pattern, this.#product, this.#count(), manifest.money[language]);
		const button = paint(this.#host, this.#standing.made, moment, text, this.#product.name);
		button.onclick = () => void this.#press();
		if (moment === 'added') this.#shop.announce(`${text}, ${this.#product.name}`);
		return button;
	}

	#signal(kind: SignalEvent['kind'], more: Partial<SignalEvent> = {}): void {
		this.#shop.signals?.add({
			kind,
			place: this.#nameOf(this.#place),
			product: this.#product.sku,
			versions: this.#standing.versions,
			device: innerWidth < 600 ? 'phone' : innerWidth < 1024 ? 'tablet' : 'desktop',
			...more,
		});
	}

	async #press(): Promise<void> {
		const moment = this.#moment();
		if (moment === 'sold_out' || moment === 'working') return;
		this.#signal('clicked');
		if (moment === 'choose_first') {
			this.#leadToChoice();
			return;
		}
		this.#pass('working');
		const form = this.#form();
		const { basket } = this.#shop.manifest;
		const quantity = Number(form ? new FormData(form).get(basket.quantity_field) : 1) || 1;
		try {
			this.#shop.basket = await addToBasket(basket, this.#product.sku, this.#option(), quantity);
		} catch (error) {
			this.#giveUp(error);
			return;
		}
		this.#signal('added', { quantity });
		this.#pass('added');
		this.#shop.changed(this.#shop.basket);
		setTimeout(() => this.#pass(''), ADDED_MS);
	}

	#pass(moment: Moment | ''): void {
		this.#passing = moment;
		this.draw();
	}

	#leadToChoice(): void {
		const choice = this.#choice();
		if (choice) {
			choice.scrollIntoView({ block: 'center' });
			choice.focus();
		} else if (this.#product.url) {
			location.assign(this.#product.url);
		}
	}

	/** Puts the shop's own button back; where it was the connection that failed, presses it as the shopper wished. */
	#giveUp(error: unknown): void {
		this.#host.remove();
		this.#own.forEach((own) => own.style.removeProperty('display'));
		delete this.#place.dataset.upStands;
		const own = this.#own[0];
		own?.focus();
		if (!(error instanceof Refused)) own?.click();
	}

	/** Signals `shown` once half of the reserved box has been in view for one second without a break. */
	#watch(): void {
		let timer = 0;
		whenSeen(this.#host, (ratio, stop) => {
			clearTimeout(timer);
			if (ratio < 0.5) return;
			timer = window.setTimeout(() => {
				stop();
				this.#signal('shown');
			}, VIEW_MS);
		});
	}
}
