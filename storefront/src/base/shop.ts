/** What the parts of the script know of each other: a part that is loaded by itself fits what is written here. */
import type {
	Compiled,
	Language,
	Manifest,
	Moment,
	Pattern,
	Product,
	Row,
	Rule,
	Trial,
	Words,
	Basket,
	BoxNames,
} from './types';

/** A thing that a page's data describes (schema.org). */
export type Node = Record<string, unknown>;
/** What is known of a form's field. */
export type Field = HTMLElement & { name: string; value: string; type: string; checked?: boolean };

export type InBasket = {
	count: number;
	items: readonly { sku: string; option: string; quantity: number }[];
	/** The whole answer, where its parts have names of the shop's own. */
	told?: unknown;
};
/** What only baskets need that do not tell their count as JSON under the usual names. */
export type Reads = {
	acceptFor: (read: Basket['read']) => string;
	basketIn: (answer: string, read: NonNullable<Basket['read']>) => InBasket | null;
};

/** Fills live values into a text; see `button/live`. */
export type FillText = (pattern: Pattern, product: Product, count: number, spoken?: Language) => string;
/** Reads what only live values need of an offer; see `button/live`. */
export type ReadAmounts = (
	offer: Node,
	number: (name: string, value: unknown) => string,
) => Pick<Product, 'net' | 'was' | 'left'>;
export type DrawIcon = (icon: NonNullable<Compiled['icon']>) => SVGElement;
export type PaintQuantity = (
	root: ShadowRoot,
	button: Element,
	rule: Compiled['quantity'],
	name?: string,
	usual?: BoxNames,
) => void;
/** Draws a second button beside the first one. */
export type PaintSecond = (
	root: ShadowRoot,
	of: { made: Compiled; second?: string; inactive?: boolean; press?: (after: string) => void },
) => void;
/** Where a button stands and for whom, by the dimensions of a reach. */
export type Context = Record<string, string>;
/** Finds the exceptions that hold; see `button/rules`. */
export type Covering = (rules: readonly Rule[], context: Context, now?: number) => Rule[];
/** Changes what stands to the versions that a shopper gets; see `button/deal`. */
export type DealVersions = (
	standing: Standing,
	trials: readonly Trial[],
	place: string,
	key: string,
	context: Context,
	by: Looker,
) => void;
/** Reads what is chosen of a product's options; see `button/options`. */
export type Options = {
	chosen: (stand: Stand, names: readonly string[]) => string;
	unchosen: (stand: Stand, names: readonly string[]) => Field | undefined;
};

/** The products that a page describes, by their codes; `only` is the one where it describes one. */
export type Products = { by: Map<string, Node>; only?: Node };
/** Where a place belongs: the shop's own button or form, what it stands instead of, and what tells when it comes near. */
export type Near = { at: Element; own?: HTMLElement; seenBy?: Element };
export type Finder = {
	/** Puts a place wherever one was pointed at on this page, and takes those out that are no longer there. */
	find: (products: Products) => void;
	/** Tells whether changes at these elements can change where places are: on a large page finding takes its time. */
	isTouched: (changed: Set<Element>) => boolean;
	near: WeakMap<Element, Near>;
	/** Attributes by which the page tells which product lies where. */
	told: string[];
};

/** The button for a place and a product. */
export type Standing = {
	made: Compiled;
	/** Height to reserve: the larger of the versions under trial. */
	high: number;
	versions: Record<string, string>;
	/** Texts by layer, the most particular first. */
	words: readonly Words[];
};

/** Who looks, and what deals them to versions where there are trials; `forced` are versions that a link asks for. */
export type Looker = {
	language: string;
	device: string;
	shopper: string;
	kind: string;
	/** Only where there are exceptions. */
	covering?: Covering;
	deal?: DealVersions;
	forced?: Record<string, string>;
};

/** A place of the page and what stands there; see `button/stand`. */
export interface Stand {
	readonly place: HTMLElement;
	readonly is: 'own' | 'ours' | 'given back';
	readonly host: HTMLElement;
	readonly product: Product | null;
	readonly standing: Standing | null;
	readonly form: HTMLFormElement | null;
	readonly submit: HTMLButtonElement | null;
	/** The page that tells its product, where that is another one than this. */
	page?: Document;
	/** When it was pressed last, by the page's own clock. */
	pressedAt: number;
	/** Called whenever it has been drawn or has left. */
	drawn?: () => void;
	name(): string;
	fields(name: string): Field[];
	option(): string;
	unchosen(): Field | null;
	moment(): Moment;
	inactive(moment: Moment): boolean;
	tend(anew?: boolean): void;
	leave(why?: string): void;
	pass(moment: Moment | '', forMs?: number): void;
	giveBack(why: string, note: HTMLElement): void;
	giveUp(): void;
	cut(): void;
}
/** Makes a stand; with `main` it stands for the product and the form of that one. */
export type MakeStand = new (shop: Shop, place: HTMLElement, main?: Stand) => Stand;

/** All that one page's buttons have in common. */
export type Shop = {
	manifest: Manifest;
	looker: Looker;
	/** Fills live values; only where some text has one. */
	fillText?: FillText;
	readAmounts?: ReadAmounts;
	drawIcon?: DrawIcon;
	paintQuantity?: PaintQuantity;
	paintSecond?: PaintSecond;
	reads?: Reads;
	/** Only where the basket takes options. */
	options?: Options;
	/** Finds places that were pointed at; only where there are any. */
	finder?: Finder;
	/** Does what a press means. */
	press: (stand: Stand, after: string) => void;
	/** Follows whether a button is seen, from when it stands for a product. */
	watch: (stand: Stand) => void;
	/** How the page's language writes. */
	spoken: Language;
	/** Somebody only looks, at a draft or a forced version: nothing is signalled. */
	isSilent: unknown;
	/** What presses mean could not be loaded: the shop's own buttons stand. */
	isLame?: boolean;
	/** Lets go of a button that has left. */
	left?: (stand: Stand) => void;
	/** What every bar has, whatever is drawn of it. */
	css?: string;
	/** A placement that is shown whenever it can, since somebody draws it. */
	held?: string;
	/** Null until the shop has told what is in it. */
	basket: InBasket | null;
	/** What lies over the page now after a press, and where the focus goes back to. */
	opened?: { back: HTMLElement; close: () => void };
	/** Shows the basket; only where a press does. */
	show?: (stand: Stand, basket: InBasket) => unknown;
	/** Says a sentence to screen readers. */
	announce?: (text: string) => void;
	places?: {
		/** What the page tells now. */
		readonly products: Products;
		/** Looks through the page again, since more can be found or hung now. */
		look: () => void;
		/** Makes every button true for what is told now. */
		tend: () => void;
	};
	/** Called with the basket after it has changed. */
	changed?: (basket: InBasket) => void;
	/** Returns the product of a place, as this page or another one tells it; see `readProduct`. */
	read: (place: HTMLElement, form?: string, instead?: string, of?: Document) => Product | null;
};

/** What hangs at the window and stands for the page's own product. */
export type Hanging = {
	/** Stands for the page's main button, whichever that is now; without one it goes out. */
	follow: (main: Stand | undefined, anew: boolean) => void;
	/** Looks again whether it is due. */
	show: () => void;
};
/** Makes what hangs; see `hanging/bar` and `hanging/floating`. */
export type MakeHanging = (shop: Shop, Standing: MakeStand) => Hanging;

/** Rows of tiles; see `hanging/row`. */
export type Rows = {
	stand: (host: HTMLElement, row: Row, placement: string, own: string) => void;
	remember: (sku: string) => void;
};

/** What no page needs before its buttons stand: what presses mean, who has seen what, what hangs, orders. */
export type Later = {
	press: (stand: Stand, after: string) => void;
	watch: (stand: Stand) => void;
	/** All that hangs at the window. */
	hang: (Standing: MakeStand, ready: () => unknown) => Promise<Hanging['follow']>;
	tellOrders: () => void;
	/** Returns the shopper's own id; see `signals/shopper`. */
	shopperId: () => string;
	/** Rows of tiles, and what a browser remembers for them. */
	rows: (then: (rows: Rows) => void) => void;
};
/** Uses what a page needs only after its buttons stand, once that is loaded. */
export type UseLater = (then: (tools: Later) => void, fails?: () => void) => void;
/** Loads what only some pages need; see `loadFile`. */
export type Load = <T>(file?: { file: string; integrity: string }) => Promise<T>;
