import { tellingOf, type SignalOf } from './press';
import { tokenField, tokenHeader } from './request';
import type { Shop, Stand } from './stand';

const CSS =
	'dialog{border:0;padding:24px;max-width:min(26em,calc(100vw - 32px));box-sizing:border-box;font-size:16px;line-height:1.4;font-family:inherit;color:#1b1b1b;background:#fff}' +
	'dialog::backdrop{background:#0008}form{display:flex;flex-wrap:wrap;gap:12px}h2{font-size:1.1em;margin:0 0 12px}' +
	'label{flex:1 1 100%}input{display:block;width:100%;box-sizing:border-box;font:inherit;padding:8px;margin-top:4px;border:1px solid #767676}' +
	'button{font:inherit;padding:8px 16px;border:1px solid #1b1b1b;background:#1b1b1b;color:#fff;cursor:pointer}' +
	'[value=close]{background:#fff;color:#1b1b1b;margin-inline-start:auto}p{margin:12px 0 0;flex:1 1 100%}' +
	':focus-visible{outline:3px solid #1b1b1b;outline-offset:2px}';

/** What a press on a sold-out button does: it asks for a mail address in a dialog, and sends it to the shop alone. */
function make(shop: Shop, signal: SignalOf) {
	function draw(stand: Stand): HTMLDialogElement {
		const { words } = stand.standing!.made.notify!;
		const [ask = '', field = '', send = '', thanks = '', failed = '', close = '', language = ''] =
			words?.[shop.looker.language] ?? words?.[shop.manifest.language] ?? [];
		const host = document.createElement('div');
		host.lang = language;
		host.dir = /^(ar|he)/.test(language) ? 'rtl' : 'ltr';
		host.dataset.upNotify = '';
		const root = host.attachShadow({ mode: 'open' });
		const sheet = new CSSStyleSheet();
		sheet.replaceSync(CSS);
		root.adoptedStyleSheets = [sheet];
		const dialog = document.createElement('dialog');
		const { name } = stand.product!;
		const head = Object.assign(document.createElement('h2'), { id: 'h', textContent: `${ask}: ${name}` });
		dialog.setAttribute('aria-labelledby', 'h');
		const form = document.createElement('form');
		const label = document.createElement('label');
		const mail = Object.assign(document.createElement('input'), {
			type: 'email',
			required: true,
			autocomplete: 'email',
		});
		label.append(field, mail);
		const sends = Object.assign(document.createElement('button'), { textContent: send });
		const closes = Object.assign(document.createElement('button'), {
			type: 'button',
			value: 'close',
			textContent: '×',
		});
		closes.setAttribute('aria-label', close);
		const says = document.createElement('p');
		says.setAttribute('role', 'status');
		form.append(label, sends, closes, says);
		dialog.append(head, form);
		root.append(dialog);
		closes.onclick = () => dialog.close();
		// The focus goes back to the button by itself; what was drawn goes with the dialog.
		dialog.onclose = () => host.remove();
		form.onsubmit = async (event) => {
			event.preventDefault();
			sends.disabled = true;
			const isTaken = await post(stand, mail.value);
			says.textContent = isTaken ? thanks : failed;
			sends.disabled = false;
			if (!isTaken) return;
			label.remove();
			sends.remove();
			closes.focus();
		};
		document.body.append(host);
		return dialog;
	}

	/** Sends an address to the shop's own page of it; whether that took it. */
	async function post(stand: Stand, mail: string): Promise<boolean> {
		const { notify } = stand.standing!.made;
		const { basket } = shop.manifest;
		const told = { [notify!.mail]: mail, [notify!.product]: stand.product!.code };
		const body = new URLSearchParams({ ...tokenField(basket), ...told });
		const headers = { Accept: 'application/json', ...tokenHeader(basket) };
		try {
			return (await fetch(notify!.path, { method: 'POST', body, headers })).ok;
		} catch {
			return false;
		}
	}

	return (stand: Stand) => {
		if (document.querySelector('[data-up-notify]')) return;
		signal('clicked', tellingOf(stand, shop));
		draw(stand).showModal();
	};
}
export type MakeNotify = typeof make;

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: MakeNotify }) | null;
if (own) own.up = make;
