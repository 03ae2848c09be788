/** Returns whether a shopper is new, returning since an earlier day, or signed in, as the page's root says. */
export function shopperKind(shopper: string): string {
	if (document.documentElement.dataset.upShopper === 'signed_in') return 'signed_in';
	const today = new Date().toISOString().slice(0, 10);
	try {
		const first = shopper ? localStorage.getItem('up.first') : today;
		if (first) return first < today ? 'returning' : 'new';
		localStorage.setItem('up.first', today);
	} catch {
		// Who cannot be remembered is new.
	}
	return 'new';
}
