import type { Node } from '../base/shop';

/** Returns what a page's data tells of a product, wherever in it that stands. */
export function nodeTold(page: Document, sku: string): Node | undefined {
	let node: Node | undefined;
	for (const { textContent } of page.querySelectorAll('script[type$="ld+json"]'))
		try {
			JSON.parse(textContent, (_, value: Node | null) => {
				const isIt = value && (value.sku || value.productGroupID) === sku && /Product/.test(String(value['@type']));
				// A group goes before one of its own that has the same code.
				if (isIt && (!node || value.hasVariant)) node = value;
				return value;
			});
		} catch {
			// Another script's data may be broken.
		}
	return node;
}
