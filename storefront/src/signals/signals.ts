import { digits7, keptUnder, storage } from './ids';
import type { Manifest } from '../base/types';

export type SignalEvent = {
	id: string;
	kind: 'shown' | 'clicked' | 'added' | 'ordered';
	at: string;
	place?: string;
	seen_as?: string;
	situation?: string;
	shopper_kind?: string;
	product?: string;
	versions?: Record<string, string>;
	order?: string;
	line?: string;
	quantity?: number;
	value?: number;
	currency?: string;
	device?: string;
	language?: string;
};

/** Sends one signal; nothing where somebody only looks. */
export type SignalOf = (kind: SignalEvent['kind'], telling: Partial<SignalEvent>) => void;

type Batch = { v: 1; shopper: string; visit: string; release: number; events: SignalEvent[] };

const MOST = 50;
const WAIT_MS = 1500;
/** Returns a UUID of version 7 as it is written (RFC 9562, 4). */
export const uuid7 = (now?: number) => digits7(now).replace(/^(.{8})(.{4})(.{4})(.{4})/, '$1-$2-$3-$4-');

/** So many batches are kept for a next try, and for so long: a shop's storage is the shop's. */
const MOST_KEPT = 20;
const KEPT_MS = 7 * 86_400_000;

/**
 * Collects signals and sends them in batches. Each batch lies under its own storage key from its first event until the
 * edge has answered, so that a page that is left loses none; ids make a batch that is sent twice harmless.
 */
export class SignalBox {
	#url: string;
	#head: Omit<Batch, 'events'>;
	#key = '';
	#batch: SignalEvent[] = [];
	#timer = 0;
	#keeping = 0;
	readonly #prefix: string;

	readonly #shopper: () => string;

	/** `shopper` tells who looks now, since consent may change during a visit. */
	constructor({ edge, key, release }: Pick<Manifest, 'edge' | 'key' | 'release'>, shopper: () => string) {
		this.#url = `${edge}/s/${key}/signals`;
		this.#prefix = keptUnder(key);
		this.#shopper = shopper;
		this.#head = { v: 1, shopper: shopper(), visit: '', release };
		addEventListener('pagehide', () => this.flush());
		document.addEventListener('visibilitychange', () => document.visibilityState === 'hidden' && this.flush());
		// The shop's storage is slow to open, and nothing waits for what an earlier page could not send.
		setTimeout((now: number) => this.#sendKept(now), 0, Date.now());
	}

	add(event: Omit<SignalEvent, 'id' | 'at'>): void {
		const shopper = this.#shopper();
		if (shopper !== this.#head.shopper) {
			this.flush();
			this.#head = { ...this.#head, shopper };
		}
		// Random numbers are slow to begin with: a page that signals nothing asks for none.
		this.#head.visit ||= uuid7();
		if (!this.#key) this.#key = this.#prefix + uuid7();
		this.#batch.push({ id: uuid7(), at: new Date().toISOString(), language: document.documentElement.lang, ...event });
		// A hundred buttons that are seen in one task are written once.
		this.#keeping ||= window.setTimeout(() => this.#keep());
		if (this.#batch.length >= MOST) this.flush();
		else if (!this.#timer) this.#timer = window.setTimeout(() => this.flush(), WAIT_MS);
	}

	flush(): void {
		clearTimeout(this.#timer);
		this.#timer = 0;
		if (!this.#batch.length) return;
		this.#keep();
		const key = this.#key;
		const batch = { ...this.#head, events: this.#batch };
		this.#key = '';
		this.#batch = [];
		void this.#send(key, batch);
	}

	#keep(): void {
		clearTimeout(this.#keeping);
		this.#keeping = 0;
		if (!this.#key) return;
		try {
			storage()?.setItem(this.#key, JSON.stringify({ ...this.#head, events: this.#batch }));
			for (const key of this.#kept().slice(0, -MOST_KEPT)) storage()?.removeItem(key);
		} catch {
			// A full storage: the batch is sent all the same, only not kept for another try.
		}
	}

	/** Returns the keys of what waits for another try, the oldest first. */
	#kept(): string[] {
		return Object.keys(storage() ?? {})
			.filter((key) => key.startsWith(this.#prefix))
			.sort();
	}

	/** Sends what earlier pages have left; what is younger is on its way already. */
	#sendKept(before: number): void {
		for (const key of this.#kept()) {
			try {
				const since = parseInt(key.slice(this.#prefix.length).replace('-', '').slice(0, 12), 16);
				if (since >= before) continue;
				if (!(Date.now() - since < KEPT_MS)) throw Error();
				void this.#send(key, JSON.parse(storage()?.getItem(key) || '') as Batch);
			} catch {
				storage()?.removeItem(key);
			}
		}
	}

	async #send(key: string, batch: Batch): Promise<void> {
		try {
			const answer = await fetch(this.#url, {
				method: 'POST',
				body: JSON.stringify({ ...batch, sent: new Date().toISOString() }),
				headers: { 'Content-Type': 'text/plain' },
				credentials: 'omit',
				keepalive: true,
			});
			const again = answer.status >= 500 || [408, 425, 429].includes(answer.status);
			if (!again) storage()?.removeItem(key);
		} catch {
			// It lies in storage; the next page tries again.
		}
	}
}
