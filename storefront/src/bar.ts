import type { Shop, Stand } from './stand';
import type { Product } from './types';
import type { fillText } from './words';

/** What the bar takes from the script, so that nothing is loaded twice. */
export type Parts = { Stand: typeof Stand; fillText: typeof fillText };

/** Stands the bar at the bottom edge; it comes in once the page's own button has been scrolled past. */
export function standBar(shop: Shop, main: HTMLElement, product: Product, { Stand, fillText }: Parts): Stand | null {
	const host = document.createElement('div');
	const place = document.createElement('div');
	place.dataset.upPlace = 'sticky_bar';
	place.dataset.upTried = '';
	const root = host.attachShadow({ mode: 'open' });
	const sheet = new CSSStyleSheet();
	sheet.replaceSync(shop.manifest.bar ?? '');
	root.adoptedStyleSheets = [sheet];
	const row = document.createElement('div');
	const name = document.createElement('span');
	name.className = 'n';
	const price = document.createElement('span');
	row.append(name, price, document.createElement('slot'));
	root.append(row);
	host.append(place);
	host.inert = true;
	document.body.append(host);
	let stand: Stand;
	try {
		stand = new Stand(shop, place, product, 0, main.closest('form'));
	} catch {
		host.remove();
		return null;
	}
	const { made } = stand.standing;
	host.dir = shop.spoken.rtl ? 'rtl' : 'ltr';
	name.textContent = product.name;
	name.hidden = !made.name;
	price.textContent = fillText([{ v: 'price' }], product, 0, shop.spoken);
	price.hidden = !made.price;
	new IntersectionObserver(([entry]) => {
		if (!entry) return;
		const gone = !entry.isIntersecting && entry.boundingClientRect.top < 0;
		host.toggleAttribute('data-in', gone);
		host.inert = !gone;
		// What is focused by the keyboard must not stand behind the bar (WCAG 2.2, 2.4.11).
		document.documentElement.style.scrollPaddingBottom = gone ? `${host.offsetHeight}px` : '';
	}).observe(main);
	return stand;
}
