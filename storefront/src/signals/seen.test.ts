import { beforeEach, expect, it, vi } from 'vitest';
import { watcher } from './seen';
import type { Stand } from '../base/shop';

/** An observer that tells what it is told to, and knows what it watches. */
class Observer {
	static last: Observer;
	readonly watched = new Set<Element>();
	constructor(readonly tell: (entries: Partial<IntersectionObserverEntry>[]) => void) {
		Observer.last = this;
	}
	observe(target: Element): void {
		this.watched.add(target);
	}
	unobserve(target: Element): void {
		this.watched.delete(target);
	}
}

beforeEach(() => {
	vi.useFakeTimers();
	vi.stubGlobal('IntersectionObserver', Observer);
	document.body.replaceChildren();
});

function stand(): Stand {
	const host = document.createElement('div');
	document.body.append(host);
	return { host, cut: vi.fn() } as unknown as Stand;
}
const all = { top: 0, bottom: 100 } as DOMRectReadOnly;
const seen = (target: Element, intersectionRatio: number) =>
	Observer.last.tell([{ target, intersectionRatio, boundingClientRect: all, rootBounds: all }]);

it('tells of a button once it has been half in view for a second', () => {
	const shown = vi.fn();
	const { watch } = watcher(shown);
	const one = stand();
	watch(one);
	seen(one.host, 0.6);
	vi.advanceTimersByTime(900);
	seen(one.host, 0.3);
	vi.advanceTimersByTime(900);
	expect(shown).not.toHaveBeenCalled();
	seen(one.host, 0.9);
	vi.advanceTimersByTime(1001);
	expect(shown).toHaveBeenCalledExactlyOnceWith(one);
	expect(Observer.last.watched.size).toBe(0);
});

it('lets go of a button that leaves before anybody has seen it', () => {
	const shown = vi.fn();
	const { watch, unwatch } = watcher(shown);
	const [one, other] = [stand(), stand()];
	watch(one);
	watch(other);
	seen(other.host, 1);
	for (const { host } of [one, other]) {
		unwatch(host);
		host.remove();
	}
	vi.advanceTimersByTime(5000);
	expect(Observer.last.watched.size).toBe(0);
	expect(shown).not.toHaveBeenCalled();
});
