import type { Shop, Stand } from './stand';

/** Stands the bar at the bottom edge; it comes in once the page's own button has been scrolled past. */
export function standBar(shop: Shop, main: Stand, Standing: typeof Stand): Stand | null {
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
		stand = new Standing(shop, place, 0, main);
	} catch {
		host.remove();
		return null;
	}
	const { style } = document.documentElement;
	stand.drawn = () => {
		const { made } = stand.standing;
		name.textContent = stand.product.name;
		name.hidden = !made.name;
		price.textContent = (shop.fillText?.([{ v: 'price' }], stand.product, 0, shop.spoken) ?? '').replace('\0', '');
		price.hidden = !made.price || !price.textContent;
	};
	stand.drawn();
	host.dir = shop.spoken.rtl ? 'rtl' : 'ltr';
	const passing = new IntersectionObserver(([entry]) => {
		if (!entry) return;
		const gone = !entry.isIntersecting && entry.boundingClientRect.top < 0;
		host.toggleAttribute('data-in', gone);
		host.inert = !gone;
		// What is focused by the keyboard must not stand behind the bar (WCAG 2.2, 2.4.11).
		style.scrollPaddingBottom = gone ? `${host.offsetHeight}px` : '';
	});
	passing.observe(main.place);
	stand.left = () => {
		passing.disconnect();
		host.remove();
		style.scrollPaddingBottom = '';
	};
	return stand;
}
