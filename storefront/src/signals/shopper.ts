import { consent, digits7, SHOPPER as ID, storage } from './ids';

/**
 * Returns the shopper's own random id on this shop; none until the page says that the shopper has agreed, none for those
 * who ask not to be followed, and none where it cannot be kept: it would be another one on every page.
 */
export function shopperId(): string {
	try {
		if (consent() !== 'yes' || (navigator as { globalPrivacyControl?: boolean }).globalPrivacyControl) return '';
		// Where nothing can be kept, asking fails.
		const kept = storage()!;
		const known = kept.getItem(ID);
		if (known) return known;
		const id = digits7();
		kept.setItem(ID, id);
		return kept.getItem(ID) === id ? id : '';
	} catch {
		return '';
	}
}
