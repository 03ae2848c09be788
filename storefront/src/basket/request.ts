import type { Basket } from '../base/types';

/** What one press would send. `code` is what the shop's basket calls the product; `quantity` is empty where ours has none. */
export type Press = {
	code: string;
	option: string;
	quantity: string;
	form: HTMLFormElement | null;
	submit: HTMLButtonElement | null;
	/** What the shop calls a line of its basket, where one is changed. */
	line?: string;
};
export type Request = { path: string; init: RequestInit; quantity: number };

/** Returns the word against forged requests that the page carries; empty where it is not there. */
export function tokenOf({ token }: Basket): string {
	if (!token) return '';
	if (token.source === 'cookie') {
		const all = document.cookie.split('; ').find((pair) => pair.startsWith(`${token.source_name}=`));
		return decodeURIComponent((all ?? '').slice(token.source_name.length + 1));
	}
	const holder = document.querySelector<HTMLMetaElement & HTMLInputElement>(
		`${token.source === 'meta' ? 'meta' : 'input'}[name="${token.source_name}"]`,
	);
	return holder?.content || holder?.value || '';
}

/** Returns what the shop's own form would send with this press, ours laid over it. */
export function bodyOf(basket: Basket, { form, submit, code, quantity }: Press): FormData | URLSearchParams {
	// A button that belongs to another form cannot submit this one.
	const own = submit?.type === 'submit' && submit.form === form ? submit : null;
	const data = form ? new FormData(form, own) : new FormData();
	const { product_field, quantity_field, token } = basket;
	if (product_field) data.set(product_field, code);
	if (quantity_field && (quantity || !data.has(quantity_field))) data.set(quantity_field, quantity || '1');
	if (token?.sent_as === 'field' && !data.has(token.sent_name)) data.set(token.sent_name, tokenOf(basket));
	if (form?.enctype === 'multipart/form-data') return data;
	return new URLSearchParams(Array.from(data, ([name, value]) => [name, value instanceof File ? value.name : value]));
}

/** Returns the headers that carry the shop's word against forged requests. */
export function tokenHeader(basket: Basket): Record<string, string> {
	return basket.token?.sent_as === 'header' ? { [basket.token.sent_name]: tokenOf(basket) } : {};
}

/** Returns the field that carries the shop's word against forged requests. */
export function tokenField(basket: Basket): Record<string, string> {
	return basket.token?.sent_as === 'field' ? { [basket.token.sent_name]: tokenOf(basket) } : {};
}

/** Returns what a press sends to a basket that takes a form. */
export function formRequest(basket: Basket, press: Press): Request {
	const body = bodyOf(basket, press);
	return {
		path: basket.add_path,
		init: { method: 'POST', body, headers: tokenHeader(basket) },
		quantity: Number(body.get(basket.quantity_field)) || 1,
	};
}
