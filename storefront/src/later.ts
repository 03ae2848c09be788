import type { MakeHanging } from './bar';
import { readBasket } from './basket';
import type { MakeFinder } from './find_later';
import type { MakeFixed } from './fixed';
import type { Hanging } from './hang';
import { BAR_CSS } from './later_facts';
import { lazily, nothing } from './lazily';
import { orderTeller } from './order';
import type { MakeMessage } from './message';
import type { MakeOver } from './over';
import type { MakeRecent } from './recent';
import type { MakeRows } from './row';
import type { MakeSheets } from './sheet';
import { press, tellingOf, type SignalOf } from './press';
import { watcher } from './seen';
import { SignalBox } from './signals';
import type { Shop, Stand } from './stand';
import type { Manifest } from './types';

/** What no page needs before its buttons stand: what presses mean, who has seen what, what hangs, orders. */
export type Later = {
	press: (stand: Stand, after: string) => void;
	watch: (stand: Stand) => void;
	/** All that hangs at the window. */
	hang: (Standing: typeof Stand, ready: () => unknown) => Promise<Hanging['follow']>;
	tellOrders: () => void;
	/** Rows of tiles, and what a browser remembers for them. */
	rows: (then: (rows: ReturnType<MakeRows>) => void) => void;
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
	let isHeard = false;
	shop.css = BAR_CSS;
	const lay = lazily(() => load<MakeOver>(manifest.more.over).then((make) => make(shop)));
	const signals = shop.isSilent ? null : new SignalBox(manifest, () => shop.looker.shopper);
	const signal: SignalOf = (kind, telling) => signals?.add({ kind, ...telling });
	const { watch, unwatch } = watcher((stand) => signal('shown', tellingOf(stand, shop)));
	shop.left = ({ host }) => unwatch(host);
	/** Lets the page be looked through: that is done once it has changed, and this changes nothing of it. */
	const look = () => {
		const mark = document.createElement('i');
		document.head.append(mark);
		mark.remove();
	};
	const hangOne = async (
		name: 'sticky_bar' | 'floating',
		file: Manifest['later'] | undefined,
		Standing: typeof Stand,
		ready: () => unknown,
	): Promise<Hanging['follow'] | undefined> => {
		if (!file) return;
		const of = manifest.places[name]?.fixed;
		const hang = async (standing: typeof Stand) => (await load<MakeHanging>(file))(shop, standing);
		if (of) return (await load<MakeFixed>(manifest.more.fixed))(shop, Standing, of, hang, ready);
		// It is loaded once there is something beside which it hangs.
		let hanging: Hanging | undefined;
		let asked: Promise<void> | undefined;
		return (main, anew) => {
			if (hanging) hanging.follow(main, anew);
			else if (main)
				asked ??= hang(Standing).then((made) => {
					hanging = made;
					look();
				});
		};
	};
	const hangAll = async (Standing: typeof Stand, ready: () => unknown) => {
		const { bar, floating } = manifest.more;
		const all = await Promise.all([
			hangOne('sticky_bar', bar, Standing, ready),
			hangOne('floating', floating, Standing, ready),
		]);
		return (main: Stand | undefined, anew: boolean) => all.forEach((follow) => follow?.(main, anew));
	};
	let hung: ReturnType<typeof hangAll> | undefined;
	async function loadRows() {
		const { row, recent } = manifest.more;
		const [make, remembers] = await Promise.all([load<MakeRows>(row), recent && load<MakeRecent>(recent)]);
		return make(shop, remembers?.(manifest.key));
	}
	const rows = lazily(loadRows);
	const ask = lazily(() => load<MakeMessage>(manifest.more.message).then((make) => make(shop, signal)));
	const sheet = lazily(() => load<MakeSheets>(manifest.more.sheet).then((make) => make(shop, signal, load)));
	async function pressed(stand: Stand, after: string): Promise<void> {
		if (after === 'message') return (await ask())(stand);
		try {
			const opens = stand.standing?.made.sheet && (await sheet()).press(stand, after);
			if (opens) return void (await opens);
		} catch {
			// Nothing was sent: its own page has all of that.
			return location.assign(stand.product!.url);
		}
		return press(stand, shop, after, signal);
	}
	// Another tab may have filled the basket meanwhile.
	document.addEventListener('visibilitychange', async () => {
		if (document.hidden || !shop.basket) return;
		const basket = await readBasket(manifest.basket, shop.reads);
		if (basket && JSON.stringify(basket) !== JSON.stringify(shop.basket)) shop.changed((shop.basket = basket));
	});
	const tools: Later = {
		press: pressed,
		watch(stand) {
			// A region is heard only where it stood before; a page without a button gets none.
			if (!isHeard) shop.announce!('');
			isHeard = true;
			const made = stand.standing?.made;
			// There before a finger is: what opens a tab must follow a press at once.
			if (made?.message) ask().catch(nothing);
			if (made?.sheet) sheet().then(({ prepare }) => prepare(stand), nothing);
			if (!made?.over) return watch(stand);
			// It is seen once it lies on its picture.
			lay().then((onPicture) => {
				onPicture(stand);
				watch(stand);
			}, nothing);
		},
		// It is asked for again until it is there, and is loaded once.
		hang: (Standing, ready) => (hung ??= hangAll(Standing, ready)),
		tellOrders: orderTeller(signal, shop.spoken.money),
		rows: (then) => void rows().then(then, nothing),
	};
	const { find } = manifest.more;
	if (find && !shop.finder)
		void load<MakeFinder>(find).then((make) => {
			shop.finder = make(shop, (then) => then(tools));
			look();
		});
	else if (manifest.soon) setTimeout(look);
	return tools;
}
export type Begin = typeof begin;

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: Begin }) | null;
if (own) own.up = begin;
