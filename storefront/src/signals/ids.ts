/** Returns the digits of a UUID of version 7 (RFC 9562, 5.7). Not by `randomUUID`, which pages without TLS have not. */
export function digits7(now = Date.now()): string {
	const bytes = crypto.getRandomValues(new Uint8Array(10));
	bytes[0] = (bytes[0]! & 15) | 112;
	bytes[2] = (bytes[2]! & 63) | 128;
	return now.toString(16).padStart(12, '0') + Array.from(bytes, (byte) => (byte + 256).toString(16).slice(1)).join('');
}

/** Returns what the browser keeps for this shop; null where it is closed to us. */
export function storage(): Storage | null {
	try {
		return localStorage;
	} catch {
		return null;
	}
}

/** Under what a shopper's own id lies. */
export const SHOPPER = 'up.shopper';

/** Returns whether the page says that the shopper has agreed to be counted, or has not; a no takes the id away. */
export function consent(): string | undefined {
	const { upConsent } = document.documentElement.dataset;
	// Storage is slow to open: as long as nothing is said it stays shut.
	if (upConsent === 'no') storage()?.removeItem(SHOPPER);
	return upConsent;
}

/** Under what batches of signals lie until they are answered, by store. */
export const keptUnder = (store: string) => `up.batch.${store}.`;

/** Tells whether some batch still waits to be sent. */
export const hasKept = (store: string) => Object.keys(storage() ?? {}).some((key) => key.startsWith(keptUnder(store)));
