import type { Basket } from './types';

export type InBasket = { count: number; items: readonly { sku: string; option: string; quantity: number }[] };

/** The shop answered that it will not: it is not the connection that failed. */
export class Refused extends Error {}

async function told(path: string, init?: RequestInit): Promise<InBasket> {
	const answer = await fetch(path, {
		credentials: 'same-origin',
		headers: { Accept: 'application/json' },
		...init,
	});
	if (answer.status >= 400 && answer.status < 500) throw new Refused();
	if (!answer.ok) throw new Error();
	return (await answer.json()) as InBasket;
}

export function readBasket(basket: Basket): Promise<InBasket> {
	return told(basket.read_path);
}

/** Tells the shop's basket "one more of this" and returns what is in it then. */
export function addToBasket(basket: Basket, sku: string, option: string, quantity: number): Promise<InBasket> {
	const body = new URLSearchParams({ [basket.product_field]: sku, [basket.quantity_field]: String(quantity) });
	if (option) body.set(basket.option_field, option);
	return told(basket.add_path, { method: 'POST', body });
}

export function countOf(basket: InBasket, sku: string, option: string): number {
	return basket.items
		.filter((item) => item.sku === sku && (!option || item.option === option))
		.reduce((sum, item) => sum + item.quantity, 0);
}
