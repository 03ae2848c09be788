import type { Product } from './types';

type Node = Record<string, unknown>;

const HOLDERS = ['@graph', 'itemListElement', 'item', 'mainEntity'];
const read = new WeakMap<Element, Node[]>();

function collect(value: unknown, into: Node[]): Node[] {
	if (Array.isArray(value)) value.forEach((one) => collect(one, into));
	else if (value && typeof value === 'object') {
		into.push(value as Node);
		for (const key of HOLDERS) if (key in value) collect((value as Node)[key], into);
	}
	return into;
}

/** Returns the nodes of one script, which is read only once. */
function nodesOf(script: Element): Node[] {
	let nodes = read.get(script);
	if (!nodes) {
		try {
			nodes = collect(JSON.parse(script.textContent || ''), []);
		} catch {
			nodes = [];
		}
		read.set(script, nodes);
	}
	return nodes;
}

/** Returns every schema.org node of the page, whatever list it stands in; text that is not JSON is passed over. */
export function readSchema(root: ParentNode = document): Node[] {
	return Array.from(root.querySelectorAll('script[type="application/ld+json"]')).flatMap(nodesOf);
}

function first(value: unknown): Node {
	return (Array.isArray(value) ? value[0] : value) as Node;
}

function text(value: unknown): string {
	return value === undefined || value === null ? '' : String(value);
}

/** Returns the products that a page describes, by their codes. */
export function indexProducts(schema: Node[]): Map<string, Node> {
	const products = schema.filter((n) => n['@type'] === 'Product' || n['@type'] === 'ProductGroup');
	return new Map(products.map((n) => [text(n.sku || n.productGroupID), n]));
}

/** Returns the product of a placement: its data attributes first, then the page's JSON-LD; null where there is none. */
export function readProduct(place: HTMLElement, products: Map<string, Node>): Product | null {
	const data = place.dataset;
	const only = products.size === 1 ? products.values().next().value : undefined;
	const node = data.upProduct ? products.get(data.upProduct) : only;
	const sku = data.upProduct || text(node?.sku);
	if (!sku) return null;
	const offer = first(node?.offers) || {};
	const told = data.upAvailability || text(offer.availability);
	const starts = Date.parse(text(offer.availabilityStarts));
	const needsChoice = data.upChoice ? data.upChoice === 'yes' : node?.['@type'] === 'ProductGroup';
	const prices = [offer.priceSpecification ?? []].flat() as Node[];
	const priced = (of: (price: Node) => unknown) => text(prices.find(of)?.price);
	return {
		sku,
		name: data.upName || text(node?.name),
		category: data.upCategory || text(node?.category),
		price: data.upPrice || text(offer.price),
		net: data.upNet || priced((p) => p.valueAddedTaxIncluded === false),
		was: data.upWas || priced((p) => /Strikethrough|List/.test(text(p.priceType))),
		left: data.upLeft || text(first(offer.inventoryLevel)?.value),
		currency: data.upCurrency || text(offer.priceCurrency),
		url: data.upUrl || text(node?.url),
		needsChoice,
		situation: /OutOfStock|SoldOut/.test(told)
			? 'sold_out'
			: /PreOrder|PreSale/.test(told) && !(starts <= Date.now())
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
	currency: string;
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
				price: text(offer.price),
				quantity: Number(first(offer.eligibleQuantity)?.value ?? 1),
				currency: text(offer.priceCurrency),
			}));
		});
}
