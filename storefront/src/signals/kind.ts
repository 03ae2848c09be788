/**
 * Returns whether a shopper is new, returning since an earlier day, or signed in. The page's root may say it; else the
 * shopper's id does, which begins with the time at which it was made (RFC 9562, 5.7). Who has no id is new.
 */
export function shopperKind(shopper: string): string {
	const given = document.documentElement.dataset.upShopper ?? '';
	if (/^(new|returning|signed_in)$/.test(given)) return given;
	const day = (time: number) => new Date(time).toISOString().slice(0, 10);
	return shopper && day(parseInt(shopper.slice(0, 12), 16)) < day(Date.now()) ? 'returning' : 'new';
}
