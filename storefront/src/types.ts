/** What the edge tells the script; Python's compiler writes it. */

export type Pattern = readonly (string | Live | Plural)[];
export type Live = { v: string };
/** Words that depend on a count: `=2` for a number, then the language's plural category. */
export type Plural = { p: string } & Record<string, Pattern | string>;
export type Moment = 'ready' | 'working' | 'added' | 'in_basket' | 'choose_first' | 'pre_order' | 'sold_out';
export type Situation = 'plain' | 'choice' | 'set' | 'pre_order' | 'sold_out';

/** Texts of one layer, by moment and language. */
export type Words = Record<string, Record<string, Pattern>>;

export type Compiled = {
	css: string;
	icon: { paths: readonly Record<string, string>[]; box: string; side: string } | null;
	wide: boolean;
	/** Height to reserve in pixels, or each device's own. */
	high: number | Record<string, number>;
	shown: boolean;
	name: boolean;
	price: boolean;
	quantity: {
		least: number;
		most: number;
		step: number;
		start: number;
		layout?: string;
		/** What it and its keys are called, by language, where that is not the usual. */
		names?: Record<string, BoxNames>;
	} | null;
	/** Words of a second button, by language. */
	second?: Record<string, Pattern> | null;
	/** What a button without words is called when it is ready, by language. */
	spoken?: Record<string, Pattern> | null;
	after: string;
};

/** What screen readers call a quantity box, its minus and its plus. */
export type BoxNames = readonly [string, string, string];

export type MoneyRule = {
	/** The store's own; a price in another one is not written by this rule. */
	currency?: string;
	prefix: string;
	suffix: string;
	minus: string;
	decimal: string;
	group: string;
	primary: number;
	secondary: number;
	digits: number;
};

export type Language = {
	money: MoneyRule;
	rtl: boolean;
	/** What is said when a press was refused, when nobody knows what came of it, and what leads to the basket then. */
	outcomes?: readonly [string, string, string];
	/** What a quantity box is usually called; only where a store has one. */
	box?: BoxNames;
	/** Plural categories of 0 to 199, each a figure. */
	plurals: string;
};

/** Lists by dimension; what is not there narrows nothing, and `not_…` takes away. */
export type Reach = Record<string, readonly string[]>;

export type Rule = { id: string; reach: Reach; look?: boolean; words?: Words; from?: number; until?: number };

export type Trial = {
	id: string;
	running: boolean;
	salt: string;
	shares: Record<string, number>;
	reach: Reach;
	B: { words: Words; looks: Record<string, Record<string, Compiled>> };
};

export type Basket = {
	add_path: string;
	read_path: string;
	/** The page on which a shopper sees the basket; where the connection does not say, the path that is read. */
	basket_path?: string | null;
	checkout_path: string;
	product_field: string;
	option_field: string;
	quantity_field: string;
};

export type Font = { family: string; weight: string; range: string; file: string };

export type Manifest = {
	edge: string;
	key: string;
	release: number;
	language: string;
	languages: Record<string, Language>;
	basket: Basket;
	fonts: readonly Font[];
	base: string;
	looks: readonly Compiled[];
	/** In the order in which they apply: the last that covers wins. */
	rules: readonly Rule[];
	places: Record<string, { looks: Record<string, number>; words: Words }>;
	words: Words;
	/** Style sheet of the sticky bar, where the shop has one. */
	bar?: string;
	trials: readonly Trial[];
	/** It is a draft that somebody looks at, in a frame of the studio at this address or by itself. */
	draft?: boolean;
	studio?: string;
};

export type Product = {
	sku: string;
	name: string;
	category: string;
	/** As the page writes it, for example `189.00`; empty where it has none. */
	price: string;
	net: string;
	was: string;
	left: string;
	currency: string;
	url: string;
	situation: Situation;
	needsChoice: boolean;
};
