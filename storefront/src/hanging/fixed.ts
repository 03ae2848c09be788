import { goodsReader, tellPlace } from '../page/goods';
import { element } from '../base/element';
import { isMeant } from '../places/on_page';
import { kindOf, ownCode } from '../page/page';
import type { Hanging, MakeStand, Shop, Stand } from '../base/shop';
import type { Fixed } from '../base/types';

/** What loads and makes what hangs, once it is known to hang on this page. */
type Hang = (standing: MakeStand) => Promise<Hanging>;

/** Hangs something for one product wherever it is meant to, read from that one's own page, instead of for the page's own. */
function make(shop: Shop, Standing: MakeStand, of: Fixed, hang: Hang, ready: () => unknown): Hanging['follow'] {
	const { read } = goodsReader(shop);
	/** How often it was made: beside another button of the page it is made anew, and the newest counts. */
	let count = 0;
	class FixedStand extends Standing {
		#isTold = false;
		readonly #number = ++count;

		constructor(shop: Shop, place: HTMLElement) {
			super(shop, place);
			void this.#read();
		}

		/** Until it is known what it stands for, nothing does: another product would be a wrong one. */
		override tend(anew = false): void {
			if (this.#isTold) super.tend(anew);
		}

		async #read(): Promise<void> {
			const { place } = this;
			const goods = of.path ? await read(of).catch(() => null) : null;
			await ready();
			if (this.#number !== count) return;
			if (!goods) return void (place.dataset.upKept = 'product');
			const { form } = goods;
			// What is in no document tells nothing; whether it is due is looked at right after.
			const host = place.closest('[data-up-bar],[data-up-floating]');
			if (host && !host.isConnected) document.documentElement.append(host);
			if (form && !place.closest('form')) {
				place.replaceWith(form);
				form.append(place);
			}
			tellPlace(place, place.dataset.upPlace!, goods.product);
			this.page = goods.page;
			this.#isTold = true;
			super.tend(true);
			hanging!.show();
		}
	}
	let hanging: Hanging | undefined;
	let asked: Promise<void> | undefined;
	/** What it stands beside now: on a page without a button of its own that one has always been scrolled past. */
	let beside: Stand | undefined;
	let passed: Stand | undefined;
	function always(): Stand {
		const place = element('i');
		place.style.cssText = 'position:absolute;top:-9px;height:1px';
		document.documentElement.append(place);
		return { place } as unknown as Stand;
	}
	return (main, anew) => {
		const { products } = shop.places!;
		const isHere = isMeant(of, kindOf(products, ownCode(products)));
		beside = isHere ? (main ?? (passed ??= always())) : undefined;
		if (isHere) asked ??= hang(FixedStand).then((stand) => (hanging = stand).follow(beside, true));
		hanging?.follow(beside, anew);
	};
}
export type MakeFixed = typeof make;

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: MakeFixed }) | null;
if (own) own.up = make;
