import { pulled } from '$lib/pure/dimensions';
import type { Hold } from '$lib/pure/holds';
import type { Stage } from '$lib/pure/stage';
import type { Desk, Values } from './desk.svelte';

/** The hand that drags dimensions: the drawing follows it, and letting go keeps the value as one step. */
export class Hand {
	readonly #desk: () => Desk;
	readonly #stage: () => Stage;
	#held: (Hold & { at: number }) | null = null;
	#last: Values | null = null;

	constructor(desk: () => Desk, stage: () => Stage) {
		this.#desk = desk;
		this.#stage = stage;
	}

	/** Returns what a grip listens to. */
	grips(what: Hold) {
		return {
			onpointerdown: (event: PointerEvent) => this.#take(event, what),
			onpointermove: (event: PointerEvent) => this.#pull(event),
			onpointerup: () => this.#letGo(),
			onpointercancel: () => this.#drop(),
		};
	}

	#take(event: PointerEvent, what: Hold): void {
		if (event.button !== 0) return;
		event.preventDefault();
		(event.currentTarget as Element).setPointerCapture(event.pointerId);
		this.#held = { ...what, at: what.axis === 'x' ? event.clientX : event.clientY };
		this.#last = null;
		// The scale that a drag changes is not the one by which it is measured.
		this.#desk().held = this.#stage();
		this.#desk().mark(Object.keys(what.of(what.start))[0] ?? '');
	}

	#pull(event: PointerEvent): void {
		const held = this.#held;
		if (!held) return;
		const moved = (held.axis === 'x' ? event.clientX : event.clientY) - held.at;
		const value = pulled(held.start, moved, this.#desk().held ?? this.#stage(), held.pull, event.altKey);
		this.#last = held.of(Math.min(held.bounds[1], Math.max(held.bounds[0], value)));
		this.#desk().tryOut(this.#last);
	}

	#letGo(): void {
		this.#desk().held = null;
		if (this.#held) void this.#desk().settle(this.#last);
		this.#held = this.#last = null;
	}

	#drop(): void {
		this.#desk().held = null;
		this.#held = this.#last = null;
		void this.#desk().settle(null);
	}
}
