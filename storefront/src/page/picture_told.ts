/** Returns the first picture of a product that a page's data tells, or that of its card for social pages. */
export function pictureTold(page: Document, sku: string): string | undefined {
	let src: string | false | undefined;
	for (const { textContent } of page.querySelectorAll('script[type$="ld+json"]'))
		try {
			JSON.parse(textContent!, (_, value) => {
				const image = value?.sku === sku && [value.image].flat()[0];
				src ||= image?.url ?? image;
				return value;
			});
		} catch {
			// Another script's data may be broken.
		}
	return src || page.querySelector<HTMLMetaElement>('[property="og:image"]')?.content;
}
