const whole = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 0 });
const one = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 1 });
const tenths = new Intl.NumberFormat('en-GB', { minimumFractionDigits: 1, maximumFractionDigits: 1 });
const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' });
const dayAndTime = new Intl.DateTimeFormat('en-GB', {
	day: 'numeric',
	month: 'short',
	hour: '2-digit',
	minute: '2-digit',
});

/** Returns a count with its thousands parted: 16,316. */
export function count(value: number): string {
	return whole.format(value);
}

/** Returns pixels with at most one decimal, without the unit. */
export function px(value: number): string {
	return one.format(Math.round(value * 10) / 10);
}

/** Returns a share as percent with one decimal, and a real minus. */
export function percent(share: number): string {
	return `${tenths.format(share * 100)} %`.replace('-', '−');
}

/** Returns a share in percent with one decimal, without the sign of percent. */
export function tenth(share: number): string {
	return tenths.format(share * 100);
}

/** Returns a difference of shares in points, always signed; `exact` keeps a decimal that is 0. */
export function points(difference: number, exact = false): string {
	const value = Math.round(difference * 1000) / 10;
	return `${value > 0 ? '+' : value < 0 ? '−' : '±'}${(exact ? tenths : one).format(Math.abs(value))}`;
}

export function date(iso: string): string {
	return day.format(new Date(iso));
}

export function moment(iso: string): string {
	return dayAndTime.format(new Date(iso));
}

/** Returns a code such as `listing_card` as a person would say it. */
export function said(code: string): string {
	return code.replace(/_/g, ' ');
}

export function capital(text: string): string {
	return text.charAt(0).toUpperCase() + text.slice(1);
}

const list = new Intl.ListFormat('en-GB');

/** Returns `a, b and c`. */
export function listed(names: readonly string[]): string {
	return list.format(names);
}

/** Returns `3 buttons` or `1 button`. */
export function many(n: number, thing: string, things = `${thing}s`): string {
	return `${count(n)} ${n === 1 ? thing : things}`;
}
