import type { Node } from '../base/shop';
import { part } from '../basket/reads';
import type { Basket, Language } from '../base/types';

/** Returns the kinds of a product as an address of the shop's tells them, in the words of schema.org; see `VariantsJson`. */
export async function kindsOf({ variants }: Basket, sku: string, { money }: Language): Promise<Node[] | undefined> {
	if (!variants) return undefined;
	const { path, items, product, options, price, available, picture, smallest } = variants;
	const answer = await fetch(path.replace('{product}', encodeURIComponent(sku)), {
		headers: { Accept: 'application/json' },
	});
	const lines = answer.ok && part(await answer.json(), items);
	if (!Array.isArray(lines)) return undefined;
	return lines.map((kind) => {
		const costs = String(part(kind, price || '-') ?? '');
		const left = part(kind, available || '-') ?? true;
		return {
			sku: part(kind, product),
			image: part(kind, picture || '-'),
			additionalProperty: options.map((name) => ({ name: name.split('.').at(-1), value: part(kind, name) })),
			offers: {
				price: costs && smallest ? (Number(costs) / 10 ** money.digits).toFixed(money.digits) : costs,
				// A number, a yes or no, or one of them as a text.
				availability: /^(0|false|no|)$/.test(String(left)) || Number(left) < 0 ? 'SoldOut' : 'InStock',
			},
		};
	});
}
