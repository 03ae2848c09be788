import type { Compiled } from '../base/types';
import { element } from '../base/element';
import type { Hanging, MakeStand, Shop, Stand } from '../base/shop';

/** When something that is fixed to the window comes and goes, and its style sheet. */
export type MadeHanging = NonNullable<Compiled['floating']>;
/** What is said of one of them: its name, what hosts are marked by, and what it holds. */
type Kind<Made> = {
	placement: 'sticky_bar' | 'floating';
	mark: string;
	made: (look: Compiled) => Made | undefined;
	fill: (row: HTMLElement, made: Made, stand: Stand) => void;
	/** Tells whether a shopper wants to be left alone with it. */
	isAway?: () => boolean;
};

/** What lies below counts as seen: a jump from above it to below it would else change nothing. */
const PASSING = { root: document, rootMargin: '0px 0px 999999px' };
/** A keyboard on the screen takes at least so much of it, in CSS pixels. */
const KEYBOARD_PX = 150;

/** Returns what of the shop's is stuck to the upper edge of the window now. */
function stuckAbove(own: Element): Element | undefined {
	for (const at of document.elementsFromPoint(innerWidth / 2, 1))
		for (let x: Element | null = at; x && x !== own; x = x.parentElement)
			if (/fixed|sticky/.test(getComputedStyle(x).position) && x.clientHeight < innerHeight / 2) return x;
}

/**
 * Hangs something at an edge or in a corner of the window: it comes and goes as the release says, by observers instead of
 * by listening to every scroll. Its own element stands after the page's body and keeps as much room there as it covers.
 */
export function hang<Made extends MadeHanging>(shop: Shop, Standing: MakeStand, kind: Kind<Made>): Hanging {
	const host = element('div');
	const place = element('div');
	const row = element('div', 'r');
	const sheet = new CSSStyleSheet();
	const padding = new CSSStyleSheet();
	/** Points of the page that are passed when it comes and when it goes. */
	const comePoint = element('i');
	const footPoint = element('i');
	const is = { past: false, seen: false, come: false, foot: false, up: false, typing: false };
	let current: Made | undefined;
	let stand: Stand | null = null;
	let main: Stand | undefined;
	let wasAt = 0;

	/** With `PASSING` it is told whether something has been scrolled past, else whether it is in the window. */
	const watch = (what: 'past' | 'seen' | 'come' | 'foot', how?: IntersectionObserverInit) =>
		new IntersectionObserver((entries) => {
			const { isIntersecting, boundingClientRect } = entries[entries.length - 1]!;
			is[what] = how ? !isIntersecting && boundingClientRect.top < 0 : isIntersecting;
			show();
		}, how);
	const ofOwn = [watch('past', PASSING), watch('seen')];
	const coming = watch('come', PASSING);
	const ending = watch('foot', PASSING);

	host.setAttribute(kind.mark, '');
	place.dataset.upPlace = kind.placement;
	const root = host.attachShadow({ mode: 'open' });
	root.adoptedStyleSheets = [sheet];
	root.append(row, comePoint, footPoint);
	host.append(place);
	document.adoptedStyleSheets.push(padding);
	const sizes = new ResizeObserver(measure);
	sizes.observe(row);
	sizes.observe(document.documentElement);
	visualViewport?.addEventListener('resize', () => {
		// A page that is drawn larger by two fingers shows less of itself, and there is no keyboard for that.
		const { height, scale } = visualViewport!;
		is.typing = innerHeight - height * scale > KEYBOARD_PX;
		show();
	});

	function draw(): void {
		const now = stand?.product && stand.standing ? kind.made(stand.standing.made) : undefined;
		if (!now) return;
		if (now !== current) {
			current = now;
			sheet.replaceSync(shop.css + current.css);
			is.foot = is.come = false;
			// The way of scrolling is heard only where it decides.
			if (current.up) addEventListener('scroll', turned);
			measure();
		}
		kind.fill(row, current, stand!);
	}

	/** Sets the points at which it comes and goes, and keeps room at the page's end for what it covers there. */
	function measure(): void {
		const { px, share, foot, top } = current ?? {};
		const most = document.documentElement.scrollHeight - innerHeight;
		const at = (mark: HTMLElement, observer: IntersectionObserver, atPx?: number) => {
			observer.disconnect();
			mark.style.top = `${(atPx ?? 0) - 1}px`;
			if (atPx !== undefined) observer.observe(mark);
		};
		at(comePoint, coming, px ?? (share && share * most));
		at(footPoint, ending, foot && most - foot);
		host.style.height = `${(!top && !foot && covered()) || 0}px`;
	}

	/** Returns how far it reaches into the window from its edge; what slides is not where it lies. */
	const covered = () => {
		const { offsetTop, offsetHeight } = row;
		return current?.top ? offsetTop + offsetHeight : offsetHeight + parseFloat(getComputedStyle(row).bottom);
	};

	function turned(): void {
		is.up = scrollY < wasAt;
		wasAt = scrollY;
		show();
	}

	function isDue(): boolean {
		const { past, seen, come, foot, up, typing } = is;
		if (!current || typing || foot || kind.isAway?.() || (current.up && !up)) return false;
		// What stays once it has come does not go again on this page.
		if (current.stays && host.hasAttribute('data-in')) return true;
		return current.share === undefined && current.px === undefined ? past : come && (current.stays || !seen);
	}

	function show(): void {
		const stands = !!stand && stand.is !== 'own';
		// After the page's own body it is no part of how that sets its parts, and stays when a page draws it anew.
		if (!stands) host.remove();
		else if (!host.isConnected) document.documentElement.append(host);
		const isIn = stands && (isDue() || shop.held === kind.placement);
		host.dir = shop.spoken.rtl ? 'rtl' : 'ltr';
		host.inert = !isIn;
		if (host.hasAttribute('data-in') === isIn) return;
		if (isIn && current?.top) {
			// It stands under what the shop has stuck to the upper edge.
			const under = Math.max(0, stuckAbove(host)?.getBoundingClientRect().bottom ?? 0);
			row.style.setProperty('--up-under', `${under}px`);
		}
		host.toggleAttribute('data-in', isIn);
		// What is focused by the keyboard must not stand behind it (WCAG 2.2, 2.4.11).
		const side = current?.top ? 'top' : 'bottom';
		padding.replaceSync(isIn ? `:root:root{scroll-padding-${side}:${covered()}px!important}` : '');
	}

	function follow(now: Stand | undefined, anew: boolean): void {
		if (now !== main) {
			for (const observer of ofOwn) {
				observer.disconnect();
				if (now) observer.observe(now.place);
			}
			stand?.leave();
			main = now;
			is.past = is.seen = false;
			stand = main ? new Standing(shop, place, main) : null;
			if (stand) stand.drawn = draw;
		}
		stand?.tend(anew);
		show();
	}

	return { follow, show };
}
