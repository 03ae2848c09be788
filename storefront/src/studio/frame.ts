import { Measure, thumbsOf } from './measure';
import type { FromFrame, ToFrame } from './messages';
import { Pointer } from './point';
import type { Shop } from '../base/shop';
import type { Compiled, Manifest } from '../base/types';

const fixedIn = ({ sticky_bar: bar, floating }: Manifest['places']) => JSON.stringify([bar?.fixed, floating?.fixed]);

/**
 * Keeps a page in the studio's frame in step with what is being drawn there. Only the studio that the draft's script names
 * is listened to, and only from the window that holds the frame.
 */
export function frame(shop: Shop, redraw: () => void): void {
	const { manifest } = shop;
	const { studio } = manifest;
	if (!studio || parent === window) return;
	const tell = (message: FromFrame) => parent.postMessage(message, studio);
	let pointer: Pointer | undefined;
	// The rules for the page change with what is drawn.
	const levels = new CSSStyleSheet();
	levels.replaceSync(manifest.css);
	document.adoptedStyleSheets.push(levels);
	Object.assign(manifest, { css: '' });
	const measure = new Measure(tell);
	const pointing = () => (pointer ??= new Pointer(manifest.basket.product_field, tell));
	addEventListener('message', (event: MessageEvent<ToFrame>) => {
		const message = event.data;
		if (event.origin !== studio || event.source !== parent) return;
		if (message?.up === 'draft') draw(message);
		else if (message?.up === 'point') pointing().point(message.on);
		else if (message?.up === 'move') pointing().move(message.to);
		else if (message?.up === 'take') pointing().take();
		else if (message?.up === 'show') pointing().show(message.selector);
		else if (message?.up === 'outline') pointing().outline();
		else if (message?.up === 'survey') measure.tellSurvey();
		else if (message?.up === 'thumbs') void thumbsOf(message.srcs).then((thumbs) => tell({ up: 'thumbs', thumbs }));
		else if (message?.up === 'scroll') measure.scrollTo(message.y);
	});

	function draw({ manifest: changed, looks: some, show, product }: ToFrame & { up: 'draft' }): void {
		// For which product something hangs is decided once for a page.
		if (changed?.places && fixedIn(changed.places) !== fixedIn(manifest.places)) return location.reload();
		if (changed) {
			// What is not told is as before. Texts, looks and places only: where signals go and whose shop it is stays as it was told.
			const { places, pointed, words, rules, base, languages } = { ...manifest, ...changed };
			const looks = changed.looks ? sameLooks(changed.looks) : manifest.looks.slice(0, some?.many);
			Object.assign(looks, some?.changed);
			Object.assign(manifest, { looks, places, pointed, words, rules, base, languages });
			if (changed.css !== undefined) levels.replaceSync(changed.css);
			redraw();
			measure.soon();
			// Told with the frame in which it is seen, not when the document alone has it.
			requestAnimationFrame(() => tell({ up: 'drawn', at: performance.timeOrigin + performance.now() }));
		}
		if (show) {
			// A bar that is drawn is seen, wherever on the page one is.
			shop.held = show;
			redraw();
			const place = `[data-up-place="${CSS.escape(show)}"]`;
			const own = document.querySelector(`${place}[data-up-product="${CSS.escape(product ?? '')}"]`);
			(own ?? document.querySelector(place))?.scrollIntoView({ block: 'center' });
		}
	}

	/** What has not changed stays the same object: its style sheet is not made anew, nor worked out by the browser. */
	function sameLooks(looks: readonly Compiled[]): Compiled[] {
		const known = new Map(manifest.looks.map((look) => [JSON.stringify(look), look]));
		return looks.map((look) => known.get(JSON.stringify(look)) ?? look);
	}

	tell({ up: 'ready' });
}
