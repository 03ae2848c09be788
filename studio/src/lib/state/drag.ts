import type { Attachment } from 'svelte/attachments';

/** A distance or a direction, in CSS pixels of the window. */
export type Point = { x: number; y: number };
/** What happens while an element is dragged. `Start` is what the drag is measured by, taken once as it begins. */
export type Drag<Start> = {
	/** Returns what the drag begins with, as its scale: one that changes by the drag must not measure it. Null refuses. */
	begin: (event: PointerEvent) => Start | null;
	move: (start: Start, by: Point, event: PointerEvent) => void;
	/** It was let go of. */
	end: (start: Start, by: Point) => void;
	/** It was broken off, by the browser or by Escape: everything is as it was before. */
	cancel: (start: Start) => void;
	/** An arrow key moves it, `way` being 1 or -1 along an axis. */
	step?: (way: Point, event: KeyboardEvent) => void;
};

const WAYS: Record<string, Point> = {
	ArrowLeft: { x: -1, y: 0 },
	ArrowRight: { x: 1, y: 0 },
	ArrowUp: { x: 0, y: -1 },
	ArrowDown: { x: 0, y: 1 },
};

/** Lets an element be dragged by a pointer and moved by arrow keys. One attachment for all that is dragged. */
export function drag<Start>(how: Drag<Start>): Attachment<Element> {
	return (node) => {
		const element = node as HTMLElement;
		const press = (event: PointerEvent) => take(element, event, how);
		const key = (event: KeyboardEvent) => {
			const way = WAYS[event.key];
			if (!how.step || !way || event.defaultPrevented) return;
			event.preventDefault();
			how.step(way, event);
		};
		element.addEventListener('pointerdown', press);
		element.addEventListener('keydown', key);
		return () => {
			element.removeEventListener('pointerdown', press);
			element.removeEventListener('keydown', key);
		};
	};
}

/** Follows one pointer until it is let go of; the attachment may be made anew meanwhile, since what it shows changes. */
function take<Start>(element: HTMLElement, event: PointerEvent, how: Drag<Start>): void {
	if (event.button !== 0 || event.defaultPrevented) return;
	const start = how.begin(event);
	if (start === null) return;
	event.preventDefault();
	// What takes the focus by a press does so still: arrow keys go on where the pointer left off.
	(event.target as Element).closest<HTMLElement>('[tabindex],button')?.focus({ preventScroll: true });
	element.setPointerCapture(event.pointerId);
	const { clientX, clientY, pointerId } = event;
	const over = new AbortController();
	const by = (at: PointerEvent) => ({ x: at.clientX - clientX, y: at.clientY - clientY });
	const listen = <Kind extends keyof HTMLElementEventMap>(
		kind: Kind,
		hear: (event: HTMLElementEventMap[Kind]) => void,
	) => element.addEventListener(kind, hear, { signal: over.signal });
	const mine = (work: (event: PointerEvent) => void) => (at: PointerEvent) => at.pointerId === pointerId && work(at);
	const cancel = () => {
		over.abort();
		how.cancel(start);
	};
	listen(
		'pointermove',
		mine((at) => how.move(start, by(at), at)),
	);
	listen(
		'pointerup',
		mine((at) => {
			over.abort();
			how.end(start, by(at));
		}),
	);
	listen('pointercancel', mine(cancel));
	// The browser takes a capture back where the element goes.
	listen('lostpointercapture', mine(cancel));
	const escape = (key: KeyboardEvent) => {
		if (key.key !== 'Escape') return;
		key.stopPropagation();
		key.preventDefault();
		cancel();
	};
	addEventListener('keydown', escape, { capture: true, signal: over.signal });
}
