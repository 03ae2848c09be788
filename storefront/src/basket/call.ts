import { tokenHeader, type Press, type Request } from './request';
import type { Basket } from '../base/types';

const HOLE = /\{([^{}]*)\}/g;

/** Returns the value of a hole in a link or a body: the product, the quantity, the option, or one of the form's fields. */
function valueOf(hole: string, { code, quantity, option, form, line = '' }: Press): string {
	const name = hole.replace(/:(number|text)$/, '');
	if (name === 'product') return code;
	if (name === 'quantity') return quantity || '1';
	if (name === 'option') return option;
	if (name === 'line') return line;
	const value = form && new FormData(form).get(name.slice('field '.length));
	return typeof value === 'string' ? value : '';
}

/** Returns a body with its holes filled; a text that is nothing but a quantity, or asks for a number, becomes one. */
export function filled(value: unknown, press: Press): unknown {
	if (Array.isArray(value)) return value.map((item) => filled(item, press));
	if (value && typeof value === 'object')
		return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, filled(inner, press)]));
	if (typeof value !== 'string') return value;
	const text = value.replace(HOLE, (_, hole: string) => valueOf(hole, press));
	return /^\{(quantity|[^{}]*:number)\}$/.test(value) && text.trim() && Number.isFinite(Number(text))
		? Number(text)
		: text;
}

/** Returns a path with its holes filled, each value encoded. */
export const pathOf = (path: string, press: Press) =>
	path.replace(HOLE, (_, hole: string) => encodeURIComponent(valueOf(hole, press)));

/** Returns what a press sends to a basket that takes JSON or a plain link. */
export function requestOf(basket: Basket, press: Press): Request {
	const own = basket.quantity_field && press.form ? new FormData(press.form).get(basket.quantity_field) : '';
	const asked = { ...press, quantity: press.quantity || (typeof own === 'string' ? own : '') || '1' };
	const quantity = Number(asked.quantity) || 1;
	const headers = tokenHeader(basket);
	if (basket.kind === 'basket_link') {
		return { path: pathOf(basket.add_path, asked), init: { headers }, quantity };
	}
	const body = JSON.stringify(filled(basket.body, asked));
	const init = { method: basket.method ?? 'POST', body, headers: { ...headers, 'Content-Type': 'application/json' } };
	return { path: basket.add_path, init, quantity };
}
