import type { Stand } from '../base/shop';

const VIEW_MS = 1000;

/** Returns what follows a button and what lets go of it: `shown` once half of it has been in view for one second, `cut` where it cannot be seen whole. */
export function watcher(shown: (stand: Stand) => void) {
	const followed = new Map<Element, { stand: Stand; timer: number }>();
	const observer = new IntersectionObserver(
		(entries) => {
			for (const entry of entries) {
				const { target, intersectionRatio } = entry;
				const at = followed.get(target);
				if (!at) continue;
				clearTimeout(at.timer);
				if (!target.isConnected) end(target);
				else if (isCut(entry)) at.stand.cut();
				else if (intersectionRatio >= 0.5)
					at.timer = window.setTimeout(() => {
						end(target);
						shown(at.stand);
					}, VIEW_MS);
			}
		},
		{ threshold: [0, 0.5, 0.9] },
	);
	/** A button that goes away unseen is told by nobody else: no observer hears of it. */
	const end = (target: Element) => {
		clearTimeout(followed.get(target)?.timer);
		followed.delete(target);
		observer.unobserve(target);
	};
	const watch = (stand: Stand) => {
		end(stand.host);
		followed.set(stand.host, { stand, timer: 0 });
		observer.observe(stand.host);
	};
	return { watch, unwatch: end };
}

/** Tells whether a box that lies whole in the window is cut off below or above by something that does not scroll. */
function isCut(entry: IntersectionObserverEntry): boolean {
	const { target, intersectionRatio, boundingClientRect: box, rootBounds: view } = entry;
	if (intersectionRatio >= 0.9 || !view || box.top < view.top || box.bottom > view.bottom) return false;
	for (let at = target.parentElement; at; at = at.parentElement) {
		const { overflowY } = getComputedStyle(at);
		if (/auto|scroll/.test(overflowY)) return false;
		const edge = at.getBoundingClientRect();
		if (overflowY !== 'visible' && (box.bottom > edge.bottom + 1 || box.top < edge.top - 1)) return true;
	}
	return false;
}
