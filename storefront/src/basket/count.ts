import type { InBasket } from '../base/shop';

/** Returns how many of a product, of an option where one is named, lie in a basket. */
export function countOf(basket: InBasket, sku: string, option: string): number {
	return basket.items
		.filter((item) => item.sku === sku && (!option || item.option === option))
		.reduce((sum, item) => sum + item.quantity, 0);
}
