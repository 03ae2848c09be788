import type { Stand, Shop } from '../base/shop';

/** What opens after a press, in the window's top layer: a dialog over everything, and its own element in the page. */
export type Opened = { host: HTMLElement; root: ShadowRoot; dialog: HTMLDialogElement; body: HTMLElement };

/** What sheets are made with; see `sheet`. */
export type Tools = {
	called: <Named extends Element>(at: Named, name: string) => Named;
	element: <Name extends keyof HTMLElementTagNameMap>(
		name: Name,
		className?: string,
		text?: string,
	) => HTMLElementTagNameMap[Name];
	hearOn: (shop: Shop, dialog: HTMLDialogElement) => void;
	key: (className: string, text: string, press: () => void) => HTMLButtonElement;
	openSheet: (shop: Shop, stand: Stand, words: readonly string[], way: string) => Opened;
};
