const SINGLE_KEYS = 'uptick.single-keys';
const STORE = 'uptick.store';

/** What this browser remembers of a designer. */
export class Preferences {
	#singleKeys = $state(remembered(SINGLE_KEYS) !== 'off');

	/** Whether shortcuts of one key work (WCAG 2.1.4: they can be switched off). */
	get singleKeys(): boolean {
		return this.#singleKeys;
	}

	set singleKeys(on: boolean) {
		this.#singleKeys = on;
		remember(SINGLE_KEYS, on ? 'on' : 'off');
	}

	/** The store that was open last in this browser, by its key; empty where none was. */
	get store(): string {
		return remembered(STORE) ?? '';
	}

	set store(key: string) {
		remember(STORE, key);
	}
}

function remember(key: string, value: string): void {
	try {
		localStorage.setItem(key, value);
	} catch {
		// A browser that keeps nothing forgets it when the page is closed.
	}
}

function remembered(key: string): string | null {
	try {
		return localStorage.getItem(key);
	} catch {
		return null;
	}
}
