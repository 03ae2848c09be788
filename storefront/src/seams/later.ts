import { readBasket } from '../basket/basket';
import type { MakeFinder } from './find_later';
import type { MakeFixed } from '../hanging/fixed';
import { BAR_CSS } from '../base/later_facts';
import { lazily, nothing } from '../base/lazily';
import { orderTeller } from '../signals/order';
import type { MakeMessage } from '../opens/message';
import type { MakeOver } from '../hanging/over';
import type { MakeRecent } from '../hanging/recent';
import type { MakeRows } from '../hanging/row';
import type { MakeSheets } from '../opens/sheet';
import { press, tellingOf } from '../press/press';
import type { SignalOf } from '../signals/signals';
import { shopperId } from '../signals/shopper';
import { watcher } from '../signals/seen';
import { SignalBox } from '../signals/signals';
import type { Hanging, Later, Load, MakeHanging, MakeStand, Shop, Stand } from '../base/shop';
import type { Manifest } from '../base/types';

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

function begin(shop: Shop, load: Load): Later {
	const { manifest } = shop;
	shop.announce = announcer();
	shop.changed = (basket) => {
		shop.places!.tend();
		document.dispatchEvent(new CustomEvent('up:basket', { detail: basket }));
	};
	let isHeard = false;
	shop.css = BAR_CSS;
	const lay = lazily(() => load<MakeOver>(manifest.more.over).then((make) => make(shop)));
	const signals = shop.isSilent ? null : new SignalBox(manifest, () => shop.looker.shopper);
	const signal: SignalOf = (kind, telling) => signals?.add({ kind, ...telling });
	const { watch, unwatch } = watcher((stand) => signal('shown', tellingOf(stand, shop)));
	shop.left = ({ host }) => unwatch(host);
	const hangOne = async (
		name: 'sticky_bar' | 'floating',
		file: Manifest['later'] | undefined,
		Standing: MakeStand,
		ready: () => unknown,
	): Promise<Hanging['follow'] | undefined> => {
		if (!file) return;
		const of = manifest.places[name]?.fixed;
		const hang = async (standing: MakeStand) => (await load<MakeHanging>(file))(shop, standing);
		if (of) return (await load<MakeFixed>(manifest.more.fixed))(shop, Standing, of, hang, ready);
		// It is loaded once there is something beside which it hangs.
		let hanging: Hanging | undefined;
		let asked: Promise<void> | undefined;
		return (main, anew) => {
			if (hanging) hanging.follow(main, anew);
			else if (main)
				asked ??= hang(Standing).then((hung) => {
					hanging = hung;
					shop.places!.look();
				});
		};
	};
	const hangAll = async (Standing: MakeStand, ready: () => unknown) => {
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
	const refresh = async () => {
		const before = shop.basket;
		const basket = await readBasket(manifest.basket, shop.reads);
		// What a press was answered meanwhile is younger.
		if (shop.basket === before && basket && JSON.stringify(basket) !== JSON.stringify(before))
			shop.changed!((shop.basket = basket));
	};
	// Another tab may have filled the basket meanwhile, or another page before somebody went back to this one.
	addEventListener('visibilitychange', () => !document.hidden && shop.basket && refresh());
	addEventListener('pageshow', ({ persisted }) => persisted && refresh());
	const tools: Later = {
		press: pressed,
		watch(stand) {
			// A region is heard only where it stood before; a page without a button gets none.
			if (!isHeard) shop.announce!('');
			isHeard = true;
			const look = stand.standing?.made;
			// There before a finger is: what opens a tab must follow a press at once.
			if (look?.message) ask().catch(nothing);
			if (look?.sheet) sheet().then(({ prepare }) => prepare(stand), nothing);
			if (!look?.over) return watch(stand);
			// It is seen once it lies on its picture.
			lay().then((onPicture) => {
				onPicture(stand);
				watch(stand);
			}, nothing);
		},
		// It is asked for again until it is there, and is loaded once.
		hang: (Standing, ready) => (hung ??= hangAll(Standing, ready)),
		shopperId,
		tellOrders: orderTeller(signal, shop.spoken.money),
		rows: (then) => void rows().then(then, nothing),
	};
	const { find } = manifest.more;
	if (find && !shop.finder)
		void load<MakeFinder>(find).then((make) => {
			shop.finder = make(shop, (then) => then(tools));
			shop.places!.look();
		});
	else if (manifest.soon) setTimeout(() => shop.places!.look());
	return tools;
}
export type Begin = typeof begin;

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: Begin }) | null;
if (own) own.up = begin;
