import { addressOf } from './address';
import { DOUBLE_MS, tellingOf } from '../press/press';
import type { SignalOf } from '../signals/signals';
import type { Shop, Stand } from '../base/shop';

/** What a press on a message button does: it opens the mail, the call, the text message or the chat. */
function make(shop: Shop, signal: SignalOf) {
	return (stand: Stand) => {
		const before = stand.pressedAt;
		stand.pressedAt = performance.now();
		const message = stand.standing?.made.message;
		if (!message || stand.pressedAt - before < DOUBLE_MS) return;
		signal('clicked', tellingOf(stand, shop));
		const address = addressOf(stand, shop, new Date());
		if (message.tab) open(address, '_blank', 'noopener');
		else location.href = address;
	};
}

export type MakeMessage = typeof make;

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: MakeMessage }) | null;
if (own) own.up = make;
