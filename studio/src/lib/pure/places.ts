import type { PointedPlace, Telling } from '$lib/api/types';
import { many } from './format';

export const WHERE = {
	before: 'before',
	after: 'after',
	inside: 'inside, at the end of',
	instead: 'instead of',
} as const;

type Pages = PointedPlace['pages'];

/** Says on which pages a place is. */
export function pagesSaid(pages: Pages | undefined): string {
	const { kinds = [], paths = [], not_paths: away = [], products = [], categories = [] } = pages ?? {};
	const kind = { product: 'pages of one product', list: 'pages of lists', other: 'pages without products' } as const;
	const where = [
		...kinds.map((kindName) => kind[kindName]),
		...(paths.length ? [`pages at ${paths.join(', ')}`] : []),
		...(categories.length ? [categories.join(', ')] : []),
		...(products.length ? [many(products.length, 'product')] : []),
	];
	const not = away.length ? `, not at ${away.join(', ')}` : '';
	return `on ${where.join(', ') || 'every page where that is'}${not}`;
}

/** Says how the product at a place is told. */
export function tellingSaid(telling: Telling | undefined): string {
	switch (telling?.kind) {
		case 'attribute':
			return `by ${telling.name} beside it`;
		case 'link':
			return `by a link to ${telling.path}`;
		case 'address':
			return 'by a link and the page’s own data';
		default:
			return 'by the page or its form';
	}
}

/** Why the script has left the shop's own button where it is, and what would make ours stand. */
export const KEPT: Record<string, string> = {
	product: 'the page does not tell which product it is',
	hidden: 'the draft shows no button there',
	cut: 'the card cuts off what is higher: let its height grow, or choose a lower button',
	'given up': 'the page takes it out again and again: mark the place in its own code',
	error: 'the page’s own script stopped it',
	'nothing seen': 'this browser has seen no product yet, and none is named until then',
	told: 'no page of its products tells what it sells (JSON-LD with the code)',
};
