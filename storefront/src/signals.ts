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

type Batch = { v: 1; shopper: string; visit: string; release: number; events: SignalEvent[] };

const MOST = 50;
const WAIT_MS = 1500;

/** Returns a UUID of version 7 (RFC 9562, 5.7): the time, then the random rest of one of version 4. */
export function uuid7(now = Date.now()): string {
	const time = now.toString(16).padStart(12, '0');
	return `${time.slice(0, 8)}-${time.slice(8)}-7${crypto.randomUUID().slice(15)}`;
}

function storage(): Storage | null {
	try {
		return localStorage;
	} catch {
		return null;
	}
}

/** Returns the shopper's own random id on this shop; none for those who ask not to be followed. */
export function shopperId(): string {
	const refused =
		(navigator as { globalPrivacyControl?: boolean }).globalPrivacyControl ||
		document.documentElement.dataset.upConsent === 'no';
	if (refused) return '';
	const kept = storage();
	const id = kept?.getItem('up.shopper') || uuid7().replace(/-/g, '');
	try {
		kept?.setItem('up.shopper', id);
	} catch {
		// A full or closed storage: the id lasts as long as the page.
	}
	return id;
}

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
	readonly #prefix: string;

	constructor(edge: string, store: string, shopper: string, release: number) {
		this.#url = `${edge}/s/${store}/signals`;
		this.#prefix = `up.batch.${store}.`;
		this.#head = { v: 1, shopper, visit: uuid7(), release };
		addEventListener('pagehide', () => this.flush());
		document.addEventListener('visibilitychange', () => document.visibilityState === 'hidden' && this.flush());
		this.#sendKept();
	}

	add(event: Omit<SignalEvent, 'id' | 'at'>): void {
		if (!this.#key) this.#key = this.#prefix + uuid7();
		this.#batch.push({ id: uuid7(), at: new Date().toISOString(), language: document.documentElement.lang, ...event });
		this.#keep();
		if (this.#batch.length >= MOST) this.flush();
		else if (!this.#timer) this.#timer = window.setTimeout(() => this.flush(), WAIT_MS);
	}

	flush(): void {
		clearTimeout(this.#timer);
		this.#timer = 0;
		if (!this.#batch.length) return;
		const key = this.#key;
		const batch = { ...this.#head, events: this.#batch };
		this.#key = '';
		this.#batch = [];
		void this.#send(key, batch);
	}

	#keep(): void {
		try {
			storage()?.setItem(this.#key, JSON.stringify({ ...this.#head, events: this.#batch }));
		} catch {
			// A full storage: the batch is sent all the same, only not kept for another try.
		}
	}

	#sendKept(): void {
		const kept = storage();
		for (const key of kept ? Object.keys(kept) : []) {
			if (!key.startsWith(this.#prefix)) continue;
			try {
				void this.#send(key, JSON.parse(kept?.getItem(key) || '') as Batch);
			} catch {
				kept?.removeItem(key);
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
