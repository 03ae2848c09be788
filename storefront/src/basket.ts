import type { Basket } from './types';

export type InBasket = { count: number; items: readonly { sku: string; option: string; quantity: number }[] };

/**
 * What came of one press. `unknown`: the shop may have taken it or not, and nobody may try again by himself, since that
 * could add it twice.
 */
export type Outcome = { is: 'added'; basket: InBasket } | { is: 'refused' | 'unknown' };

/** What a press adds, and what was in the basket before, where that is known. */
export type Added = { sku: string; option: string; quantity: number; before: InBasket | null };

const PATIENCE_MS = 15_000;

/** Asks the shop; `basket` is null where the answer is none, whatever its status. */
async function ask(path: string, init?: RequestInit): Promise<{ status: number; basket: InBasket | null }> {
	const answer = await fetch(path, {
		credentials: 'same-origin',
		headers: { Accept: 'application/json' },
		signal: AbortSignal.timeout(PATIENCE_MS),
		...init,
	});
	const told = answer.ok ? ((await answer.json().catch(() => null)) as Partial<InBasket> | null) : null;
	const isBasket = Number.isFinite(told?.count) && Array.isArray(told?.items);
	return { status: answer.status, basket: isBasket ? (told as InBasket) : null };
}

/** Returns what is in the basket; null where the shop does not tell. */
export function readBasket(basket: Basket): Promise<InBasket | null> {
	return ask(basket.read_path).then(
		({ basket }) => basket,
		() => null,
	);
}

/** Returns what the shop's own form would send with this press, ours laid over it. */
export function bodyOf(
	basket: Basket,
	form: HTMLFormElement | null,
	submit: HTMLButtonElement | null,
	sku: string,
	quantity: string,
): FormData | URLSearchParams {
	// A button that belongs to another form cannot submit this one.
	const own = submit?.type === 'submit' && submit.form === form ? submit : null;
	const data = form ? new FormData(form, own) : new FormData();
	data.set(basket.product_field, sku);
	if (quantity || !data.has(basket.quantity_field)) data.set(basket.quantity_field, quantity || '1');
	if (form?.enctype === 'multipart/form-data') return data;
	return new URLSearchParams(Array.from(data, ([name, value]) => [name, value instanceof File ? value.name : value]));
}

/** Tells the shop's basket "one more of this", once, and finds out what came of it. */
export async function addToBasket(basket: Basket, body: FormData | URLSearchParams, added: Added): Promise<Outcome> {
	const { sku, option, quantity, before } = added;
	let now: InBasket | null = null;
	try {
		const { status, basket: told } = await ask(basket.add_path, { method: 'POST', body });
		if (told && countOf(told, sku, option)) return { is: 'added', basket: told };
		// The shop said no. A time-out (408) and "too early" (425) say nothing of the kind.
		if (/^4(?!08|25)/.test(String(status))) return { is: 'refused' };
		now = told;
	} catch {
		// No answer is no proof that nothing arrived.
	}
	now ??= await readBasket(basket);
	if (!now || !before) return { is: 'unknown' };
	// A shop may call its lines by other codes than we do; then the whole count tells.
	const more = Math.max(countOf(now, sku, option) - countOf(before, sku, option), now.count - before.count);
	return more >= quantity ? { is: 'added', basket: now } : { is: more ? 'unknown' : 'refused' };
}

export function countOf(basket: InBasket, sku: string, option: string): number {
	return basket.items
		.filter((item) => item.sku === sku && (!option || item.option === option))
		.reduce((sum, item) => sum + item.quantity, 0);
}
