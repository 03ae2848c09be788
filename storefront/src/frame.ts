import type { Manifest } from './types';

/** What the studio says to a page in one of its frames, and what the page says to it. */
export type ToFrame = { up: 'draft'; manifest?: Partial<Manifest>; show?: string; product?: string };
export type FromFrame = { up: 'ready' } | { up: 'drawn'; at: number };

/**
 * Keeps a page in the studio's frame in step with what is being drawn there. Only the studio that the draft's script names
 * is listened to, and only from the window that holds the frame.
 */
export function frame(manifest: Manifest, redraw: () => void): void {
	const { studio } = manifest;
	if (!studio || parent === window) return;
	addEventListener('message', (event: MessageEvent<ToFrame>) => {
		if (event.origin !== studio || event.source !== parent || event.data?.up !== 'draft') return;
		const { manifest: changed, show, product } = event.data;
		if (changed) {
			// Texts and looks only: where signals go and whose shop it is stays as it was told.
			const { looks, places, words, rules, base, languages } = { ...manifest, ...changed };
			Object.assign(manifest, { looks, places, words, rules, base, languages });
			redraw();
			// Told with the frame in which it is seen, not when the document alone has it.
			requestAnimationFrame(() =>
				parent.postMessage({ up: 'drawn', at: performance.timeOrigin + performance.now() }, studio),
			);
		}
		if (show) {
			const place = `[data-up-place="${CSS.escape(show)}"]`;
			const own = document.querySelector(`${place}[data-up-product="${CSS.escape(product ?? '')}"]`);
			(own ?? document.querySelector(place))?.scrollIntoView({ block: 'center' });
		}
	});
	parent.postMessage({ up: 'ready' }, studio);
}
