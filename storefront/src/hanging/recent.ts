import type { Row } from '../base/types';

/** A product of a row: its code, the path of its page, and what of its picture stays in sight. */
export type Tile = Row['tiles'][number];

/** So many products a browser remembers. */
const MOST = 12;

/** Which products a browser has looked at, the last one first; there is no id of a shopper in it. */
function make(store: string) {
	const kept = `up.seen.${store}`;

	/** Returns where this browser may remember: only for the visit as long as nothing is said, and nowhere on refusal. */
	function shelf(): Storage | null {
		const { upConsent } = document.documentElement.dataset;
		if (upConsent === 'no') for (const all of [localStorage, sessionStorage]) all.removeItem(kept);
		if (upConsent === 'no') return null;
		const isOpposed = (navigator as { globalPrivacyControl?: boolean }).globalPrivacyControl;
		return upConsent === 'yes' && !isOpposed ? localStorage : sessionStorage;
	}

	function seen(): Tile[] {
		try {
			const tiles = JSON.parse(shelf()?.getItem(kept) ?? '[]') as Tile[];
			// Whoever wrote it: only this shop's own pages are asked.
			return tiles.filter(({ sku, path }) => sku && /^\/(?![/\\])/.test(path)).slice(0, MOST);
		} catch {
			return [];
		}
	}

	function remember(sku: string): void {
		const all = [{ sku, path: location.pathname }, ...seen().filter((tile) => tile.sku !== sku)];
		try {
			shelf()?.setItem(kept, JSON.stringify(all.slice(0, MOST)));
		} catch {
			// Where nothing can be kept, nothing is.
		}
	}

	return { seen, remember };
}
export type MakeRecent = typeof make;

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: MakeRecent }) | null;
if (own) own.up = make;
