import type { FromFrame } from './messages';
import { pictureBeside } from '../page/picture';
import type { Block, Box, PageSurvey, SeenPlace, Stuck } from './page_survey';

const MOST_BLOCKS = 400;
const THUMB_PX = 96;
const AGAIN_MS = 150;
/** A page that is still being loaded may have no styles yet; one whose pictures never come is not waited for. */
const LOADS_MS = 2500;
// Other names are no placements.
const PLACES = ['product_page', 'listing_card', 'strip', 'over_picture', 'tile']
	.map((name) => `[data-up-place=${name}]`)
	.join();
const OURS = '[data-up-bar],[data-up-floating],[data-up-note],up-place';

const isSeen = (element: Element) => element.checkVisibility({ opacityProperty: true, visibilityProperty: true });

function boxOf(element: Element, isFixed = false): Box {
	const { left, top, width, height } = element.getBoundingClientRect();
	return { x: left + (isFixed ? 0 : scrollX), y: top + (isFixed ? 0 : scrollY), wide: width, high: height };
}

/** Returns what a person who knows the page would call an element. */
function nameOf(element: Element): string {
	const { id, classList, tagName } = element;
	const label = element.getAttribute('aria-label');
	return label || `<${tagName.toLowerCase()}${id ? `#${id}` : classList[0] ? `.${classList[0]}` : ''}>`;
}

/** Tells whether an element is stuck within a part of the page that scrolls by itself. */
function scrollsApart(element: Element): boolean {
	for (let at = element.parentElement; at && at !== document.body; at = at.parentElement)
		if (/auto|scroll|hidden/.test(getComputedStyle(at).overflowY)) return true;
	return false;
}

/** Finds what is fixed to the window or sticks to its edges, outermost only. */
function findStuck(): { elements: HTMLElement[]; stuck: Stuck[] } {
	const elements: HTMLElement[] = [];
	const kinds: ('fixed' | 'sticky')[] = [];
	for (const element of document.body.querySelectorAll<HTMLElement>('*')) {
		const { position, pointerEvents } = getComputedStyle(element);
		if (position !== 'fixed' && position !== 'sticky') continue;
		if (element.matches(OURS) || elements.some((outer) => outer.contains(element))) continue;
		// What is fixed within something transformed moves with the page, and has that as its offset parent.
		if (position === 'fixed' && (element.offsetParent || pointerEvents === 'none')) continue;
		if (!isSeen(element) || (position === 'sticky' && scrollsApart(element))) continue;
		elements.push(element);
		kinds.push(position);
	}
	const insets = elements.map((element) => getComputedStyle(element));
	const ground = insets.map(({ top, bottom }) => ({ top: parseFloat(top), bottom: parseFloat(bottom) }));
	// Where it would stand without sticking: set aside all at once, so that the page is laid out twice and no more.
	const before = elements.map((element) => element.getAttribute('style'));
	elements.forEach(
		(element, n) => kinds[n] === 'sticky' && element.style.setProperty('position', 'static', 'important'),
	);
	const boxes = elements.map((element, n) => boxOf(element, kinds[n] === 'fixed'));
	elements.forEach((element, n) => {
		if (kinds[n] !== 'sticky') return;
		if (before[n] === null) element.removeAttribute('style');
		// Set as an attribute it would be refused by a strict policy, and lost.
		else element.style.cssText = before[n]!;
	});
	const all = elements.map((element, n): Stuck => {
		const { top, bottom } = ground[n]!;
		const box = boxes[n]!;
		const kind = kinds[n]!;
		const holder = element.parentElement!;
		const outer = boxOf(holder);
		const style = getComputedStyle(holder);
		const edge = kind === 'sticky' && isNaN(top) ? 'bottom' : 'top';
		return {
			name: nameOf(element),
			kind,
			box,
			edge,
			inset: (edge === 'top' ? top : bottom) || 0,
			least: outer.y + parseFloat(style.paddingTop) + parseFloat(style.borderTopWidth),
			most: outer.y + outer.high - parseFloat(style.paddingBottom) - parseFloat(style.borderBottomWidth),
		};
	});
	const isThere = ({ kind, box }: Stuck) =>
		box.wide > 0 &&
		box.high > 0 &&
		(kind === 'sticky' || (box.x < innerWidth && box.y < innerHeight && box.x + box.wide > 0 && box.y + box.high > 0));
	const kept = elements.flatMap((element, n) => (isThere(all[n]!) ? [{ element, told: all[n]! }] : []));
	return { elements: kept.map(({ element }) => element), stuck: kept.map((entry) => entry.told) };
}

/** Returns the part of the page in which something is seen at all: what holds it may cut it off. */
function clipOf(element: Element): Box | null {
	let clip: Box | null = null;
	for (let at = element.parentElement; at && at !== document.body; at = at.parentElement) {
		const { overflowX, overflowY, position } = getComputedStyle(at);
		if (overflowX !== 'visible' || overflowY !== 'visible') {
			const { x, y, wide, high } = boxOf(at);
			const last: Box = clip ?? { x: -1e6, y: -1e6, wide: 2e6, high: 2e6 };
			const [left, top] = [Math.max(last.x, x), Math.max(last.y, y)];
			const right = Math.min(last.x + last.wide, x + wide);
			const bottom = Math.min(last.y + last.high, y + high);
			clip = { x: left, y: top, wide: Math.max(0, right - left), high: Math.max(0, bottom - top) };
		}
		if (position === 'fixed') break;
	}
	return clip;
}

/** Returns the largest element around a place that holds no other one. */
function cardOf(place: HTMLElement, aside: number): SeenPlace['card'] {
	let card: Element = place;
	for (let at = place.parentElement; at && at !== document.body; at = at.parentElement) {
		if (at.querySelectorAll(PLACES).length > 1) break;
		card = at;
	}
	const box = boxOf(card);
	box.y += aside;
	const [first = ''] = card.classList;
	return { box, selector: (card.tagName.toLowerCase() + (first && `.${CSS.escape(first)}`)).slice(0, 200) };
}

function findPlaces(holders: HTMLElement[], stuck: Stuck[]): SeenPlace[] {
	return [...document.querySelectorAll<HTMLElement>(PLACES)].flatMap((place) => {
		const placement = place.dataset.upPlace as SeenPlace['placement'];
		const host = place.querySelector('[data-up-button]');
		const own = [...place.querySelectorAll('button,[type=submit],a')].find((button) => isSeen(button)) ?? place;
		const stands = 'upStands' in place.dataset;
		const shown = (stands && host?.shadowRoot?.querySelector('.b')) || own;
		const holder = holders.findIndex((holder) => holder.contains(place));
		const isFixed = stuck[holder]?.kind === 'fixed';
		const [box, room] = [boxOf(shown, isFixed), boxOf(place, isFixed)];
		if (!box.wide || !box.high) return [];
		const outer = holders[holder];
		// What sticks is told as it lies without sticking, and so is what lies in it.
		const aside = outer && !isFixed ? stuck[holder]!.box.y - boxOf(outer).y : 0;
		box.y += aside;
		room.y += aside;
		return {
			placement,
			stands,
			kept: place.dataset.upKept ?? '',
			box,
			room,
			clip: clipOf(shown === own ? own : place),
			holder,
			product: place.dataset.upProduct ?? '',
			card: placement === 'listing_card' || placement === 'strip' ? cardOf(place, aside) : null,
			picture: findPicture(place, outer, aside),
		};
	});
}

/** So many dots across and down stand for a picture. */
const DOTS = 32;
const dotted = new Map<string, string>();

/** Returns the colours of a picture as it is shown, cut as its box cuts it; empty where the page may not read it. */
function dotsOf(image: HTMLImageElement): string {
	const { naturalWidth: wide, naturalHeight: high, clientWidth, clientHeight } = image;
	if (!image.complete || !wide || !high || !clientWidth || !clientHeight) return '';
	const { objectFit, objectPosition } = getComputedStyle(image);
	const key = `${image.currentSrc} ${clientWidth} ${clientHeight} ${objectPosition}`;
	const kept = dotted.get(key);
	if (kept !== undefined) return kept;
	const canvas = document.createElement('canvas');
	canvas.width = canvas.height = DOTS;
	let told = '';
	try {
		const draw = canvas.getContext('2d')!;
		let [cutWide, cutHigh] = [wide, high];
		if (objectFit === 'cover') {
			const scale = Math.max(clientWidth / wide, clientHeight / high);
			[cutWide, cutHigh] = [clientWidth / scale, clientHeight / scale];
		}
		const [x = 50, y = 50] = objectPosition.split(' ').map((at) => (at.endsWith('%') ? parseFloat(at) : 50));
		const [left, top] = [((wide - cutWide) * x) / 100, ((high - cutHigh) * y) / 100];
		// By where it goes, not by what is taken of it: a drawing of vectors has no dots of its own to take.
		const [across, down] = [DOTS / cutWide, DOTS / cutHigh];
		draw.drawImage(image, -left * across, -top * down, wide * across, high * down);
		const { data } = draw.getImageData(0, 0, DOTS, DOTS);
		told = btoa(String.fromCharCode(...data.filter((_, n) => n % 4 !== 3)));
	} catch {
		// A picture of another origin may be shown but not read.
	}
	dotted.set(key, told);
	return told;
}

function findPicture(place: Element, outer: Element | undefined, aside: number): SeenPlace['picture'] {
	// A tile brings its picture in a tree of its own, where the button's slot lies on it.
	const tile = place.closest<HTMLElement>('up-place>*')?.assignedSlot?.closest('.o')?.parentElement;
	const isOver = (place as HTMLElement).dataset.upPlace === 'over_picture';
	const image = isOver ? pictureBeside(place) : tile?.querySelector('img');
	if (!image) return null;
	const box = boxOf(image);
	if (outer?.contains(image)) box.y += aside;
	return { box, dots: dotsOf(image) };
}

const thumbs = new Map<string, string>();

/** Returns a picture made small, since the studio loads nothing from shops; empty where the page may not read it. */
function thumbOf(image: HTMLImageElement): string {
	const src = image.currentSrc || image.src;
	if (!image.complete || !image.naturalWidth) return '';
	const kept = thumbs.get(src);
	if (kept !== undefined) return kept;
	const canvas = document.createElement('canvas');
	canvas.width = THUMB_PX;
	canvas.height = Math.round((THUMB_PX * image.naturalHeight) / image.naturalWidth) || 1;
	let made = '';
	try {
		canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
		made = canvas.toDataURL('image/webp', 0.7);
	} catch {
		// A picture of another origin may be shown but not read.
	}
	thumbs.set(src, made);
	return made;
}

/** Returns pictures of this shop made small, by their addresses; empty where one cannot be had. */
export async function thumbsOf(srcs: readonly string[]): Promise<Record<string, string>> {
	const pictures = srcs.map(async (src) => {
		const image = Object.assign(new Image(), { src });
		await image.decode().catch(() => undefined);
		return [src, thumbOf(image)] as const;
	});
	return Object.fromEntries(await Promise.all(pictures));
}

/** Returns the page as a drawing would show it: its pictures, headings and texts. */
function findBlocks(holders: HTMLElement[]): Block[] {
	const blocks: Block[] = [];
	for (const element of document.body.querySelectorAll<HTMLElement>(
		'img,h1,h2,h3,h4,p,li,dd,dt,td,th,label,a,summary',
	)) {
		if (blocks.length >= MOST_BLOCKS) break;
		const isPicture = element instanceof HTMLImageElement;
		const hasText = [...element.childNodes].some(({ nodeType, nodeValue }) => nodeType === 3 && nodeValue?.trim());
		const isHeading = /^H\d$/.test(element.tagName);
		if ((!isPicture && !isHeading && !hasText) || !isSeen(element)) continue;
		if (holders.some((holder) => holder.contains(element)) || element.closest('[data-up-place]')) continue;
		const box = boxOf(element);
		if (box.wide < 4 || box.high < 4) continue;
		blocks.push({
			kind: isPicture ? 'picture' : isHeading ? 'heading' : 'text',
			box,
			src: isPicture ? thumbOf(element) : '',
		});
	}
	return blocks;
}

/** Returns what an element is painted with, unless that lets everything through. */
function groundOf(element: Element): string | undefined {
	const { backgroundColor } = getComputedStyle(element);
	return /, 0\)$|^transparent$/.test(backgroundColor) ? undefined : backgroundColor;
}

function findBar(): PageSurvey['bar'] {
	const row = document.querySelector('[data-up-bar]')?.shadowRoot?.querySelector<HTMLElement>('.r');
	if (!row) return null;
	const cut = [...row.querySelectorAll<HTMLElement>('.t')].flatMap(({ className, clientWidth, scrollWidth }) =>
		scrollWidth > clientWidth ? [{ part: className.slice(2), wide: clientWidth, needs: scrollWidth }] : [],
	);
	return { high: row.offsetHeight, cut };
}

/** Returns where a floating button lies once it has come, seen from the window. */
function findFloating(): Box | null {
	const row = document.querySelector('[data-up-floating]')?.shadowRoot?.querySelector('.r');
	return row ? boxOf(row, true) : null;
}

/** Measures where everything that matters for buttons stands along this page, and tells it again when that changes. */
export class Measure {
	readonly #tell: (message: FromFrame) => void;
	#shift = 0;
	#asked = 0;
	#last = '';
	#isWatching = false;
	/** What lies on a picture grows without moving its page, as when its font comes. */
	readonly #sizes = new ResizeObserver(() => this.soon());
	#hasWaited = false;
	/** Where the page came to rest when the studio scrolled it. */
	#sentTo = -1;

	/** With `fromStart` it counts what has moved since the page began, also before us. */
	constructor(tell: (message: FromFrame) => void, fromStart = false) {
		this.#tell = tell;
		new PerformanceObserver((list) => {
			// What comes while somebody draws is no shift that a shopper sees; what came before us is not ours.
			if (this.#isWatching) return;
			for (const entry of list.getEntries()) this.#shift += (entry as PerformanceEntry & { value: number }).value;
		}).observe({ type: 'layout-shift', buffered: fromStart });
		const scrolled = () => {
			if (Math.abs(scrollY - this.#sentTo) < 1) return;
			this.#sentTo = -1;
			tell({ up: 'scrolled', y: scrollY });
		};
		addEventListener('scroll', scrolled, { passive: true });
	}

	/** Scrolls the page for the studio, which is told of somebody's own scrolling only. */
	scrollTo(top: number): void {
		scrollTo({ top, behavior: 'instant' });
		this.#sentTo = scrollY;
	}

	/** Returns where everything stands now. */
	survey(): PageSurvey {
		const began = performance.now();
		const { elements, stuck } = findStuck();
		const { color } = getComputedStyle(document.body);
		return {
			path: location.pathname,
			window: { wide: document.documentElement.clientWidth, high: innerHeight },
			page_high: document.documentElement.scrollHeight,
			places: findPlaces(elements, stuck),
			stuck,
			bar: findBar(),
			floating: findFloating(),
			rtl: !!document.querySelector('[data-up-button][dir=rtl]'),
			blocks: findBlocks(elements),
			ground: groundOf(document.body) ?? groundOf(document.documentElement) ?? '#ffffff',
			ink: color,
			shift: this.#shift,
			took_ms: performance.now() - began,
		};
	}

	/** Tells it now, and whenever it has changed since. */
	tellSurvey(): void {
		if (document.readyState !== 'complete' && !this.#hasWaited) {
			this.#hasWaited = true;
			const clock = setTimeout(() => this.tellSurvey(), LOADS_MS);
			addEventListener('load', () => (clearTimeout(clock), this.tellSurvey()), { once: true });
			return;
		}
		this.#say(true);
		if (this.#isWatching) return;
		this.#isWatching = true;
		const soon = () => this.soon();
		this.#sizes.observe(document.documentElement);
		const attributes = ['data-up-stands', 'data-up-kept', 'data-in', 'data-on', 'hidden', 'open', 'class'];
		new MutationObserver(soon).observe(document.body, { subtree: true, childList: true, attributeFilter: attributes });
		addEventListener('load', soon, true);
	}

	/** Tells it again once it is quiet, where somebody has asked for it before. */
	soon(): void {
		if (!this.#isWatching) return;
		clearTimeout(this.#asked);
		this.#asked = window.setTimeout(() => this.#say(false), AGAIN_MS);
	}

	#say(isAsked: boolean): void {
		const survey = this.survey();
		const now = JSON.stringify({ ...survey, took_ms: 0 });
		if (now === this.#last && !isAsked) return;
		this.#last = now;
		// Observed anew it asks once more, finds the same and says nothing.
		document.querySelectorAll(`:is(${PLACES}) [data-up-button]`).forEach((host) => this.#sizes.observe(host));
		this.#tell({ up: 'survey', survey });
	}
}
