import { pulled } from '$lib/pure/dimensions';
import type { Hold } from '$lib/pure/holds';
import type { Stage } from '$lib/pure/stage';
import { drag, type Point } from './drag';
import type { Desk, Values } from './desk.svelte';

type Start = { hold: Hold; stage: Stage };

/** The hand that drags dimensions: the drawing follows it, and letting go keeps the value as one step. */
export class Hand {
	readonly #desk: () => Desk;
	readonly #stage: () => Stage;
	#last: Values | null = null;

	constructor(desk: () => Desk, stage: () => Stage) {
		this.#desk = desk;
		this.#stage = stage;
	}

	/** Lets a dimension be dragged by the element that shows it. */
	drags(hold: Hold) {
		return drag<Start>({
			begin: () => this.#begin(hold),
			move: (start, by, event) => this.#pull(start, by, event.altKey),
			end: () => this.#settle(this.#last),
			cancel: () => this.#settle(null),
		});
	}

	#begin(hold: Hold): Start {
		this.#last = null;
		// The scale that a drag changes is not the one by which it is measured.
		const stage = (this.#desk().held = this.#stage());
		this.#desk().mark(Object.keys(hold.of(hold.start))[0] ?? '');
		return { hold, stage };
	}

	#pull({ hold, stage }: Start, by: Point, isFine: boolean): void {
		const value = pulled(hold.start, by[hold.axis], stage, hold.pull, isFine);
		this.#last = hold.of(Math.min(hold.bounds[1], Math.max(hold.bounds[0], value)));
		this.#desk().tryOut(this.#last);
	}

	#settle(values: Values | null): void {
		this.#desk().held = null;
		this.#last = null;
		void this.#desk().settle(values);
	}
}
