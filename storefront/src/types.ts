/** What the edge tells the script; Python's compiler writes it. */

export type Live = { v: 'price' | 'name' | 'count' };
export type Pattern = readonly (string | Live)[];
export type Moment = 'ready' | 'working' | 'added' | 'in_basket' | 'choose_first' | 'sold_out';

export type Compiled = {
	css: string;
	icon: { path: string; box: number; side: string } | null;
	words: Record<string, Record<string, Pattern>>;
	wide: boolean;
	/** Height to reserve, in CSS pixels. */
	high: number;
};

export type MoneyRule = {
	prefix: string;
	suffix: string;
	minus: string;
	decimal: string;
	group: string;
	primary: number;
	secondary: number;
	digits: number;
};

export type Reach = {
	products: readonly string[];
	categories: readonly string[];
	situations: readonly string[];
	placements: readonly string[];
};

export type Rule = { id: string; reach: Reach; rank: readonly boolean[] };

export type Trial = {
	id: string;
	running: boolean;
	salt: string;
	shares: Record<string, number>;
	reach: Reach;
	B: Record<string, Record<string, Compiled>>;
};

export type Basket = {
	add_path: string;
	read_path: string;
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
	money: Record<string, MoneyRule>;
	basket: Basket;
	fonts: readonly Font[];
	rules: readonly Rule[];
	places: Record<string, Record<string, Compiled>>;
	trials: readonly Trial[];
};

export type Product = {
	sku: string;
	name: string;
	category: string;
	/** As the page writes it, for example `189.00`; empty where it has none. */
	price: string;
	currency: string;
	url: string;
	soldOut: boolean;
	needsChoice: boolean;
};
