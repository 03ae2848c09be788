import { element } from '../base/element';
import { hang } from './hang';
import { pictureTold } from '../page/picture_told';
import type { Hanging, MakeStand, Shop } from '../base/shop';
import type { Compiled } from '../base/types';

type Made = NonNullable<Compiled['bar']>;

/** Keeps until when the bar stays away, if that is told, and returns it; where nothing can be kept, this page knows. */
function closing(until = 0): number {
	try {
		if (until) localStorage['up.bar'] = until;
		// What was never kept is no number, and no time is before that.
		return +localStorage['up.bar'];
	} catch {
		return until;
	}
}

/** The bar at an edge of the window, with what it holds. */
function make(shop: Shop, Standing: MakeStand): Hanging {
	let closedUntil = closing();
	const bar = hang<Made>(shop, Standing, {
		placement: 'sticky_bar',
		mark: 'data-up-bar',
		made: (look) => look.bar,
		isAway: () => closedUntil > Date.now(),
		fill(row, made, { product, page }) {
			const { fillText, spoken, looker, manifest } = shop;
			const heading = made.heading?.[looker.language] ?? made.heading?.[manifest.language] ?? '';
			const price = fillText?.([{ v: made.net ? 'price without tax' : 'price' }], product!, 0, spoken) ?? '';
			const texts: Record<string, string> = { name: product!.name, heading, price: price.replace('\0', '') };
			const inner = element('div', 'w');
			for (const part of made.parts)
				if (part === 'button') inner.append(element('slot', part));
				else if (part === 'picture') {
					const src = pictureTold(page ?? document, product!.sku);
					// The name beside it says what is to be seen.
					if (src) inner.append(Object.assign(element('img', part), { src, alt: '' }));
				} else if (texts[part]) inner.append(Object.assign(element('span', `t ${part}`), { textContent: texts[part] }));
			if (made.close) inner.append(closeKey(made.close));
			row.replaceChildren(inner);
		},
	});

	function closeKey({ hours, names }: NonNullable<Made['close']>): HTMLElement {
		const key = Object.assign(element('button', 'x'), { textContent: '×' });
		key.setAttribute('aria-label', names[shop.looker.language]!);
		key.onclick = () => {
			closedUntil = closing(Date.now() + hours * 36e5);
			bar.show();
			document.querySelector<HTMLElement>('[data-up-place=product_page] [data-up-button]')?.focus();
		};
		return key;
	}

	return bar;
}

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: typeof make }) | null;
if (own) own.up = make;
