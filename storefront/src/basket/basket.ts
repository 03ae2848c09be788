import type { InBasket, Reads } from '../base/shop';
import type { Basket } from '../base/types';

const PATIENCE_MS = 15_000;
/** Stands between the values of several options. */
export const OPTIONS = ' / ';

/** Returns the basket that an answer tells of; null where it tells of none. */
function basketIn(answer: string): InBasket | null {
	const basket = JSON.parse(answer) as Partial<InBasket> | null;
	return Number.isFinite(basket?.count) && Array.isArray(basket?.items) ? (basket as InBasket) : null;
}

/** Asks the shop; `basket` is null where the answer is none, whatever its status. */
export async function ask(
	{ read }: Basket,
	path: string,
	reads?: Reads,
	init?: RequestInit,
): Promise<{ status: number; basket: InBasket | null }> {
	const answer = await fetch(path, {
		cache: 'no-store',
		signal: AbortSignal.timeout(PATIENCE_MS),
		...init,
		headers: { Accept: reads?.acceptFor(read) ?? 'application/json', ...init?.headers },
	});
	let basket: InBasket | null = null;
	try {
		if (answer.ok && read) basket = (reads?.basketIn ?? basketIn)(await answer.text(), read);
	} catch {
		// A page where a basket was awaited.
	}
	return { status: answer.status, basket };
}

/** Returns what is in the basket; null where the shop does not tell. */
export async function readBasket(basket: Basket, reads?: Reads): Promise<InBasket | null> {
	try {
		return basket.read ? (await ask(basket, basket.read.path, reads)).basket : null;
	} catch {
		return null;
	}
}
