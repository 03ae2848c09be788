import { countOf } from '../basket/count';
import type { Field, Shop, Stand as AsSeen, Standing } from '../base/shop';
import { paint } from './paint';
import { resolve, sayText } from './resolve';
import type { Moment, Pattern, Product } from '../base/types';
import { withoutHoles } from '../base/words';

/** A page that takes our button out of a place again and again keeps the shop's own there. */
const MOST_TORN = 100;
const BUTTON = 'button, [type=submit], a';

/** Returns the element of a button. A press on what it holds is ours alone, also within a link or a card that leads on. */
function hostOfOurs(): HTMLElement {
	const host = document.createElement('div');
	host.dataset.upButton = '';
	host.onclick = host.onauxclick = (event) => {
		event.preventDefault();
		event.stopPropagation();
	};
	// What a key does to a field or a button happens all the same: a handler that returned false would keep it from that.
	host.onkeydown = host.onkeyup = (event) => {
		if (/^(Enter| )$/.test(event.key)) event.stopPropagation();
	};
	return host;
}

/**
 * One place of the page for its whole life: it is the shop's own until a product with a button of ours is told there, ours
 * while that is so, and the shop's own again when it is not, or when a press came to nothing.
 */
export class Stand implements AsSeen {
	readonly #shop: Shop;
	readonly place: HTMLElement;
	readonly #main: AsSeen | undefined;
	/** Height of the place's content as the shop has it, and what its box adds to a height that is set. */
	own = { high: 0, more: 0 };
	/** What stands here now. */
	is: 'own' | 'ours' | 'given back' = 'own';
	product: Product | null = null;
	standing: Standing | null = null;
	form: HTMLFormElement | null = null;
	/** Called whenever it has been drawn or has left. */
	drawn?: () => void;
	host!: HTMLElement;
	/** The page that tells its product, where that is another one than this. */
	declare page?: Document;
	submit: HTMLButtonElement | null = null;
	#reserved = '';
	#placeSays: string | undefined;
	#formSays = '';
	#instead = '';
	#passing: Moment | '' = '';
	#clock: ReturnType<typeof setTimeout> | undefined;
	/** When it was pressed last, by the page's own clock. */
	pressedAt = -Infinity;
	#drawnAs = '';
	#told = '';
	#torn = 0;
	#cutAs = '';
	#paired = { sku: '', code: '' };
	#note: HTMLElement | null = null;

	/** With `main` it stands for the product and the form of that one. */
	constructor(shop: Shop, place: HTMLElement, main?: AsSeen) {
		this.#shop = shop;
		this.place = place;
		this.#main = main;
	}

	/** Measures the shop's own button, at a time when the page is laid out. */
	measure(): void {
		const { own } = this.#near() ?? {};
		if (this.is === 'ours') return;
		const { offsetHeight, clientHeight } = own ?? this.place;
		const { boxSizing, paddingTop, paddingBottom } = getComputedStyle(this.place);
		const high = clientHeight - parseFloat(paddingTop) - parseFloat(paddingBottom);
		this.own = own
			? { high: offsetHeight, more: 0 }
			: { high, more: boxSizing === 'border-box' ? offsetHeight - high : 0 };
	}

	/** Makes what stands here true for what the page tells now. With `anew`, what it tells may mean something else. */
	tend(anew = false): void {
		try {
			this.#tend(anew);
		} catch {
			this.leave();
		}
	}

	#tend(anew: boolean): void {
		this.#find();
		const product = this.#read();
		const telling = product ? JSON.stringify([this.name(), product]) : '';
		const isSame = telling === this.#told;
		const isOther = anew || !isSame;
		if (this.#note) {
			// A phone that is turned, or a page that draws itself anew, is no leave to try again.
			if (isSame && this.#torn < MOST_TORN) {
				if (this.#note.isConnected) return;
				this.#torn++;
				return this.place.append(this.#note);
			}
			this.#note.remove();
			this.#note = null;
		}
		const before = this.product?.sku;
		if (anew) this.#cutAs = '';
		if (isOther) this.standing = product && resolve(this.#shop.manifest, this.name(), product, this.#shop.looker);
		this.product = product;
		this.#told = telling;
		const why = this.#whyOwn();
		if (why) return this.leave(why);
		if (product?.sku !== before) this.#passing = '';
		if (this.is !== 'ours') return this.#stand();
		if (this.host.parentNode !== this.place) {
			this.#torn++;
			this.place.append(this.host);
		}
		// It is written only where it is not there: others may listen to the page's attributes, too.
		this.place.toggleAttribute('data-up-stands', true);
		if (isOther || this.#now() !== this.#drawnAs) this.draw();
		if (product?.sku !== before) this.#shop.watch(this);
	}

	/** Returns why the shop's own button stays; empty where ours stands. */
	#whyOwn(): string {
		if (this.#torn >= MOST_TORN) return 'given up';
		if (this.#shop.isLame) return 'not loaded';
		if (!this.product) return 'product';
		if (!this.standing?.made.shown) return 'hidden';
		return this.#cutAs === this.#told ? 'cut' : '';
	}

	/** Looks up the shop's own button and its form, which a page may draw anew. */
	#find(): void {
		const { place } = this;
		const at = this.#near()?.at ?? place;
		this.submit = at.matches(BUTTON) ? (at as HTMLButtonElement) : at.querySelector<HTMLButtonElement>(BUTTON);
		this.form = this.#main?.form ?? at.closest('form') ?? this.submit?.form ?? at.querySelector('form');
	}

	#near() {
		return this.#shop.finder?.near.get(this.place);
	}

	#stand(): void {
		const { place } = this;
		const hadFocus = place.contains(document.activeElement);
		this.#reserved = place.style.minHeight;
		this.is = 'ours';
		this.host ??= hostOfOurs();
		const button = this.draw();
		place.append(this.host);
		// One rule of ours hides what else is in the place, also what the page puts there later.
		place.toggleAttribute('data-up-stands', true);
		place.removeAttribute('data-up-kept');
		if (hadFocus) button.focus();
		this.#shop.watch(this);
	}

	/** Takes all of ours out of the place; what remains is the word why, for whoever looks into the page. */
	leave(why = 'error'): void {
		clearTimeout(this.#clock);
		this.#passing = '';
		if (this.place.dataset.upKept !== why) this.place.dataset.upKept = why;
		this.#note?.remove();
		const was = this.is;
		this.is = 'own';
		if (was !== 'ours') return;
		this.host.remove();
		this.place.style.minHeight = this.#reserved;
		delete this.place.dataset.upStands;
		this.#shop.left?.(this);
		this.drawn?.();
	}

	/** Returns the product as it is told now. Of the place and its form the one that has changed last is believed. */
	#read(): Product | null {
		if (this.#main) return this.#main.is === 'ours' ? this.#main.product : null;
		if (!this.place.isConnected) return null;
		const { upProduct: place = '' } = this.place.dataset;
		// A form that holds several products says nothing of this one, unless one of them is chosen.
		const fields = this.fields(this.#shop.manifest.basket.product_field);
		const form = (fields[1] ? fields.find((field) => field.checked) : fields[0])?.value ?? '';
		if (place !== this.#placeSays) this.#instead = '';
		else if (form !== this.#formSays && this.#formSays === this.product?.sku) this.#instead = form;
		this.#placeSays = place;
		this.#formSays = form;
		const product = this.#shop.read(this.place, form, this.#instead);
		if (!product || product.code !== form) return product;
		const { sku, code } = this.#paired;
		// Another product over the code of the one before: nobody can tell what a press would add.
		if (code === form && sku !== product.sku) return form === sku ? { ...product, code: product.sku } : null;
		this.#paired = { sku: product.sku, code: form };
		return product;
	}

	/** Returns which placement this is. */
	name(): string {
		return this.place.dataset.upPlace ?? '';
	}

	/** Returns the form's fields of a name, however many there are. */
	fields(name: string): Field[] {
		const named = this.form?.elements.namedItem(name) ?? [];
		const all = (named instanceof Element ? [named] : Array.from(named)) as Field[];
		// An id is taken for a name as well.
		return all.filter((field) => field.name === name);
	}

	/** Returns what is chosen of each option, joined; empty as long as one is not. */
	option(): string {
		const { options, manifest } = this.#shop;
		return options?.chosen(this, manifest.basket.option_fields) ?? '';
	}

	/** Returns a control in which the shopper has still to choose something; null where all is chosen. */
	unchosen(): Field | null {
		const { options, manifest } = this.#shop;
		return (
			options?.unchosen(this, manifest.basket.option_fields) ??
			this.form?.querySelector<Field>(':is(select,[type=radio]):invalid') ??
			null
		);
	}

	moment(): Moment {
		const { situation, needsChoice } = this.product!;
		// What is asked about is neither in a basket nor out of stock.
		if (this.standing!.made.message) return 'ready';
		if (situation === 'sold_out') return 'sold_out';
		if (needsChoice && (this.unchosen() || !this.option())) return 'choose_first';
		if (this.#passing) return this.#passing;
		if (this.#count()) return 'in_basket';
		return situation === 'pre_order' ? 'pre_order' : 'ready';
	}

	#count(): number {
		const { basket } = this.#shop;
		const { sku, code } = this.product!;
		// An empty basket is the usual case, and needs no look at the form.
		if (!basket?.count) return 0;
		return countOf(basket, code, this.option()) || countOf(basket, sku, this.option());
	}

	#now(): string {
		return this.moment() + this.#count();
	}

	draw(): HTMLButtonElement {
		const moment = this.moment();
		const count = this.#count();
		const { manifest, looker, spoken, fillText, drawIcon, paintQuantity, paintSecond } = this.#shop;
		const { made, words, high } = this.standing!;
		const product = this.product!;
		this.#drawnAs = moment + count;
		// Neither a lower nor a higher button of ours may move what stands below.
		this.place.style.minHeight = `${Math.max(this.own.high, high) + this.own.more}px`;
		const fill = (pattern: Pattern) => fillText?.(pattern, product, count, spoken) ?? pattern.join('');
		const text = sayText(words, moment, looker.language, manifest.language, fill) || product.name || product.sku;
		const own = (texts: Record<string, Pattern> | null | undefined) =>
			texts ? withoutHoles(fill(texts[looker.language] ?? texts[manifest.language] ?? [])) : '';
		const button = paint(this.host, {
			...spoken,
			base: manifest.base,
			made,
			moment,
			text,
			name: product.name,
			lang: looker.language,
			inactive: this.inactive(moment),
			drawIcon,
			paintQuantity,
			paintSecond,
			spoken: moment === 'ready' ? own(made.spoken) : '',
			second: own(made.second),
			press: (after) => this.#shop.press(this, after),
		});
		if (moment === 'added' || moment === 'working') this.#shop.announce?.(`${text}, ${product.name}`);
		this.drawn?.();
		return button;
	}

	/** Where the choice is on the page, the button waits for it; elsewhere it leads to the page that has it. */
	inactive(moment: Moment): boolean {
		if (this.standing!.made.notify && moment === 'sold_out') return false;
		return moment === 'sold_out' || moment === 'working' || (moment === 'choose_first' && !!this.unchosen());
	}

	/** Shows a passing moment, for a time where one is given; a later one is not ended by an earlier one's time. */
	pass(moment: Moment | '', forMs = 0): void {
		clearTimeout(this.#clock);
		this.#passing = moment;
		this.draw();
		if (forMs) this.#clock = setTimeout(() => this.pass(''), forMs);
	}

	/** Leaves the place to the shop's own button, with a note, until something else is told here. */
	giveBack(why: string, note: HTMLElement): void {
		this.leave(why);
		this.is = 'given back';
		this.#note = note;
		this.place.append(note);
		this.submit?.focus();
	}

	/** Leaves the place: for good where a press failed, and else until what it means is loaded. */
	giveUp(): void {
		if (!this.#shop.isLame) this.#torn = MOST_TORN;
		this.tend();
		this.submit?.focus();
	}

	/** Leaves the place for as long as the same is told here. */
	cut(): void {
		this.#cutAs = this.#told;
		this.tend();
	}
}
