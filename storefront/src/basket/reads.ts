import type { InBasket } from '../base/shop';
import { OPTIONS } from './basket';
import type { Basket } from '../base/types';

/** Returns a part of an answer by its dotted name; without a name the answer itself. */
export function part(of: unknown, name = ''): unknown {
	return name ? name.split('.').reduce((at, key) => (at as Record<string, unknown> | null)?.[key], of) : of;
}

/** Returns an option as the form's own values are joined, whether the shop tells it as a text, a list or by names. */
function optionText(value: unknown): string {
	return value && typeof value === 'object' ? Object.values(value).join(OPTIONS) : String(value ?? '');
}

/** Returns the basket that an answer tells of, by the shop's own names of its parts; null where it tells of none. */
function basketOf(answer: unknown, { count, items, product = 'sku', option, quantity }: NonNullable<Basket['read']>) {
	const lines = part(answer, items);
	if (!Array.isArray(lines)) return null;
	const inside = lines.map((line) => ({
		sku: String(part(line, product)),
		option: option ? optionText(part(line, option)) : '',
		quantity: Number(part(line, quantity)) || 0,
	}));
	const whole = count ? Number(part(answer, count)) : inside.reduce((sum, line) => sum + line.quantity, 0);
	return Number.isFinite(whole) ? { count: whole, items: inside, told: answer } : null;
}

/** What a basket of this kind is asked to answer with. */
export const acceptFor = (read: Basket['read']) => (read?.kind === 'page' ? 'text/html' : 'application/json');

/** Returns the basket that an answer tells of, as JSON or as a page; null where it tells of none. */
export function basketIn(answer: string, read: NonNullable<Basket['read']>): InBasket | null {
	if (read.kind === 'json') return basketOf(JSON.parse(answer), read);
	const counted = new DOMParser().parseFromString(answer, 'text/html').querySelector(read.selector ?? '');
	const count = /\d+/.exec(counted?.textContent ?? '')?.[0];
	return count === undefined ? null : { count: Number(count), items: [] };
}
