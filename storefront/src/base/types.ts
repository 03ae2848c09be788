/** What the edge tells the script, as Python's compiler writes it; and what the script reads from a page. */
import type { components } from './manifest';

type Told = components['schemas'];
export type Manifest = Told['Manifest'];
export type Pattern = Told['WirePattern'];
export type Words = Told['Words'];
export type Compiled = Told['CompiledButton'];
export type MoneyRule = Told['WireMoney'];
export type Language = Told['WireLanguage'];
export type Reach = Told['WireReach'];
export type Rule = Told['WireRule'];
export type Trial = Told['WireTrial'];
export type Pointed = Told['WirePointed'];
export type Row = Told['WireRow'];
export type Pages = Pick<Told['WireFixed'], 'kinds' | 'paths' | 'not_paths'>;
export type Fixed = Told['WireFixed'];
export type Basket = Told['WireBasket'];
export type Moment = Told['Moment'];
export type Situation = Told['Situation'];
/** What screen readers call a quantity box, its minus and its plus. */
export type BoxNames = readonly string[];

export type Product = {
	sku: string;
	/** What the shop's basket calls it, where the page says that it is not the sku. */
	code: string;
	name: string;
	category: string;
	/** As the page writes it, for example `189.00`; empty where it has none. */
	price: string;
	/** Only where some text says live values. */
	net?: string;
	was?: string;
	left?: string;
	currency: string;
	url: string;
	situation: Situation;
	needsChoice: boolean;
};
