import { untrack } from 'svelte';

/** How many sheets lie over the station now: what is to be told is told on the topmost. */
class Sheets {
	#open = $state(0);

	get isAnyOpen(): boolean {
		return this.#open > 0;
	}

	/** An attachment for what a sheet shows: it is there as long as the sheet is. */
	count = (): (() => void) => {
		const add = (n: number): void => untrack(() => void (this.#open += n));
		add(1);
		return () => add(-1);
	};
}

export const sheets = new Sheets();
