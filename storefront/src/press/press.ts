import { ask, readBasket } from '../basket/basket';
import { countOf } from '../basket/count';
import { requestOf } from '../basket/call';
import { formRequest, type Request } from '../basket/request';
import type { SignalEvent, SignalOf } from '../signals/signals';
import type { InBasket, Reads, Shop, Stand } from '../base/shop';
import type { Basket, Moment } from '../base/types';

const ADDED_MS = 1600;
/** Clicks that follow each other faster are one press. */
export const DOUBLE_MS = 500;

/**
 * What came of one press. `unknown`: the shop may have taken it or not, and nobody may try again by himself, since that
 * could add it twice.
 */
export type Outcome = { is: 'added'; basket: InBasket } | { is: 'refused' | 'unknown' };

/** What a press adds, and what was in the basket before, where that is known. */
export type Added = { sku: string; option: string; quantity: number; before: InBasket | null };

/** Tells the shop's basket "one more of this", once, and finds out what came of it. */
export async function addToBasket(basket: Basket, request: Request, added: Added, reads?: Reads): Promise<Outcome> {
	const { sku, option, before } = added;
	let now: InBasket | null = null;
	try {
		const { status, basket: told } = await ask(basket, request.path, reads, request.init);
		if (told && countOf(told, sku, option))
			// The same as before: it was full, or our own knowledge is old. A second press could add it twice.
			return isSame(told, before, sku, option) ? { is: 'unknown' } : { is: 'added', basket: told };
		// The shop said no. A time-out (408) and "too early" (425) say nothing of the kind.
		if (/^4(?!08|25)/.test(String(status))) return { is: 'refused' };
		now = told;
	} catch {
		// No answer is no proof that nothing arrived.
	}
	now ??= await readBasket(basket, reads);
	if (!now || !before) return { is: 'unknown' };
	// A shop may call its lines by other codes than we do; then the whole count tells.
	const more = Math.max(countOf(now, sku, option) - countOf(before, sku, option), now.count - before.count);
	return more >= added.quantity ? { is: 'added', basket: now } : { is: more ? 'unknown' : 'refused' };
}

function isSame(now: InBasket, before: InBasket | null, sku: string, option: string): boolean {
	return now.count === before?.count && countOf(now, sku, option) === countOf(before, sku, option);
}

/** One press: one request to the basket at most, and one outcome. */
export async function press(stand: Stand, shop: Shop, after: string, signal: SignalOf): Promise<void> {
	const before = stand.pressedAt;
	stand.pressedAt = performance.now();
	if (stand.pressedAt - before < DOUBLE_MS) return;
	// What the shop's own script has put into the form without a word is seen now at the latest.
	stand.tend();
	if (stand.is !== 'ours') return;
	const moment = stand.moment();
	if (stand.inactive(moment)) {
		stand.pressedAt = before;
		leadToChoice(stand, moment);
		return;
	}
	signal('clicked', tellingOf(stand, shop));
	const { form } = stand;
	const { sku, code, url } = stand.product!;
	if (moment === 'choose_first') {
		if (url) location.assign(url);
		return;
	}
	if (form && !form.noValidate && !form.checkValidity()) {
		// A form that is drawn can say itself what it lacks; one that we hide with the shop's button cannot.
		if (form.getClientRects().length) form.reportValidity();
		else giveBack(stand, shop, 'refused');
		return;
	}
	const { basket } = shop.manifest;
	const option = stand.option();
	const quantity = stand.host.shadowRoot?.querySelector('input')?.value ?? '';
	const request = (basket.kind === 'form_post' ? formRequest : requestOf)(basket, {
		code,
		option,
		quantity,
		form,
		submit: stand.submit,
	});
	const telling = tellingOf(stand, shop);
	stand.pass('working');
	const added = { sku: code, option, quantity: request.quantity, before: shop.basket };
	const outcome = await addToBasket(basket, request, added, shop.reads);
	const isHere = stand.is === 'ours' && stand.product?.sku === sku;
	if (outcome.is !== 'added') {
		giveBack(stand, shop, outcome.is, isHere);
		return;
	}
	shop.basket = outcome.basket;
	signal('added', { ...telling, quantity: request.quantity });
	const isQuiet = after === 'count';
	if (isHere) stand.pass(isQuiet ? '' : 'added', ADDED_MS);
	shop.changed?.(outcome.basket);
	// Nothing moves; who listens hears what the button says now.
	if (isQuiet) shop.announce?.(stand.host.shadowRoot?.querySelector('.b')?.textContent ?? '');
	else if (after === 'show') shop.show?.(stand, outcome.basket);
	else if (!/^(stay|notify)$/.test(after))
		location.assign(after === 'basket' ? basket.basket_path : basket.checkout_path);
}

function leadToChoice(stand: Stand, moment: Moment): void {
	const choice = moment === 'choose_first' && stand.unchosen();
	if (!choice) return;
	// Swatches often keep their choice in a field that is not drawn; what stands around it is.
	choice.parentElement?.scrollIntoView({ block: 'center' });
	choice.focus();
}

/** Returns what a signal tells of a button as it is now. */
export function tellingOf(stand: Stand, { looker: { kind, device, language } }: Shop): Partial<SignalEvent> {
	const { situation, sku } = stand.product!;
	return {
		place: stand.name(),
		seen_as: stand.moment() === 'in_basket' ? 'in_basket' : situation,
		situation,
		shopper_kind: kind,
		product: sku,
		versions: stand.standing!.versions,
		device,
		language,
	};
}

/** Says what came of a press and puts the shop's own button back; it is not pressed, since that could add twice. */
export function giveBack(stand: Stand, shop: Shop, is: 'refused' | 'unknown', isHere = true): void {
	const [refused, unknown, look] = shop.manifest.outcomes[shop.looker.language]!;
	const { name, url } = stand.product ?? {};
	// Where the shop has no button of its own, its page has one.
	const isAway = is === 'refused' && !stand.submit && !!url;
	const text = is === 'unknown' ? unknown : isAway ? refused.split(/(?<=[.。])/)[0]! : refused;
	shop.announce?.(text);
	if (!isHere) return;
	const note = document.createElement('p');
	note.dataset.upNote = is;
	note.append(text);
	if (is === 'unknown' || isAway) {
		const link = document.createElement('a');
		link.href = isAway ? url : shop.manifest.basket.basket_path;
		link.append((isAway && name) || look);
		note.append(' ', link);
	}
	stand.giveBack(is, note);
}
