import { pictureBeside } from '../page/picture';
import type { FromFrame } from './messages';

/** What a page's outline keeps of its elements: what selectors and products are told by, and no words of the page. */
const KEPT = /^(id|class|name|type|role|itemprop|itemtype|href|rel|action|method|for)$|^data-(?!up-(kept|stands))/;
const LEFT_OUT =
	'script:not([type="application/ld+json"]),style,template,noscript,link:not([rel=canonical]),meta,svg *,iframe,[data-up-button],[data-up-note],[data-up-bar],[data-up-floating]';
const MOST_LETTERS = 200;
const SETTLE_MS = 2500;
/** A choice of marks that are seen on any ground: dark lines in light ones. */
const BOX = 'position:fixed;pointer-events:none;z-index:2147483647;box-sizing:border-box;';
const POINTED = `${BOX}outline:3px solid #14202b;box-shadow:0 0 0 6px #ddf247`;
const TAKEN = `${BOX}outline:2px dashed #14202b;box-shadow:0 0 0 4px #fbfcfb`;

type Side = 'parent' | 'child' | 'next' | 'before';

/** Returns the page as elements with the attributes that tell: no words, no styles, nothing of ours. */
export function outlineOf(productField: string, pointed?: Element): string {
	// In a document of its own no picture is loaded and no element of the page's comes to life.
	const copy = document.implementation.createHTMLDocument().importNode(document.documentElement, true);
	if (pointed) {
		// The same way down leads to the same element of the copy.
		const way: number[] = [];
		for (let at = pointed; at.parentElement; at = at.parentElement)
			way.unshift([...at.parentElement.children].indexOf(at));
		way.reduce<Element | undefined>((at, n) => at?.children[n], copy)?.setAttribute('data-up-pointed', '');
	}
	copy.querySelectorAll(LEFT_OUT).forEach((element) => element.remove());
	// What we have put in ourselves is no part of the shop's page.
	copy.querySelectorAll('up-place').forEach((element) => element.remove());
	for (const element of [copy, ...copy.querySelectorAll('*')]) {
		if (element.tagName === 'SCRIPT') continue;
		const isCode = element.getAttribute('name') === productField;
		for (const { name, value } of [...element.attributes]) {
			const isKept = KEPT.test(name) || (name === 'value' && isCode);
			if (!isKept) element.removeAttribute(name);
			else if (value.length > MOST_LETTERS) element.setAttribute(name, value.slice(0, MOST_LETTERS));
		}
		for (const node of [...element.childNodes]) if (!(node instanceof Element)) node.remove();
	}
	return copy.outerHTML;
}

function canBePointedAt(element: Element | null): element is HTMLElement {
	return (
		!!element && element instanceof HTMLElement && element !== document.body && element !== document.documentElement
	);
}

/** Lets somebody in the studio point at an element of this page, with the mouse or with keys, and shows what is meant. */
export class Pointer {
	readonly #tell: (message: FromFrame) => void;
	readonly #field: string;
	readonly #marks = document.createElement('div');
	#isOn = false;
	#at: HTMLElement | null = null;
	#chosen: HTMLElement | null = null;
	#selector = '';
	#drawing = 0;

	constructor(productField: string, tell: (message: FromFrame) => void) {
		this.#field = productField;
		this.#tell = tell;
		const hear = (event: MouseEvent) => this.#hear(event);
		for (const kind of ['mousemove', 'click', 'mousedown', 'mouseup', 'pointerdown', 'pointerup'] as const)
			addEventListener(kind, hear as EventListener, true);
		for (const kind of ['scroll', 'resize'] as const)
			addEventListener(kind, () => this.#draw(), { capture: true, passive: true });
		// Buttons come to stand after what was asked is answered.
		let asked = 0;
		const changed = () => {
			clearTimeout(asked);
			asked = window.setTimeout(() => this.#selector && (this.#draw(), this.#tellTaken()), 120);
		};
		const watched = { subtree: true, attributeFilter: ['data-up-stands', 'data-up-filled', 'data-up-kept'] };
		new MutationObserver(changed).observe(document.documentElement, watched);
		addEventListener('keydown', (event) => this.#key(event), true);
	}

	point(isOn: boolean): void {
		this.#isOn = isOn;
		document.documentElement.style.cursor = isOn ? 'crosshair' : '';
		if (isOn && !this.#at) {
			const form = document.querySelector(`form:has([name="${CSS.escape(this.#field)}"])`);
			const first =
				form?.querySelector('[type=submit],button:not([type])') ?? form ?? document.querySelector('main,body>*');
			// A button that is hidden lies in something that is seen.
			let seen = first;
			while (seen && !seen.getClientRects().length) seen = seen.parentElement;
			this.#at = canBePointedAt(seen) ? seen : null;
			this.#at?.scrollIntoView({ block: 'center' });
		}
		if (!isOn) this.#at = null;
		this.#draw();
	}

	/** Shows every element that a selector finds. */
	show(selector: string): void {
		this.#selector = selector;
		this.#draw();
		const [first] = this.#found();
		first?.scrollIntoView({ block: 'center', behavior: 'instant' });
		void this.#settled().then(() => this.#tellTaken());
	}

	/** Waits until it is decided of the places in the window what stands there: before that none has its width. */
	async #settled(): Promise<void> {
		const until = performance.now() + SETTLE_MS;
		const isOpen = (place: HTMLElement) => {
			const { top, bottom } = place.getBoundingClientRect();
			const { upStands, upFilled, upKept } = place.dataset;
			return bottom >= 0 && top <= innerHeight && upStands === undefined && upFilled === undefined && !upKept;
		};
		while (performance.now() < until && [...document.querySelectorAll<HTMLElement>('up-place')].some(isOpen))
			await new Promise((done) => setTimeout(done, 50));
	}

	#tellTaken(): void {
		this.#tell({ up: 'taken', count: this.#found().length, ...this.#taken() });
	}

	outline(): void {
		this.#tell({ up: 'outline', path: location.pathname, html: outlineOf(this.#field) });
	}

	/** Goes to an element beside the one that is pointed at; what is not drawn is passed over. */
	move(to: Side): void {
		const at = this.#at;
		if (!at) return;
		const ways = {
			parent: at.parentElement,
			child: at.firstElementChild,
			next: at.nextElementSibling,
			before: at.previousElementSibling,
		};
		let next = ways[to];
		while (next && next.tagName !== 'UP-PLACE' && !next.getClientRects().length && to !== 'parent')
			next = to === 'before' ? next.previousElementSibling : next.nextElementSibling;
		if (!canBePointedAt(next)) return;
		this.#at = next;
		next.scrollIntoView({ block: 'nearest' });
		this.#draw();
	}

	/** Takes what is pointed at. */
	take(): void {
		const at = this.#at;
		if (!at) return;
		this.#chosen = at;
		const box = at.getBoundingClientRect();
		const words = (at.innerText || (at as HTMLInputElement).value || '').trim().replace(/\s+/g, ' ').slice(0, 60);
		this.#tell({
			up: 'pointed',
			path: location.pathname,
			html: outlineOf(this.#field, at),
			words,
			tag: at.tagName.toLowerCase(),
			width: Math.round(box.width),
			height: Math.round(box.height),
		});
	}

	#hear(event: MouseEvent): void {
		if (!this.#isOn) return;
		event.preventDefault();
		event.stopImmediatePropagation();
		const [deepest] = event.composedPath();
		const element = deepest instanceof Element ? deepest : null;
		// Inside a drawing or a tree of its own, what holds it is meant.
		const host = element?.getRootNode() instanceof ShadowRoot ? (element.getRootNode() as ShadowRoot).host : element;
		const at = host?.closest('svg')?.parentElement ?? host?.closest('up-place')?.parentElement ?? host;
		if (canBePointedAt(at ?? null) && at !== this.#at) {
			this.#at = at as HTMLElement;
			this.#draw();
		}
		if (event.type === 'click') this.take();
	}

	#key(event: KeyboardEvent): void {
		if (!this.#isOn) return;
		const ways: Record<string, Side> = {
			ArrowUp: 'parent',
			ArrowDown: 'child',
			ArrowRight: 'next',
			ArrowLeft: 'before',
		};
		const way = ways[event.key];
		if (way) this.move(way);
		else if (event.key === 'Enter' || event.key === ' ') this.take();
		else return;
		event.preventDefault();
		event.stopImmediatePropagation();
	}

	#found(): Element[] {
		try {
			return this.#selector
				? [...document.querySelectorAll(this.#selector)].filter((element) => !element.closest('up-place'))
				: [];
		} catch {
			return [];
		}
	}

	/** Returns what came of the places that were pointed at, and how wide they are. */
	#taken() {
		const places = [...document.querySelectorAll<HTMLElement>('up-place')].map((place) => ({
			place: place.dataset.upPlace ?? place.dataset.upRow ?? '',
			product: place.dataset.upProduct ?? '',
			stands: 'upStands' in place.dataset || 'upFilled' in place.dataset,
			kept: place.dataset.upKept ?? '',
			width: Math.round(roomOf(place)),
		}));
		const [own] = this.#found();
		return { places, own: Math.round(own?.getBoundingClientRect().height || Number(this.#chosen?.offsetHeight) || 0) };
	}

	#draw(): void {
		if (this.#drawing) return;
		this.#drawing = requestAnimationFrame(() => {
			this.#drawing = 0;
			const boxes = this.#found().map((element) => [this.#seenOf(element), TAKEN] as [DOMRect, string]);
			if (this.#at && this.#isOn) boxes.push([this.#at.getBoundingClientRect(), POINTED]);
			this.#marks.replaceChildren(
				...boxes.map(([{ left, top, width, height }, css]) => {
					const mark = document.createElement('div');
					mark.style.cssText = `${css};left:${left}px;top:${top}px;width:${width}px;height:${height}px`;
					return mark;
				}),
			);
			if (boxes.length) document.documentElement.append(this.#marks);
			else this.#marks.remove();
		});
	}

	/** What is not shown since our button stands instead of it, is where that one is. */
	#seenOf(element: Element): DOMRect {
		const before = element.previousElementSibling;
		const isHidden = before?.tagName === 'UP-PLACE' && !element.getClientRects().length;
		return (isHidden ? before : element).getBoundingClientRect();
	}
}

/** Returns how wide a button may be at a place: as wide as what holds it leaves. */
function roomOf(place: HTMLElement): number {
	const own = place.nextElementSibling;
	if (place.dataset.upPlace === 'over_picture') return pictureBeside(place)?.clientWidth ?? 0;
	// Where the shop's own button is still seen, ours would have its room.
	if (place.dataset.upWhere === 'instead' && own?.getClientRects().length) return own.getBoundingClientRect().width;
	if (getComputedStyle(place).display !== 'inline-block') {
		// While nothing stands in it, it takes no room.
		place.style.position = 'static';
		const { width } = place.getBoundingClientRect();
		place.style.position = '';
		return width;
	}
	const holder = place.parentElement;
	if (!holder) return 0;
	const style = getComputedStyle(holder);
	return holder.clientWidth - parseFloat(style.paddingLeft) - parseFloat(style.paddingRight);
}
