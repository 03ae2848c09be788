import { finder } from '../places/find';

/** Finds places for rows only: these come later than buttons, and no page waits for them. */
export type MakeFinder = typeof finder;

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: MakeFinder }) | null;
if (own) own.up = finder;
