import type { Product } from './types';

type Node = Record<string, unknown>;

const HOLDERS = ['@graph', 'itemListElement', 'item', 'mainEntity'];

function collect(value: unknown, into: Node[]): Node[] {
	if (Array.isArray(value)) value.forEach((one) => collect(one, into));
	else if (value && typeof value === 'object') {
		into.push(value as Node);
		for (const key of HOLDERS) if (key in value) collect((value as Node)[key], into);
	}
	return into;
}

/** Returns the nodes of one script. */
function nodesOf(script: Element): Node[] {
	try {
		return collect(JSON.parse(script.textContent || ''), []);
	} catch {
		return [];
	}
}

const scripts = () => Array.from(document.querySelectorAll('script[type="application/ld+json"]'));

/** Returns all that the page tells of its products, by which a change of it is seen. */
export function schemaText(): string {
	return scripts()
		.map((script) => script.textContent)
		.join();
}

/** Returns every schema.org node of the page, whatever list it stands in; text that is not JSON is passed over. */
export function readSchema(): Node[] {
	return scripts().flatMap(nodesOf);
}

function first(value: unknown): Node {
	return (Array.isArray(value) ? value[0] : value) as Node;
}

function text(value: unknown): string {
	return value === undefined || value === null ? '' : String(value);
}

/** Returns a number as schema.org writes it, with a point and without groups; what else stands there is not guessed. */
function plainNumber(told: string): string {
	return /^\d+(\.\d+)?$/.test(told.trim()) ? told.trim() : '';
}

/** The attributes by which a place tells of its product. */
export const TOLD_BY = 'place product name category price net was left availability currency url choice set'
	.split(' ')
	.map((name) => `data-up-${name}`);

/** Returns the products that a page describes, by their codes. */
export function indexProducts(schema: Node[]): Map<string, Node> {
	const products = schema.filter((n) => n['@type'] === 'Product' || n['@type'] === 'ProductGroup');
	return new Map(products.map((n) => [text(n.sku || n.productGroupID), n]));
}

/**
 * Returns the product of a placement: its data attributes first, then the page's JSON-LD; null where there is none.
 * `form` is the code that its form holds; `instead` is one that came into the form later, of which the attributes know
 * nothing yet.
 */
export function readProduct(place: HTMLElement, products: Map<string, Node>, form = '', instead = ''): Product | null {
	const data = instead ? ({} as DOMStringMap) : place.dataset;
	const code = instead || data.upProduct || (products.has(form) ? form : '');
	const [only, another] = products.values();
	const node = code ? products.get(code) : another ? undefined : only;
	const sku = code || text(node?.sku) || form;
	if (!sku) return null;
	const offer = first(node?.offers) || {};
	/** What the place says of itself goes before what the page says. */
	const told = (name: string, value: unknown) => data[`up${name}`] || text(value);
	const number = (name: string, value: unknown) => plainNumber(told(name, value));
	const availability = told('Availability', offer.availability);
	const starts = Date.parse(text(offer.availabilityStarts));
	const needsChoice = data.upChoice ? data.upChoice === 'yes' : node?.['@type'] === 'ProductGroup';
	const prices = [offer.priceSpecification ?? []].flat() as Node[];
	const priced = (of: (price: Node) => unknown) => prices.find(of)?.price;
	return {
		sku,
		name: told('Name', node?.name),
		category: told('Category', node?.category),
		price: number('Price', offer.price),
		net: number(
			'Net',
			priced((p) => p.valueAddedTaxIncluded === false),
		),
		was: number(
			'Was',
			priced((p) => /Strikethrough|List/.test(text(p.priceType))),
		),
		left: number('Left', first(offer.inventoryLevel)?.value),
		currency: told('Currency', offer.priceCurrency),
		url: told('Url', node?.url),
		needsChoice,
		situation: /OutOfStock|SoldOut/.test(availability)
			? 'sold_out'
			: /PreOrder|PreSale/.test(availability) && !(starts <= Date.now())
				? 'pre_order'
				: needsChoice
					? 'choice'
					: data.upSet || offer.includesObject
						? 'set'
						: 'plain',
	};
}

export type OrderLine = {
	order: string;
	line: string;
	product: string;
	price: string;
	quantity: number;
	currency?: string;
};

/** Returns the lines of the order that a thanks page tells of in its JSON-LD. */
export function readOrder(schema: Node[]): OrderLine[] {
	return schema
		.filter((n) => n['@type'] === 'Order' && n.orderNumber)
		.flatMap((order) => {
			const offers = (order.acceptedOffer ? [order.acceptedOffer].flat() : []) as Node[];
			return offers.map((offer, index) => ({
				order: text(order.orderNumber),
				line: String(index + 1),
				product: text(first(offer.itemOffered)?.sku),
				price: plainNumber(text(offer.price)),
				quantity: Number(first(offer.eligibleQuantity)?.value ?? 1),
				currency: text(offer.priceCurrency) || undefined,
			}));
		});
}
