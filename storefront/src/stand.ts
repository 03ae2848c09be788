import { addToBasket, bodyOf, countOf, type InBasket, type Outcome } from './basket';
import type { fillText } from './live';
import { paint } from './paint';
import type { paintQuantity } from './quantity';
import type { paintSecond } from './second';
import { resolve, sayText, type Looker, type Standing } from './resolve';
import type { SignalBox, SignalEvent } from './signals';
import type { Basket, Language, Manifest, Moment, Pattern, Product } from './types';
import { withoutHoles } from './words';

const ADDED_MS = 1600;
const VIEW_MS = 1000;
/** Clicks that follow each other faster are one press. */
const DOUBLE_MS = 500;

export type Shop = {
	manifest: Manifest;
	looker: Looker;
	/** Fills live values; only where some text has one. */
	fillText?: typeof fillText;
	paintQuantity?: typeof paintQuantity;
	paintSecond?: typeof paintSecond;
	/** How the page's language writes. */
	spoken: Language;
	/** Null while somebody only looks at a draft or a forced version. */
	signals: SignalBox | null;
	/** Null until the shop has told what is in it. */
	basket: InBasket | null;
	/** Says a sentence to screen readers. */
	announce: (text: string) => void;
	/** Called with the basket after it has changed. */
	changed: (basket: InBasket) => void;
	/** Returns the product of a place; see `readProduct`. */
	read: (place: HTMLElement, form: string, instead: string) => Product | null;
};

type Seen = (ratio: number) => void;
const watched = new Map<Element, Seen>();
let observer: IntersectionObserver | undefined;

function unwatch(element: Element): void {
	observer?.unobserve(element);
	watched.delete(element);
}

/** Tells how much of an element is in view, whenever half of it comes or goes; one observer for the whole page. */
function whenSeen(element: Element, tell: Seen): void {
	unwatch(element);
	observer ??= new IntersectionObserver(
		(entries) => entries.forEach(({ target, intersectionRatio }) => watched.get(target)?.(intersectionRatio)),
		{ threshold: [0, 0.5] },
	);
	watched.set(element, tell);
	observer.observe(element);
}

const basketPage = (basket: Basket) => basket.basket_path || basket.read_path;

type Field = HTMLElement & { name: string; value: string; type: string; checked?: boolean };

/** One of our buttons in one place of the page. The shop's own stays in the page, unseen, and comes back if ours fails. */
export class Stand {
	readonly #shop: Shop;
	readonly place: HTMLElement;
	readonly form: HTMLFormElement | null;
	readonly #main: Stand | undefined;
	standing: Standing;
	product: Product;
	/** Called when it has been drawn, and when it has left its place. */
	drawn?: () => void;
	left?: () => void;
	stands = true;
	readonly #host = document.createElement('div');
	readonly #hidden = new Map<HTMLElement, [value: string, priority: string]>();
	readonly #submit: HTMLButtonElement | null;
	readonly #ownHigh: number;
	readonly #reserved: string;
	#placeSays: string | undefined;
	#formSays = '';
	#instead = '';
	#passing: Moment | '' = '';
	#clock = 0;
	#viewing = 0;
	#pressedAt = -DOUBLE_MS;
	#drawnAs = '';
	#is = '';
	#note: HTMLElement | null = null;

	/**
	 * `ownHigh` is the height of the place as the shop has it; measured before, since a look at it costs a layout. With
	 * `main` it stands for the product and the form of that one.
	 */
	constructor(shop: Shop, place: HTMLElement, ownHigh: number, main?: Stand) {
		this.#shop = shop;
		this.place = place;
		this.#main = main;
		this.#submit = place.querySelector<HTMLButtonElement>('button, [type=submit], a');
		this.form = main?.form ?? place.closest('form') ?? this.#submit?.form ?? place.querySelector('form');
		const product = this.#read();
		if (!product) throw Error();
		this.#isOther((this.product = product));
		const standing = this.#resolve();
		if (!standing?.made.shown) throw Error();
		this.standing = standing;
		this.#ownHigh = ownHigh;
		this.#reserved = place.style.minHeight;
		this.#host.dataset.upButton = '';
		const hadFocus = place.contains(document.activeElement);
		const button = this.draw();
		this.#hideOwn();
		place.append(this.#host);
		place.dataset.upStands = '';
		if (hadFocus) button.focus();
		this.#watch();
	}

	#hideOwn(): void {
		for (const own of Array.from(this.place.children) as HTMLElement[]) {
			const { style } = own;
			if (own === this.#host || (this.#hidden.has(own) && style.display === 'none')) continue;
			this.#hidden.set(own, [style.getPropertyValue('display'), style.getPropertyPriority('display')]);
			style.setProperty('display', 'none', 'important');
		}
	}

	#showOwn(): void {
		clearTimeout(this.#clock);
		clearTimeout(this.#viewing);
		unwatch(this.#host);
		this.#host.remove();
		this.#hidden.forEach(([value, priority], own) => own.style.setProperty('display', value, priority));
		this.#hidden.clear();
		this.place.style.minHeight = this.#reserved;
		delete this.place.dataset.upStands;
	}

	/** Takes all of ours out of the page. */
	leave(): void {
		this.stands = false;
		this.#note?.remove();
		this.#showOwn();
		this.left?.();
	}

	/** Returns the product as it is told now. Of the place and its form the one that has changed last is believed. */
	#read(): Product | null {
		if (this.#main) return this.#main.stands ? this.#main.product : null;
		const { upProduct: place = '' } = this.place.dataset;
		const form = this.#fields(this.#shop.manifest.basket.product_field)[0]?.value ?? '';
		if (place !== this.#placeSays) this.#instead = '';
		else if (form !== this.#formSays && this.#formSays === this.product.sku) this.#instead = form;
		this.#placeSays = place;
		this.#formSays = form;
		return this.#shop.read(this.place, form, this.#instead);
	}

	/** Tells whether the place or its product has changed since this was asked last. */
	#isOther(product: Product): boolean {
		const was = this.#is;
		return was !== (this.#is = JSON.stringify([this.#name(), product]));
	}

	/** Looks whether the place still is what it was; tells whether ours may stay there. */
	tend(): boolean {
		const product = this.place.isConnected && this.#read();
		if (!product) return false;
		const isOther = this.#isOther(product);
		if (this.#note) return !isOther && this.#note.isConnected;
		if (this.#host.parentNode !== this.place) return false;
		this.#hideOwn();
		if (isOther) {
			const isNew = product.sku !== this.product.sku;
			this.product = product;
			this.turn();
			if (isNew) {
				this.#pass('');
				this.#watch();
			}
		} else if (this.#now() !== this.#drawnAs) this.draw();
		return this.standing.made.shown;
	}

	#resolve(): Standing | null {
		const { manifest, looker } = this.#shop;
		return resolve(manifest, this.#name(), this.product, looker);
	}

	#name(): string {
		return this.place.dataset.upPlace ?? '';
	}

	#fields(name: string): Field[] {
		return Array.from((this.form?.elements ?? []) as Iterable<Field>).filter((field) => field.name === name);
	}

	/** Returns the option that is chosen; where there are radio buttons only these count. */
	#option(): string {
		const all = this.#options();
		const radios = all.filter((field) => field.type === 'radio');
		return (radios.length ? radios.find((field) => field.checked) : all[0])?.value ?? '';
	}

	#options(): Field[] {
		return this.#fields(this.#shop.manifest.basket.option_field);
	}

	/** Returns a control in which the shopper has still to choose something; null where all is chosen. */
	#unchosen(): Field | null {
		if (!this.#option()) return this.#options().pop() ?? null;
		return this.form?.querySelector<Field>('select:invalid, [type=radio]:invalid') ?? null;
	}

	#moment(): Moment {
		const { situation, needsChoice } = this.product;
		if (situation === 'sold_out') return 'sold_out';
		if (needsChoice && (this.#unchosen() || !this.#option())) return 'choose_first';
		if (this.#passing) return this.#passing;
		if (this.#count()) return 'in_basket';
		return situation === 'pre_order' ? 'pre_order' : 'ready';
	}

	#count(): number {
		const { basket } = this.#shop;
		// An empty basket is the usual case, and needs no look at the form.
		return basket?.count ? countOf(basket, this.product.sku, this.#option()) : 0;
	}

	#now(): string {
		return `${this.#moment()} ${this.#count()}`;
	}

	draw(): HTMLButtonElement {
		const moment = this.#moment();
		const { manifest, looker, spoken, fillText, paintQuantity, paintSecond } = this.#shop;
		const { made, words, high } = this.standing;
		const { product } = this;
		this.#drawnAs = this.#now();
		// Neither a lower nor a higher button of ours may move what stands below.
		this.place.style.minHeight = `${Math.max(this.#ownHigh, high)}px`;
		const fill = (pattern: Pattern) => fillText?.(pattern, product, this.#count(), spoken) ?? pattern.join('');
		const text = sayText(words, moment, looker.language, manifest.language, fill) || product.name || product.sku;
		const own = (texts: Record<string, Pattern> | null | undefined) =>
			withoutHoles(fill(texts?.[looker.language] ?? texts?.[manifest.language] ?? []));
		const inactive = this.#inactive(moment);
		const button = paint(this.#host, {
			...spoken,
			base: manifest.base,
			made,
			moment,
			text,
			name: product.name,
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
		if (moment === 'added') this.#shop.announce(`${text}, ${product.name}`);
		this.drawn?.();
		return button;
	}

	/** Looks up again what holds, since the device has turned. */
	turn(): void {
		this.standing = this.#resolve() ?? this.standing;
		this.draw();
	}

	/** Where the choice is on the page, the button waits for it; elsewhere it leads to the page that has it. */
	#inactive(moment: Moment): boolean {
		return moment === 'sold_out' || moment === 'working' || (moment === 'choose_first' && !!this.#unchosen());
	}

	/** Returns what a signal tells of the button as it is now. */
	#telling(): Partial<SignalEvent> {
		const { situation, sku } = this.product;
		const { kind, device, language } = this.#shop.looker;
		return {
			place: this.#name(),
			seen_as: this.#moment() === 'in_basket' ? 'in_basket' : situation,
			situation,
			shopper_kind: kind,
			product: sku,
			versions: this.standing.versions,
			device,
			language,
		};
	}

	#signal(kind: SignalEvent['kind'], telling = this.#telling()): void {
		this.#shop.signals?.add({ kind, ...telling });
	}

	/** One press: one request to the basket at most, and one outcome. */
	async #press(after: string): Promise<void> {
		const before = this.#pressedAt;
		this.#pressedAt = performance.now();
		if (this.#pressedAt - before < DOUBLE_MS) return;
		// What the shop's own script has put into the form without a word is seen now at the latest.
		this.tend();
		const moment = this.#moment();
		if (this.#inactive(moment)) {
			this.#pressedAt = before;
			this.#leadToChoice(moment);
			return;
		}
		this.#signal('clicked');
		const { product, form } = this;
		if (moment === 'choose_first') {
			if (product.url) location.assign(product.url);
			return;
		}
		if (form && !form.noValidate && !form.checkValidity()) {
			// A form that is drawn can say itself what it lacks; one that we hide with the shop's button cannot.
			if (form.getClientRects().length) form.reportValidity();
			else this.#giveBack('refused');
			return;
		}
		const { basket } = this.#shop.manifest;
		const box = this.#host.shadowRoot?.querySelector('input')?.value ?? '';
		const option = this.#option();
		const body = bodyOf(basket, form, this.#submit, product.sku, box);
		const quantity = Number(body.get(basket.quantity_field)) || 1;
		const telling = this.#telling();
		this.#pass('working');
		const outcome = await addToBasket(basket, body, { sku: product.sku, option, quantity, before: this.#shop.basket });
		const isHere = this.stands && this.product.sku === product.sku;
		if (outcome.is !== 'added') {
			this.#giveBack(outcome.is, isHere);
			return;
		}
		this.#shop.basket = outcome.basket;
		this.#signal('added', { ...telling, quantity });
		if (isHere) this.#pass('added', ADDED_MS);
		this.#shop.changed(outcome.basket);
		if (after !== 'stay') location.assign(after === 'basket' ? basketPage(basket) : basket.checkout_path);
	}

	/** Shows a passing moment, for a time where one is given; a later one is not ended by an earlier one's time. */
	#pass(moment: Moment | '', forMs = 0): void {
		clearTimeout(this.#clock);
		this.#passing = moment;
		this.draw();
		if (forMs) this.#clock = window.setTimeout(() => this.#pass(''), forMs);
	}

	#leadToChoice(moment: Moment): void {
		const choice = moment === 'choose_first' && this.#unchosen();
		if (!choice) return;
		// Swatches often keep their choice in a field that is not drawn; what stands around it is.
		choice.parentElement?.scrollIntoView({ block: 'center' });
		choice.focus();
	}

	/** Says what came of a press and puts the shop's own button back; it is not pressed, since that could add twice. */
	#giveBack(is: Exclude<Outcome['is'], 'added'>, isHere = true): void {
		const { spoken, announce, manifest } = this.#shop;
		const [refused = '', unknown = '', look = ''] = spoken.outcomes ?? [];
		const text = is === 'refused' ? refused : unknown;
		announce(text);
		if (!isHere) return;
		this.#showOwn();
		const note = document.createElement('p');
		note.dataset.upNote = is;
		note.append(text);
		if (is === 'unknown') {
			const link = document.createElement('a');
			link.href = basketPage(manifest.basket);
			link.append(look);
			note.append(' ', link);
		}
		this.place.append(note);
		this.place.dataset.upTried = is;
		this.#note = note;
		this.#submit?.focus();
	}

	/** Signals `shown` once half of the reserved box has been in view for one second without a break. */
	#watch(): void {
		clearTimeout(this.#viewing);
		whenSeen(this.#host, (ratio) => {
			clearTimeout(this.#viewing);
			if (ratio < 0.5) return;
			this.#viewing = window.setTimeout(() => {
				unwatch(this.#host);
				this.#signal('shown');
			}, VIEW_MS);
		});
	}
}
