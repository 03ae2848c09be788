import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Shop, UseLater } from '../base/shop';
import { Places } from './places';

/** What a browser tells of what is near: jsdom lays nothing out. */
let nearing: { watched: Set<Element>; come: (...of: Element[]) => void };
class Observer {
	watched = new Set<Element>();
	constructor(tell: (entries: { isIntersecting: boolean; target: Element }[]) => void) {
		nearing = { watched: this.watched, come: (...of) => tell(of.map((target) => ({ isIntersecting: true, target }))) };
	}
	observe(element: Element) {
		this.watched.add(element);
	}
	unobserve(element: Element) {
		this.watched.delete(element);
	}
}

const stood: string[] = [];
const left: string[] = [];
vi.mock('../button/stand', () => ({
	Stand: class {
		is = 'own';
		form = null;
		product = null;
		constructor(
			readonly shop: Shop,
			readonly place: HTMLElement,
		) {}
		measure() {}
		tend() {
			this.is = 'ours';
			this.place.dataset.upStands = '';
			stood.push(this.place.id);
		}
		leave(why: string) {
			left.push(`${this.place.id} ${why}`);
		}
	},
}));

const place = (id: string) => `<div id=${id} data-up-place=listing_card data-up-product=${id}></div>`;
const at = (id: string) => document.getElementById(id)!;
const soon = () => new Promise((done) => setTimeout(done, 5));

async function follow(more: Partial<Shop['manifest']> = {}, ready: () => unknown = () => undefined) {
	const shop = { manifest: { bar: '', ...more }, looker: {} } as unknown as Shop;
	const later = vi.fn() as unknown as UseLater;
	const places = new Places({ shop, later, ready, turned: () => false });
	shop.places = places;
	places.start();
	await soon();
	return { places, later, shop };
}

describe('the places of a page', () => {
	beforeEach(() => {
		vi.stubGlobal('IntersectionObserver', Observer);
		document.body.innerHTML = `<main>${place('a')}${place('b')}</main>`;
		stood.length = left.length = 0;
	});

	it('get a button once they come near, and are not followed any more', async () => {
		await follow();
		expect([...nearing.watched].map(({ id }) => id)).toEqual(['a', 'b']);
		expect(stood).toEqual([]);
		nearing.come(at('a'));
		await soon();
		expect(stood).toEqual(['a']);
		expect([...nearing.watched].map(({ id }) => id)).toEqual(['b']);
	});

	it('wait for what buttons need before the first of them', async () => {
		let go: (value?: unknown) => void = () => undefined;
		await follow({}, () => new Promise((done) => (go = done)));
		nearing.come(at('a'));
		nearing.come(at('b'));
		await soon();
		expect(stood).toEqual([]);
		go();
		await soon();
		expect(stood).toEqual(['a', 'b']);
	});

	it('come and go with the page, and one that is gone is let go of', async () => {
		await follow();
		at('a').insertAdjacentHTML('afterend', place('c'));
		await soon();
		expect([...nearing.watched].map(({ id }) => id)).toContain('c');
		nearing.come(at('b'));
		await soon();
		const gone = at('b');
		gone.remove();
		await soon();
		// Whatever followed the page in tests before hears of it as well.
		expect(left.at(-1)).toBe('b gone');
		expect(nearing.watched.has(gone)).toBe(false);
	});

	it('are looked at anew only where something has changed', async () => {
		await follow();
		nearing.come(at('a'), at('b'));
		await soon();
		stood.length = 0;
		at('a').dataset.upPrice = '3.00';
		await soon();
		expect(stood).toEqual(['a']);
		stood.length = 0;
		document.querySelector('main')!.append(document.createElement('hr'));
		await soon();
		expect(stood).toEqual([]);
	});

	it('that went before their turn get nothing', async () => {
		await follow();
		nearing.come(at('a'), at('b'));
		at('a').remove();
		await soon();
		expect(stood).toEqual(['b']);
	});

	it('are seen by what they were pointed at, as far as there is such a thing', async () => {
		const { places, shop } = await follow();
		const seenBy = document.querySelector('main')!;
		const near = new WeakMap([[at('b') as Element, { at: at('b'), seenBy }]]);
		shop.finder = { find: () => undefined, isTouched: () => true, near, told: [] };
		places.look();
		expect([...nearing.watched]).toEqual([at('a'), seenBy]);
		nearing.come(seenBy);
		await soon();
		expect(stood).toEqual(['b']);
		expect([...nearing.watched]).toEqual([at('a')]);
	});

	it('do not load what hangs where nothing hangs', async () => {
		const { later } = await follow();
		nearing.come(at('a'));
		await soon();
		expect(later).not.toHaveBeenCalled();
	});
});
