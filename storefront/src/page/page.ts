import type { Node, Products, ReadAmounts } from '../base/shop';
import type { Product } from '../base/types';

export const LD = 'script[type="application/ld+json"]';
const HOLDERS = ['@graph', 'itemListElement', 'item', 'mainEntity'];

/** Tells whether an element lies in what the page tells of its products. */
export const isInData = (element: Element | null) => !!element?.closest(LD);
/** Tells whether one of some nodes is or holds what a selector means. */
export const hold = (nodes: globalThis.Node[], selector: string) =>
	nodes.some((node) => node instanceof Element && (node.matches(selector) || node.querySelector(selector)));

function collect(value: unknown, into: Node[]): Node[] {
	if (Array.isArray(value)) value.forEach((item) => collect(item, into));
	else if (value && typeof value === 'object') {
		into.push(value as Node);
		for (const key of HOLDERS) if (key in value) collect((value as Node)[key], into);
	}
	return into;
}

const parsed = new WeakMap<Element, { text: string; nodes: Node[] }>();

/** Returns the nodes of one script, read once for as long as its text stays; text that is not JSON is passed over. */
function nodesOf(script: Element): Node[] {
	const text = script.textContent || '';
	const kept = parsed.get(script);
	if (kept?.text === text) return kept.nodes;
	let nodes: Node[] = [];
	try {
		nodes = collect(JSON.parse(text), []);
	} catch {
		// What stands in the attributes still tells.
	}
	parsed.set(script, { text, nodes });
	return nodes;
}

/** Returns every schema.org node of the page, whatever list it stands in. */
export function readSchema(of: Document): Node[] {
	return [...of.querySelectorAll(LD)].flatMap(nodesOf);
}

function first(value: unknown): Node {
	return ([value].flat()[0] ?? {}) as Node;
}

function text(value: unknown): string {
	return String(value ?? '');
}

/** Tells whether a node is of a type, however that is written: alone or in a list, bare or with its address. */
export function isA(node: Node, type: RegExp): boolean {
	return [node['@type']].flat().some((name) => type.test(text(name)));
}

/**
 * Returns a price as schema.org writes it, with a point and without groups; what else stands there is not guessed, and
 * nothing and a figure of more than twelve digits are no price.
 */
export function plainNumber(text: string): string {
	text = text.trim();
	return /^\d{1,12}(\.\d+)?$/.test(text) && Number(text) ? text : '';
}

export const TELLS = 'data-up-';
/** Returns what a place tells by its attributes, by their short names: few have more than two. */
function tellingOf(place: HTMLElement): Record<string, string> {
	const attributes: Record<string, string> = {};
	for (const { name, value } of place.attributes)
		if (name.startsWith(TELLS)) attributes[name.slice(TELLS.length)] = value;
	return attributes;
}

const codeOf = (node: Node) => text(node.sku || node.productGroupID);

export function indexProducts(schema: Node[]): Products {
	const described = schema.filter((node) => isA(node, /\bProduct(Group)?$/));
	const variants = described.flatMap((node) => [node.hasVariant ?? []].flat() as Node[]);
	// Of two with one code the first is believed, which is the page's own.
	const by = new Map([...described, ...variants].reverse().map((node) => [codeOf(node), node]));
	const alike = new Set(described.map(codeOf)).size === 1;
	return { by, only: alike ? described[0] : undefined };
}

/** Returns an address that a page tells, if a page can be there: no script, no mail; else null. */
function pageAt(url: unknown): URL | null {
	try {
		const at = new URL(text(url), location.href);
		return url && /^https?:$/.test(at.protocol) ? at : null;
	} catch {
		return null;
	}
}

/** Returns the path of an address that a page tells; nothing where there is none or it cannot be read. */
export const pathOf = (url: unknown) => pageAt(url)?.pathname ?? '';

/**
 * Returns the code of the one product that the page is about: the only one that it describes, or the only one whose
 * address is the page's own or its canonical one (RFC 6596); empty where it is about none or several.
 */
export function ownCode({ only, by }: Products): string {
	if (only) return codeOf(only);
	const canonical = document.querySelector<HTMLLinkElement>('link[rel=canonical]');
	const here = [location.pathname, pathOf(canonical?.href)].filter(Boolean);
	// Reading an address takes its time and a list has hundreds: one without the last name of the path that is sought is not read.
	const names = here.map((path) => (path.includes('%') ? '' : path.slice(path.lastIndexOf('/') + 1)));
	const isHere = ({ url }: Node) => names.some((name) => text(url).includes(name)) && here.includes(pathOf(url));
	const own = [...by].filter(([, node]) => isHere(node));
	const variants = own[0] && [...by.values()].flatMap((node) => node.hasVariant);
	const wholes = own.filter(([, node]) => !variants!.includes(node));
	return wholes[1] ? '' : (wholes[0]?.[0] ?? '');
}

/** Returns what a page is about: one product, which is its own, several, or none. */
export const kindOf = (products: Products, own: string) => (own ? 'product' : products.by.size ? 'list' : 'other');

/**
 * Returns the product of a placement: its data attributes first, then the page's JSON-LD; null where there is none.
 * `form` is the code that its form holds; `instead` is one that came into the form later, of which the attributes know
 * nothing yet; `amounts` reads what only live values need.
 */
export function readProduct(
	place: HTMLElement,
	{ by, only }: Products,
	form = '',
	instead = '',
	amounts?: ReadAmounts,
): Product | null {
	const data = instead ? {} : tellingOf(place);
	const code = instead || data.product || (by.has(form) ? form : '');
	const node = code ? by.get(code) : only;
	const sku = code || text(node?.sku) || form;
	if (!sku) return null;
	const offer = first(node?.offers);
	/** What the place says of itself goes before what the page says. */
	const told = (name: string, value: unknown) => data[name] || text(value);
	const number = (name: string, value: unknown) => plainNumber(told(name, value));
	const availability = told('availability', offer.availability);
	const starts = Date.parse(text(offer.availabilityStarts));
	const needsChoice = data.choice ? data.choice === 'yes' : !!node && isA(node, /\bProductGroup$/);
	return {
		sku,
		// A form may call the product by a code that the page does not know; then that is what its basket wants to hear.
		code: data.code || (by.has(form) ? '' : form) || sku,
		name: told('name', node?.name),
		category: told('category', node?.category),
		price: number('price', offer.price),
		...amounts?.(offer, number),
		currency: told('currency', offer.priceCurrency),
		// It is gone to and becomes a link.
		url: pageAt(told('url', node?.url)) ? told('url', node?.url) : '',
		needsChoice,
		situation: /OutOfStock|SoldOut|Discontinued/.test(availability)
			? 'sold_out'
			: /PreOrder|PreSale/.test(availability) && !(starts <= Date.now())
				? 'pre_order'
				: needsChoice
					? 'choice'
					: data.set || offer.includesObject
						? 'set'
						: 'plain',
	};
}
