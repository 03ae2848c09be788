import { beforeEach, describe, expect, it } from 'vitest';
import { readAmounts } from '../button/live';
import { readOrder } from '../signals/order';
import { hold, indexProducts, isInData, kindOf, LD, ownCode, readProduct, readSchema } from './page';

function page(...schemas: unknown[]): void {
	document.body.innerHTML = '';
	for (const schema of schemas) {
		const script = document.createElement('script');
		script.type = 'application/ld+json';
		script.textContent = typeof schema === 'string' ? schema : JSON.stringify(schema);
		document.body.append(script);
	}
}
function place(data: Record<string, string> = {}): HTMLElement {
	const element = document.createElement('div');
	Object.assign(element.dataset, data);
	return element;
}
const offer = { '@type': 'Offer', price: '64.50', priceCurrency: 'GBP', availability: 'https://schema.org/InStock' };
const box = { '@type': 'Product', sku: 'BOX', name: 'Nucleus box', category: 'Hives', url: '/p/BOX', offers: offer };

beforeEach(() => page());

describe('what the page tells of its products', () => {
	it('is known by the script that holds it, whatever part of it changes', () => {
		page(box);
		const script = document.querySelector('script')!;
		expect([isInData(script), isInData(document.body), isInData(null)]).toEqual([true, false, false]);
		expect([script, document.body, script.firstChild!].map((node) => hold([node], LD))).toEqual([true, true, false]);
		expect(hold([document.createElement('p'), document.createElement('b')], LD)).toBe(false);
	});
});

describe('a product', () => {
	it('is read from the only one that the page describes', () => {
		page({ '@context': 'https://schema.org', ...box });
		expect(readProduct(place(), indexProducts(readSchema(document)))).toMatchObject({
			sku: 'BOX',
			price: '64.50',
			situation: 'plain',
			needsChoice: false,
		});
	});

	it('is found in graphs and lists, by its code', () => {
		const veil = { ...box, sku: 'VEIL', offers: [{ ...offer, availability: 'http://schema.org/SoldOut' }] };
		page({ '@graph': [{ '@type': 'ItemList', itemListElement: [{ item: box }, { item: veil }] }] });
		expect(readProduct(place({ upProduct: 'VEIL' }), indexProducts(readSchema(document)))).toMatchObject({
			sku: 'VEIL',
			situation: 'sold_out',
		});
		expect(readProduct(place(), indexProducts(readSchema(document)))).toBeNull();
	});

	it('is that of the page where related ones are told as well, by its address or its canonical one', () => {
		const veil = { ...box, sku: 'VEIL', url: 'https://x.example/p/VEIL' };
		const told = (path: string, canonical = '') => {
			history.replaceState(null, '', path);
			page(veil, box);
			if (canonical)
				document.body.append(Object.assign(document.createElement('link'), { rel: 'canonical', href: canonical }));
			const products = indexProducts(readSchema(document));
			return [ownCode(products), kindOf(products, ownCode(products))];
		};
		expect(told('/p/BOX?from=list')).toEqual(['BOX', 'product']);
		expect(told('/hives/BOX', '/p/BOX')).toEqual(['BOX', 'product']);
		expect(told('/c/hives')).toEqual(['', 'list']);
		page(box);
		expect(ownCode(indexProducts(readSchema(document)))).toBe('BOX');
		// A group and its variants lie at one address; a list that gives its own for each of them is about none.
		page({ ...box, '@type': 'ProductGroup', hasVariant: [{ ...box, sku: 'BOX-S', url: '/p/BOX?v=s' }] }, veil);
		history.replaceState(null, '', '/p/BOX');
		expect(ownCode(indexProducts(readSchema(document)))).toBe('BOX');
		page({ ...box, url: '#a' }, { ...veil, url: '#b' });
		expect(ownCode(indexProducts(readSchema(document)))).toBe('');
		page({ ...box, url: 'https://[' }, veil);
		expect(ownCode(indexProducts(readSchema(document)))).toBe('');
		history.replaceState(null, '', '/');
	});

	it('needs a choice where the page describes a group', () => {
		page({ ...box, '@type': 'ProductGroup' });
		expect(readProduct(place(), indexProducts(readSchema(document)))?.needsChoice).toBe(true);
	});

	it('is what its own attributes say, before what the page says', () => {
		page(box);
		const own = { upProduct: 'BOX', upName: 'Box', upPrice: '60.00', upAvailability: 'OutOfStock', upChoice: 'yes' };
		expect(readProduct(place(own), indexProducts(readSchema(document)))).toMatchObject({
			name: 'Box',
			price: '60.00',
			situation: 'sold_out',
			needsChoice: true,
		});
	});

	it.each([
		['https://schema.org/PreOrder', '', {}, 'pre_order'],
		['https://schema.org/PreOrder', '2001-01-01', {}, 'plain'],
		['https://schema.org/PreOrder', '2999-01-01', {}, 'pre_order'],
		['https://schema.org/InStock', '', { includesObject: [{}] }, 'set'],
		['https://schema.org/OutOfStock', '', { includesObject: [{}] }, 'sold_out'],
	])('%s from %s is in its situation', (availability, availabilityStarts, more, situation) => {
		page({ ...box, offers: { ...offer, availability, availabilityStarts, ...more } });
		expect(readProduct(place(), indexProducts(readSchema(document)))?.situation).toBe(situation);
	});

	it('has the price before tax and before its reduction, and what is left', () => {
		const priceSpecification = [
			{ price: '53.75', valueAddedTaxIncluded: false },
			{ price: '80.00', priceType: 'https://schema.org/StrikethroughPrice' },
		];
		page({ ...box, offers: { ...offer, priceSpecification, inventoryLevel: { value: 4 } } });
		const read = readProduct(place(), indexProducts(readSchema(document)), '', '', readAmounts);
		expect(read).toMatchObject({ net: '53.75', was: '80.00', left: '4' });
	});

	it.each(['1,299.00', 'about ten', '12,50', '£12.50', 'NaN', '-3'])(
		'has no price where the page says “%s”',
		(price) => {
			page({ ...box, offers: { ...offer, price } });
			expect(readProduct(place(), indexProducts(readSchema(document)))?.price).toBe('');
			expect(readProduct(place({ upProduct: 'BOX', upPrice: price }), indexProducts([]))?.price).toBe('');
		},
	);

	it('is the one that its form holds, where the page describes that or nothing else is told', () => {
		page(box, { ...box, sku: 'LID' });
		const products = indexProducts(readSchema(document));
		expect(readProduct(place(), products, 'LID')?.sku).toBe('LID');
		expect(readProduct(place({ upProduct: 'BOX' }), products, 'LID')?.sku).toBe('BOX');
		expect(readProduct(place(), indexProducts([]), 'X7')?.sku).toBe('X7');
	});

	it('that came into the form later is read without what the place says of the one before', () => {
		page(box, { ...box, sku: 'LID', offers: { ...offer, price: '9.00' } });
		const before = place({ upProduct: 'BOX', upPrice: '60.00', upName: 'Box' });
		expect(readProduct(before, indexProducts(readSchema(document)), 'LID', 'LID')).toMatchObject({
			sku: 'LID',
			price: '9.00',
		});
		expect(readProduct(before, indexProducts(readSchema(document)), 'BOX-L', 'BOX-L')).toMatchObject({
			price: '',
			name: '',
		});
	});

	it('stands in no page that describes none, whatever is written there', () => {
		page('{ not json', 'null', '[1, "two", null]', { '@type': 'Article' });
		expect(readProduct(place(), indexProducts(readSchema(document)))).toBeNull();
	});
});

describe('an order', () => {
	it('is read line by line', () => {
		const line = {
			'@type': 'Offer',
			price: '64.50',
			priceCurrency: 'GBP',
			eligibleQuantity: { value: 2 },
			itemOffered: { sku: 'BOX' },
		};
		page({ '@type': 'Order', orderNumber: 'T00001', acceptedOffer: [line, { ...line, itemOffered: { sku: 'VEIL' } }] });
		expect(readOrder(readSchema(document))).toEqual([
			{ order: 'T00001', line: '1', product: 'BOX', price: '64.50', quantity: 2, currency: 'GBP' },
			{ order: 'T00001', line: '2', product: 'VEIL', price: '64.50', quantity: 2, currency: 'GBP' },
		]);
	});

	it('without a number is none', () => {
		page({ '@type': 'Order', acceptedOffer: [] });
		expect(readOrder(readSchema(document))).toEqual([]);
	});
});
