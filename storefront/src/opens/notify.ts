import { tellingOf } from '../press/press';
import type { SignalOf } from '../signals/signals';
import { tokenField, tokenHeader } from '../basket/request';
import type { Tools } from './tools';
import type { Shop, Stand } from '../base/shop';

/** What a press on a sold-out button does: it asks for a mail address in a dialog, and sends it to the shop alone. */
function make(shop: Shop, { element, openSheet }: Tools, signal: SignalOf) {
	function open(stand: Stand): void {
		const { words } = stand.standing!.made.notify!;
		const told = words?.[shop.looker.language] ?? words?.[shop.manifest.language] ?? [];
		const [ask = '', called = '', send = '', thanks = '', failed = ''] = told;
		const { dialog, body } = openSheet(shop, stand, told, 'middle');
		const head = Object.assign(element('h2', '', `${ask}: ${stand.product!.name}`), { id: 'h' });
		dialog.setAttribute('aria-labelledby', 'h');
		const form = element('form', 'f');
		form.style.padding = '0';
		const label = element('label', '', called);
		const mail = Object.assign(element('input'), { type: 'email', required: true, autocomplete: 'email' });
		mail.style.cssText = 'display:block;width:100%;margin-top:4px';
		label.append(mail);
		const sends = element('button', 'b', send);
		const says = element('p');
		says.setAttribute('role', 'status');
		form.append(label, sends, says);
		body.append(head, form);
		form.onsubmit = async (event) => {
			event.preventDefault();
			sends.disabled = true;
			const isTaken = await post(stand, mail.value);
			says.textContent = isTaken ? thanks : failed;
			sends.disabled = false;
			if (!isTaken) return;
			label.remove();
			sends.remove();
			dialog.querySelector<HTMLElement>('.x')!.focus();
		};
		mail.focus();
	}

	/** Sends an address to the shop's own page of it; whether that took it. */
	async function post(stand: Stand, mail: string): Promise<boolean> {
		const { notify } = stand.standing!.made;
		const { basket } = shop.manifest;
		const fields = { [notify!.mail]: mail, [notify!.product]: stand.product!.code };
		const body = new URLSearchParams({ ...tokenField(basket), ...fields });
		const headers = { Accept: 'application/json', ...tokenHeader(basket) };
		try {
			return (await fetch(notify!.path, { method: 'POST', body, headers })).ok;
		} catch {
			return false;
		}
	}

	return (stand: Stand) => {
		if (shop.opened) return;
		signal('clicked', tellingOf(stand, shop));
		open(stand);
	};
}
export type MakeNotify = typeof make;

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: MakeNotify }) | null;
if (own) own.up = make;
