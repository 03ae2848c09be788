import type { Product } from './types';

type Node = Record<string, unknown>;

function nodes(value: unknown): Node[] {
	if (Array.isArray(value)) return value.flatMap(nodes);
	if (!value || typeof value !== 'object') return [];
	const node = value as Node;
	const inner = ['@graph', 'itemListElement', 'item', 'mainEntity'].flatMap((key) => nodes(node[key]));
	return [node, ...inner];
}

/** Returns every schema.org node of the page, whatever list it stands in; text that is not JSON is passed over. */
export function readSchema(root: ParentNode = document): Node[] {
	return Array.from(root.querySelectorAll('script[type="application/ld+json"]')).flatMap((script) => {
		try {
			return nodes(JSON.parse(script.textContent || ''));
		} catch {
			return [];
		}
	});
}

function first(value: unknown): Node {
	return (Array.isArray(value) ? value[0] : value) as Node;
}

function text(value: unknown): string {
	return value === undefined || value === null ? '' : String(value);
}

/** Returns the product of a placement: its data attributes first, then the page's JSON-LD; null where there is none. */
export function readProduct(place: HTMLElement, schema: Node[]): Product | null {
	const data = place.dataset;
	const products = schema.filter((n) => n['@type'] === 'Product' || n['@type'] === 'ProductGroup');
	const node = data.upProduct
		? products.find((n) => text(n.sku || n.productGroupID) === data.upProduct)
		: products.length === 1
			? products[0]
			: undefined;
	const sku = data.upProduct || text(node?.sku);
	if (!sku) return null;
	const offer = first(node?.offers) || {};
	return {
		sku,
		name: data.upName || text(node?.name),
		category: data.upCategory || text(node?.category),
		price: data.upPrice || text(offer.price),
		currency: data.upCurrency || text(offer.priceCurrency),
		url: data.upUrl || text(node?.url),
		soldOut: /OutOfStock|SoldOut/.test(data.upAvailability || text(offer.availability)),
		needsChoice: data.upChoice ? data.upChoice === 'yes' : node?.['@type'] === 'ProductGroup',
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
