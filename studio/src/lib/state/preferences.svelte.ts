import type { Device } from '$lib/api/types';

const SINGLE_KEYS = 'uptick.single-keys';

/** How somebody likes to look at the store; shortcuts of one key are remembered by this browser. */
export class Preferences {
	device = $state<Device>('desktop');
	/** The language that was chosen; empty for the store's own. */
	language = $state('');
	#singleKeys = $state(remembered() !== 'off');

	/** Whether shortcuts of one key work (WCAG 2.1.4: they can be switched off). */
	get singleKeys(): boolean {
		return this.#singleKeys;
	}

	set singleKeys(on: boolean) {
		this.#singleKeys = on;
		try {
			localStorage.setItem(SINGLE_KEYS, on ? 'on' : 'off');
		} catch {
			// A browser that keeps nothing forgets it when the page is closed.
		}
	}
}

function remembered(): string | null {
	try {
		return localStorage.getItem(SINGLE_KEYS);
	} catch {
		return null;
	}
}
