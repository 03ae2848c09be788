import { isA, plainNumber, readSchema } from '../page/page';
import type { SignalOf } from './signals';
import type { MoneyRule } from '../base/types';
import { minorUnits } from '../base/words';

type Node = Record<string, unknown>;

export type OrderLine = {
	order: string;
	line: string;
	product: string;
	price: string;
	quantity: number;
	currency?: string;
};

const text = (value: unknown) => (value === undefined || value === null ? '' : String(value));
const first = (value: unknown) => (Array.isArray(value) ? value[0] : value) as Node | undefined;

/** Returns the lines of the order that a thanks page tells of in its JSON-LD. */
export function readOrder(schema: Node[]): OrderLine[] {
	return schema
		.filter((node) => isA(node, /\bOrder$/) && node.orderNumber)
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

/** Returns what signals every order line of the page once, whenever it is asked: a thanks page may come without a load. */
export function orderTeller(signal: SignalOf, money: MoneyRule): () => void {
	const lines = new Set<string>();
	return () => {
		for (const { order, line, product, price, quantity, currency = money.currency } of readOrder(
			readSchema(document),
		)) {
			if (lines.has(`${order} ${line}`)) continue;
			lines.add(`${order} ${line}`);
			// An amount that cannot be read, or in another currency than the store's, is not told; the order is.
			const value = currency === money.currency ? minorUnits(price, money.digits) : undefined;
			const priced = value === undefined ? {} : { value: value * quantity, currency };
			signal('ordered', { order, line, product, quantity, ...priced });
		}
	};
}
