import { finder } from './find';
import { covers } from './resolve';
import type { Following } from './places';
import type { Shop } from './stand';

/** Finds places for rows only: these come later than buttons, and no page waits for them. */
const make = (shop: Shop, later: Following['later']) => finder(shop.manifest, covers, shop.read, later);
export type MakeFinder = typeof make;

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: MakeFinder }) | null;
if (own) own.up = make;
