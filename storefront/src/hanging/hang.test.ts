import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import type { MakeStand, Shop, Stand } from '../base/shop';
import { hang, type MadeHanging } from './hang';

type Entry = { isIntersecting: boolean; boundingClientRect: { top: number } };
/** What a browser tells of where things are: jsdom lays nothing out. */
let observers: { watched: Set<Element>; tell: (entry: Entry) => void }[];
class Observer {
	watched = new Set<Element>();
	constructor(tell: (entries: Entry[]) => void) {
		observers.push({ watched: this.watched, tell: (entry) => tell([entry]) });
	}
	observe(element: Element) {
		this.watched.add(element);
	}
	disconnect() {
		this.watched.clear();
	}
}
const above = { isIntersecting: false, boundingClientRect: { top: -50 } };
const inside = { isIntersecting: true, boundingClientRect: { top: 50 } };

beforeAll(() => {
	vi.stubGlobal('ResizeObserver', Observer);
});
beforeEach(() => {
	observers = [];
	vi.stubGlobal('IntersectionObserver', Observer);
	vi.stubGlobal('visualViewport', undefined);
	document.documentElement.querySelectorAll('[data-up-bar]').forEach((host) => host.remove());
});

/** Hangs a bar with a look of its own beside a main button; `is` tells whether it is in the window. */
function begin(look: Partial<MadeHanging>, shop: Partial<Shop> = {}) {
	const made = { css: '', ...look } as MadeHanging;
	let stands: Stand['is'] = 'ours';
	class Standing {
		drawn?: () => void;
		product = { sku: 'A1' };
		standing = { made: {} };
		get is() {
			return stands;
		}
		tend() {
			this.drawn?.();
		}
		leave() {
			stands = 'own';
		}
	}
	let isAway = false;
	const fill = vi.fn();
	const bar = hang({ css: '', spoken: {}, ...shop } as unknown as Shop, Standing as unknown as MakeStand, {
		placement: 'sticky_bar',
		mark: 'data-up-bar',
		made: () => made,
		fill,
		isAway: () => isAway,
	});
	const place = document.createElement('div');
	const main = { place } as unknown as Stand;
	bar.follow(main, false);
	const host = () => document.querySelector('[data-up-bar]');
	return {
		bar,
		main,
		fill,
		is: () => !!host()?.hasAttribute('data-in'),
		host,
		away: (now: boolean) => ((isAway = now), bar.show()),
		/** Tells those who follow the main button, the point of coming, or the page's foot. */
		tell: (which: 'past' | 'seen' | 'come' | 'foot', entry: Entry) =>
			observers.filter((_, n) => n < 4)[['past', 'seen', 'come', 'foot'].indexOf(which)]!.tell(entry),
	};
}

describe('what hangs at the window', () => {
	it('comes once the main button has been scrolled past, and goes with it', () => {
		const bar = begin({});
		expect([bar.is(), bar.host()?.parentNode]).toEqual([false, document.documentElement]);
		bar.tell('past', above);
		expect(bar.is()).toBe(true);
		bar.tell('past', inside);
		expect(bar.is()).toBe(false);
	});

	it('is not there for who cannot see it', () => {
		const bar = begin({});
		expect((bar.host() as HTMLElement).inert).toBe(true);
		bar.tell('past', above);
		expect((bar.host() as HTMLElement).inert).toBe(false);
	});

	it('comes after so many pixels while the main button is not seen', () => {
		const bar = begin({ px: 300 });
		bar.tell('come', above);
		expect(bar.is()).toBe(true);
		bar.tell('seen', inside);
		expect(bar.is()).toBe(false);
	});

	it('stays once it has come, where that is wished', () => {
		const bar = begin({ px: 300, stays: true });
		bar.tell('come', above);
		bar.tell('come', inside);
		expect(bar.is()).toBe(true);
	});

	it('makes way for the page’s foot and for who wants to be left alone', () => {
		const bar = begin({ foot: 200 });
		bar.tell('past', above);
		bar.tell('foot', above);
		expect(bar.is()).toBe(false);
		bar.tell('foot', inside);
		expect(bar.is()).toBe(true);
		bar.away(true);
		expect(bar.is()).toBe(false);
	});

	it('leaves the page with the main button, and lets go of what it followed', () => {
		const bar = begin({});
		bar.tell('past', above);
		bar.bar.follow(undefined, false);
		expect(bar.host()).toBeNull();
		expect(observers.slice(0, 2).every(({ watched }) => watched.size === 0)).toBe(true);
	});

	it('is held in the window while somebody draws it', () => {
		expect(begin({}, { held: 'sticky_bar' }).is()).toBe(true);
	});
});
