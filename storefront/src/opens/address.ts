import type { Shop, Stand } from '../base/shop';
import type { Pattern } from '../base/types';
import { HOLE, withoutHoles } from '../base/words';

/** Stands where the choice belongs, until somebody has made it; see `uptick.core.drawing.compile`. */
const CHOICE = '\ue000';
const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** Returns a text percent-encoded once, all but unreserved letters (RFC 3986, 2.3), its lines as mails have them (RFC 6068). */
export function encoded(text: string): string {
	return encodeURIComponent(text.replace(/\r?\n/g, '\r\n').replace(/[\u2066-\u2069]/g, '')).replace(
		/[!'()*]/g,
		(mark) => `%${mark.charCodeAt(0).toString(16).toUpperCase()}`,
	);
}

/** Tells whether a moment is within office hours, by the store's own clock. */
export function isOpen(hours: readonly (readonly number[])[], zone: string | undefined, now: Date): boolean {
	const parts = new Intl.DateTimeFormat('en-GB', {
		timeZone: zone,
		weekday: 'short',
		hour: '2-digit',
		minute: '2-digit',
		hourCycle: 'h23',
	}).formatToParts(now);
	const part = (name: string) => parts.find(({ type }) => type === name)?.value ?? '';
	const minutes = Number(part('hour')) * 60 + Number(part('minute'));
	const today = DAYS.indexOf(part('weekday'));
	return hours.some(([day, opens = 0, closes = 0]) => day === today && minutes >= opens && minutes < closes);
}

/** Returns where a press leads, filled in for the product and the choice as they are now. */
export function addressOf(stand: Stand, { manifest, looker, spoken, fillText }: Shop, now: Date): string {
	const { href, text, subject, closed, hours, zone } = stand.standing!.made.message!;
	// A link that leaves the page says where it leads to.
	const product = { ...stand.product!, url: new URL(stand.product!.url || location.href, location.href).href };
	const say = (texts: Readonly<Record<string, Pattern>> | undefined): string => {
		const pattern = texts?.[looker.language] ?? texts?.[manifest.language];
		if (!pattern) return '';
		const filled = fillText?.(pattern, product, 0, spoken) ?? pattern.join('');
		return withoutGaps(filled.replaceAll(CHOICE, stand.option() || HOLE));
	};
	const says = hours && !isOpen(hours, zone, now) ? closed : text;
	return href.map((part, n) => (n % 2 ? encoded(say(part === 'subject' ? subject : says)) : part)).join('');
}

/** Returns a text of several lines without its holes, each line by itself. */
const withoutGaps = (text: string) => text.split('\n').map(withoutHoles).join('\n');
