import { addToBasket, countOf, Refused, type InBasket } from './basket';
import { paint } from './paint';
import type { paintQuantity } from './quantity';
import type { paintSecond } from './second';
import { resolve, textOf, type Looker, type Standing } from './resolve';
import type { SignalBox, SignalEvent } from './signals';
import type { Compiled, Language, Manifest, Moment, Pattern, Product } from './types';
import { fillText } from './words';

const ADDED_MS = 1600;
const VIEW_MS = 1000;

export type Shop = {
	manifest: Manifest;
	looker: Looker;
	paintQuantity?: typeof paintQuantity;
	paintSecond?: typeof paintSecond;
	/** How the page's language writes. */
	spoken: Language;
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
	readonly #form: HTMLFormElement | null;
	standing: Standing;
	readonly #host = document.createElement('div');
	readonly #own: HTMLElement[];
	readonly #ownHigh: number;
	#passing: Moment | '' = '';

	/** `ownHigh` is the height of the place as the shop has it; measured before, since a look at it costs a layout. */
	constructor(
		shop: Shop,
		place: HTMLElement,
		product: Product,
		ownHigh: number,
		form: HTMLFormElement | null = place.closest('form'),
	) {
		this.#shop = shop;
		this.#place = place;
		this.#product = product;
		this.#form = form;
		const standing = this.#resolve();
		if (!standing?.made.shown) throw Error();
		this.standing = standing;
		this.#own = Array.from(place.children) as HTMLElement[];
		this.#ownHigh = ownHigh;
		this.#host.dataset.upButton = '';
		const hadFocus = place.contains(document.activeElement);
		const button = this.draw();
		this.#own.forEach((own) => own.style.setProperty('display', 'none', 'important'));
		place.append(this.#host);
		place.dataset.upStands = '';
		if (hadFocus) button.focus();
		this.#watch();
		this.#form?.addEventListener('change', () => this.draw());
	}

	#resolve(): Standing | null {
		const { manifest, looker } = this.#shop;
		return resolve(manifest, this.#name(), this.#product, looker);
	}

	#name(): string {
		return this.#place.dataset.upPlace ?? '';
	}

	#choice(): HTMLSelectElement | HTMLInputElement | null {
		const name = CSS.escape(this.#shop.manifest.basket.option_field);
		return this.#form?.querySelector(`select[name="${name}"], input[name="${name}"]:not([type=radio])`) ?? null;
	}

	#option(): string {
		const name = this.#shop.manifest.basket.option_field;
		return this.#form ? String(new FormData(this.#form).get(name) ?? '') : '';
	}

	#moment(): Moment {
		const { situation } = this.#product;
		if (situation === 'sold_out') return 'sold_out';
		if (this.#product.needsChoice && !this.#option()) return 'choose_first';
		if (this.#passing) return this.#passing;
		if (this.#count()) return 'in_basket';
		return situation === 'pre_order' ? 'pre_order' : 'ready';
	}

	#count(): number {
		// An empty basket is the usual case, and needs no look at the form.
		if (!this.#shop.basket.count) return 0;
		return countOf(this.#shop.basket, this.#product.sku, this.#option());
	}

	draw(): HTMLButtonElement {
		const moment = this.#moment();
		const { manifest, looker, spoken, paintQuantity, paintSecond } = this.#shop;
		const { made, words, high } = this.standing;
		// Neither a lower nor a higher button of ours may move what stands below.
		this.#place.style.minHeight = `${Math.max(this.#ownHigh, high)}px`;
		const pattern = textOf(words, moment, looker.language, manifest.language);
		const say = (said: Pattern | '' | undefined) => said && fillText(said, this.#product, this.#count(), spoken);
		const text = say(pattern) as string;
		const own = (texts: Compiled['second']) => say(texts?.[looker.language] ?? texts?.[manifest.language]);
		const { name } = this.#product;
		const inactive = this.#inactive(moment);
		const { base } = manifest;
		const button = paint(this.#host, {
			...spoken,
			base,
			made,
			moment,
			text,
			name,
			lang: looker.language,
			inactive,
			paintQuantity,
			paintSecond,
			spoken: moment === 'ready' ? own(made.spoken) : '',
			second: own(made.second),
		});
		button.onclick = () => void this.#press(made.after);
		const second = this.#host.shadowRoot?.querySelector<HTMLElement>('.s');
		if (second) second.onclick = () => void this.#press('checkout');
		if (moment === 'added') this.#shop.announce(`${text}, ${this.#product.name}`);
		return button;
	}

	/** Looks up again what holds, since the device has turned. */
	turn(): void {
		this.standing = this.#resolve() ?? this.standing;
		this.draw();
	}

	/** Where the choice is on the page, the button waits for it; elsewhere it leads to the page that has it. */
	#inactive(moment: Moment): boolean {
		return moment === 'sold_out' || moment === 'working' || (moment === 'choose_first' && Boolean(this.#choice()));
	}

	#signal(kind: SignalEvent['kind'], more: Partial<SignalEvent> = {}): void {
		this.#shop.signals?.add({
			kind,
			place: this.#name(),
			seen_as: this.#moment() === 'in_basket' ? 'in_basket' : this.#product.situation,
			product: this.#product.sku,
			versions: this.standing.versions,
			device: this.#shop.looker.device,
			...more,
		});
	}

	async #press(after: string): Promise<void> {
		const moment = this.#moment();
		if (this.#inactive(moment)) {
			this.#leadToChoice(moment);
			return;
		}
		this.#signal('clicked');
		if (moment === 'choose_first') {
			if (this.#product.url) location.assign(this.#product.url);
			return;
		}
		const { basket } = this.#shop.manifest;
		const box = this.#host.shadowRoot?.querySelector('input');
		const told = box?.value ?? (this.#form && new FormData(this.#form).get(basket.quantity_field));
		const quantity = Number(told) || 1;
		this.#pass('working');
		try {
			this.#shop.basket = await addToBasket(basket, this.#product.sku, this.#option(), quantity);
		} catch (error) {
			this.#giveUp(error);
			return;
		}
		this.#signal('added', { quantity });
		this.#pass('added');
		this.#shop.changed(this.#shop.basket);
		if (after !== 'stay') location.assign(after === 'basket' ? basket.read_path : basket.checkout_path);
		setTimeout(() => this.#pass(''), ADDED_MS);
	}

	#pass(moment: Moment | ''): void {
		this.#passing = moment;
		this.draw();
	}

	#leadToChoice(moment: Moment): void {
		const choice = moment === 'choose_first' && this.#choice();
		if (choice) {
			choice.scrollIntoView({ block: 'center' });
			choice.focus();
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
