import { digits7, storage } from './ids';

const ID = 'up.shopper';

/**
 * Returns the shopper's own random id on this shop; none until the page says that the shopper has agreed, none for those
 * who ask not to be followed, and none where it cannot be kept: it would be another one on every page.
 */
export function shopperId(): string {
	const agreed = document.documentElement.dataset.upConsent;
	// Storage is slow to open: as long as nothing is said it stays shut. Where nothing can be kept, asking fails.
	const kept = (agreed && storage()) as Storage;
	try {
		if (agreed === 'no') kept.removeItem(ID);
		if (agreed !== 'yes' || (navigator as { globalPrivacyControl?: boolean }).globalPrivacyControl) return '';
		const known = kept.getItem(ID);
		if (known) return known;
		const id = digits7();
		kept.setItem(ID, id);
		return kept.getItem(ID) === id ? id : '';
	} catch {
		return '';
	}
}
