import type { Bar, MakeBar } from './bar';
import { BAR_CSS } from './later_facts';
import { orderTeller } from './order';
import { press, tellingOf, type SignalOf } from './press';
import { watcher } from './seen';
import { SignalBox } from './signals';
import type { Shop, Stand } from './stand';

/** What no page needs before its buttons stand: what presses mean, who has seen what, the bar, orders. */
export type Later = {
	press: (stand: Stand, after: string) => void;
	watch: (stand: Stand) => void;
	bar: (Standing: typeof Stand) => Promise<Bar>;
	tellOrders: () => void;
};

/** A region that is emptied and filled at once is not read out; nor is the same sentence said twice. */
const SPEAK_MS = 60;

/** Returns what says sentences to screen readers, in a region that stands in the page before the first one. */
function announcer(): (text: string) => void {
	const region = document.createElement('div');
	region.style.cssText = 'position:fixed;clip-path:inset(50%)';
	region.setAttribute('role', 'status');
	let speaking = 0;
	return (text) => {
		if (!region.isConnected) document.body.append(region);
		region.textContent = '';
		clearTimeout(speaking);
		if (text) speaking = window.setTimeout(() => (region.textContent = text), SPEAK_MS);
	};
}

/** Loads what only some pages need; see `loadFile`. */
export type Load = <T>(file?: { file: string; integrity: string }) => Promise<T>;

function begin(shop: Shop, load: Load): Later {
	const { manifest } = shop;
	shop.announce = announcer();
	shop.announce('');
	shop.css = BAR_CSS;
	let bar: Promise<Bar> | undefined;
	const signals = shop.isSilent ? null : new SignalBox(manifest, () => shop.looker.shopper);
	const signal: SignalOf = (kind, telling) => signals?.add({ kind, ...telling });
	return {
		press: (stand, after) => void press(stand, shop, after, signal),
		watch: watcher((stand) => signal('shown', tellingOf(stand, shop))),
		bar: (Standing) => (bar ??= load<MakeBar>(manifest.more?.bar).then((make) => make(shop, Standing))),
		tellOrders: orderTeller(signal, shop.spoken.money),
	};
}
export type Begin = typeof begin;

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: Begin }) | null;
if (own) own.up = begin;
