import { pictureBeside } from '../page/picture';
import type { Shop, Stand } from '../base/shop';

/** `by` is how far it has been moved. */
type Laid = { stand: Stand; picture?: HTMLImageElement; around?: Element; by: { x: number; y: number } };

/**
 * Lays buttons on the pictures beside their places, and follows them wherever those go. No element of the shop's is
 * touched: a button is moved by as much as it lies off its spot, whatever it is placed against.
 */
function make(shop: Shop): (stand: Stand) => void {
	const all = new Map<HTMLElement, Laid>();
	let asked = 0;
	const soon = () => (asked ||= requestAnimationFrame(() => ((asked = 0), layAll())));
	const sizes = new ResizeObserver(soon);
	sizes.observe(document.body);

	function layAll(): void {
		for (const [host, laid] of all)
			if (host.isConnected) lay(host, take(host, laid));
			// A page that draws itself anew takes a button out and gets it back.
			else if (!laid.stand.place.isConnected) {
				all.delete(host);
				sizes.unobserve(host);
				if (laid.picture) sizes.unobserve(laid.picture);
			}
	}

	function lay(host: HTMLElement, { stand, picture, by }: Laid): void {
		const over = stand.standing?.made.over;
		const on = picture?.getBoundingClientRect();
		const isThere = !!over && !!on && on.width > 0 && on.height > 0;
		host.toggleAttribute('data-on', isThere);
		if (!isThere) return;
		const px = (inset: number | string, of: number) =>
			typeof inset === 'string' ? (parseFloat(inset) / 100) * of : inset;
		const share = host.dir === 'rtl' ? 1 - over.x : over.x;
		const [x, y] = [px(over.across, on.width), px(over.down, on.height)];
		host.style.maxWidth = `${Math.max(0, on.width - 2 * x)}px`;
		const now = host.getBoundingClientRect();
		// At an edge it stands so far inside; in the middle there is no edge.
		const left = on.left + share * (on.width - now.width) + (1 - 2 * share) * x;
		const top = on.top + over.y * (on.height - now.height) + (1 - 2 * over.y) * y;
		// Within something that is drawn larger or smaller a pixel is not one of the window's.
		const drawn = now.width / host.offsetWidth || 1;
		by.x += (left - now.left) / drawn;
		by.y += (top - now.top) / drawn;
		// A translation is no layout shift, also when its words come and it grows.
		host.style.translate = `${by.x}px ${by.y}px`;
	}

	/** What waits comes with a pointer on the picture, and goes by Escape until that is back (WCAG 2.2, 1.4.13). */
	function follow(host: HTMLElement, around: Element): void {
		// In the studio's windows of a phone and a tablet nothing can hover.
		if (shop.manifest.draft && shop.looker.device !== 'desktop') return void host.toggleAttribute('data-near', true);
		around.addEventListener('pointerenter', () => host.toggleAttribute('data-near', true));
		around.addEventListener('pointerleave', () => host.removeAttribute('data-near'));
	}
	document.addEventListener('keydown', ({ key }) => {
		if (key === 'Escape') for (const host of all.keys()) host.removeAttribute('data-near');
	});
	// A picture may come late, and another one instead of it.
	document.addEventListener('load', soon, true);
	// A strip that scrolls within the page moves its pictures.
	document.addEventListener('scroll', ({ target }) => target !== document && soon(), { capture: true, passive: true });

	/** Follows the picture that is beside the place now. */
	function take(host: HTMLElement, laid: Laid): Laid {
		const picture = pictureBeside(laid.stand.place);
		if (!picture || picture === laid.picture) return laid;
		if (laid.picture) sizes.unobserve(laid.picture);
		laid.picture = picture;
		sizes.observe(picture);
		let around: Element = laid.stand.place;
		while (!around.contains(picture)) around = around.parentElement!;
		if (around !== laid.around) follow(host, (laid.around = around));
		return laid;
	}

	return (stand) => {
		const { host } = stand;
		const laid = take(host, all.get(host) ?? { stand, by: { x: 0, y: 0 } });
		if (!all.has(host)) {
			all.set(host, laid);
			sizes.observe(host);
			// What is drawn otherwise lies elsewhere.
			stand.drawn = soon;
		}
		lay(host, laid);
	};
}
export type MakeOver = typeof make;

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: MakeOver }) | null;
if (own) own.up = make;
