import { goodsReader, tellPlace } from './goods';
import type { Shop, Stand } from './stand';
import type { Fixed } from './types';

/** Returns what stands for one product wherever it hangs, read from that one's own page, instead of for the page's own. */
function make(shop: Shop, Standing: typeof Stand, of: Fixed, onTold: () => void): typeof Stand {
	const { read } = goodsReader(shop);
	return class extends Standing {
		#isTold = false;

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
			const told = of.path ? await read(of).catch(() => null) : null;
			if (!told) return void (place.dataset.upKept = 'product');
			const { form } = told;
			// What is in no document tells nothing; whether it is due is looked at right after.
			const host = place.closest('[data-up-bar],[data-up-floating]');
			if (host && !host.isConnected) document.documentElement.append(host);
			if (form && !place.closest('form')) {
				place.replaceWith(form);
				form.append(place);
			}
			tellPlace(place, place.dataset.upPlace!, told.product);
			this.page = told.page;
			this.#isTold = true;
			super.tend(true);
			onTold();
		}
	};
}
export type MakeFixed = typeof make;

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: MakeFixed }) | null;
if (own) own.up = make;
