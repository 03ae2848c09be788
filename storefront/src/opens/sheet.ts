import { setAria } from '../base/aria';
import type { Choices } from './choices';
import type { MakeCloser } from './closer';
import { lazily, nothing } from '../base/lazily';
import type { MakeNotify } from './notify';
import type { SignalOf } from '../signals/signals';
import { sheetsOf } from './sheet_css';
import type { MakeShow } from './show';
import type { Load, Shop, Stand } from '../base/shop';
import type { Opened, Tools } from './tools';

function element<Name extends keyof HTMLElementTagNameMap>(
	name: Name,
	className = '',
	text = '',
): HTMLElementTagNameMap[Name] {
	return Object.assign(document.createElement(name), { className, textContent: text });
}

/** Names an element for who listens. */
function called<Named extends Element>(at: Named, name: string): Named {
	setAria(at, 'label', name);
	return at;
}

/** Returns a key that closes or does something else. */
function key(className: string, text: string, press: () => void): HTMLButtonElement {
	return Object.assign(element('button', className, text), { type: 'button', onclick: press });
}

/**
 * Opens a sheet by the dialog pattern: the page behind is inert and does not scroll, Escape and a press beside it close
 * it, and the focus goes back to where it came from. There is one at a time.
 *
 * @param words the names of what it holds; the last is their language, the one before what closes it
 * @param way `side`, `middle`, or `card`: over the place whose button was pressed
 */
function openSheet(shop: Shop, stand: Stand, words: readonly string[], way: string): Opened {
	const language = words.at(-1)!;
	const host = element('div');
	host.lang = language;
	host.dir = /^(ar|he)/.test(language) ? 'rtl' : 'ltr';
	host.dataset.upSheet = '';
	// The rule of a button's host would give it a line of its own in the page.
	host.style.cssText = 'position:fixed!important';
	const root = host.attachShadow({ mode: 'open' });
	root.adoptedStyleSheets = sheetsOf(stand.standing!.made, shop.manifest.base);
	const dialog = element('dialog', way);
	const body = element('div', 'f');
	const closes = called(
		key('x', '×', () => dialog.close()),
		words.at(-2)!,
	);
	dialog.append(body, closes);
	root.append(dialog);
	// One that opens out of another goes back to where that came from.
	const back = shop.opened?.back ?? stand.host;
	shop.opened?.close();
	const { style, clientWidth } = document.documentElement;
	const [overflow, padding] = [style.overflow, style.paddingInlineEnd];
	if (way !== 'card') {
		// The page must not move sideways when its scroll bar goes.
		style.paddingInlineEnd = `${innerWidth - clientWidth}px`;
		style.overflow = 'hidden';
	}
	const { announce } = shop;
	const close = () => {
		if (!host.isConnected) return;
		host.remove();
		shop.announce = announce;
		if (way !== 'card') [style.overflow, style.paddingInlineEnd] = [overflow, padding];
		delete shop.opened;
	};
	shop.opened = { back, close };
	dialog.onclose = () => {
		close();
		back.focus();
	};
	dialog.onclick = ({ target }) => {
		if (target === dialog) dialog.close();
	};
	document.body.append(host);
	dialog.showModal();
	// Once it holds something, and before it is seen.
	if (way === 'card') requestAnimationFrame(() => over(dialog, stand.place));
	return { host, root, dialog, body };
}

/** Lets buttons on a sheet be heard there: the page's own region is out of reach while it is open. */
function hearOn(shop: Shop, dialog: HTMLDialogElement): void {
	const says = element('p', 'n');
	says.setAttribute('role', 'status');
	dialog.append(says);
	shop.announce = (text) => void (says.textContent = text);
}

/** Stands a sheet over the card that a place is in: its lower edge where the card's is, and whole within the window. */
function over(dialog: HTMLDialogElement, place: HTMLElement): void {
	const { left, right, bottom } = (place.closest('li,article') ?? place).getBoundingClientRect();
	const wide = Math.max(right - left, 260);
	const { style } = dialog;
	style.cssText = `position:absolute;margin:0;inset:auto;width:${wide}px`;
	style.left = `${scrollX + Math.max(0, Math.min(left, innerWidth - wide))}px`;
	style.top = `${scrollY + Math.max(8, bottom - dialog.offsetHeight)}px`;
}

const tools: Tools = { called, element, hearOn, key, openSheet };

/** Opens what a press leads to on a sheet; what stands on it is loaded by itself. */
function make(shop: Shop, signal: SignalOf, load: Load) {
	const { more } = shop.manifest;
	const stands = new Set<Stand>();
	const closer = lazily(() =>
		Promise.all([load<MakeCloser>(more.closer), load<Choices>(more.choices)]).then(([make, choices]) =>
			make(shop, tools, choices, stands, signal),
		),
	);
	const show = lazily(() => load<MakeShow>(more.show).then((make) => make(shop, tools)));
	const notify = lazily(() => load<MakeNotify>(more.notify).then((make) => make(shop, tools, signal)));
	const left = shop.left;
	shop.left = (stand) => {
		stands.delete(stand);
		left?.(stand);
	};
	shop.show = (stand, basket) => show().then((open) => open(stand, basket));

	/** Has what a press may open there before a finger is. */
	function prepare(stand: Stand): void {
		const { show: shown, closer: looks } = stand.standing!.made;
		if (shown) show().catch(nothing);
		if (!looks) return;
		stands.add(stand);
		closer().then(({ prepare }) => prepare(stand), nothing);
	}

	/** Opens what a press means, or tells that it means something else. */
	function press(stand: Stand, after: string): Promise<unknown> | undefined {
		const moment = stand.moment();
		if (after === 'closer') return closer().then(({ open }) => open(stand, true));
		if (after === 'notify' && moment === 'sold_out') return notify().then((open) => open(stand));
		const { closer: looks } = stand.standing!.made;
		if (moment !== 'choose_first' || stand.unchosen()) return undefined;
		// Pressed too early on a sheet, it leads to where the choice is.
		const sheet = stand.place.closest('[data-up-sheet]')?.shadowRoot;
		const choice = sheet?.querySelector('input');
		if (choice) return Promise.resolve(choice.focus());
		// The choice that it needs is not here, and can be made here all the same.
		const isOpen = looks?.choose && stand.product!.url && !sheet;
		return isOpen ? closer().then(({ open }) => open(stand, false)) : undefined;
	}
	return { prepare, press };
}
export type MakeSheets = typeof make;

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: MakeSheets }) | null;
if (own) own.up = make;
