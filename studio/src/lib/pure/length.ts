/** A length as documents keep it: pixels, or a number with %, em or vw. */
export type Length = number | string;

/** What relative lengths are relative to, in pixels. */
export type Ground = { container: number; window: number; type: number };

type Value = { number: number; unit: string };

/** Returns a length in pixels. */
export function inPx(length: Length, ground: Ground): number {
	if (typeof length === 'number') return length;
	const match = /^([\d.]+)(%|em|vw)$/.exec(length);
	return match ? Number(match[1]) * unitPx(match[2] ?? '', ground) : 0;
}

function unitPx(unit: string, { container, window, type }: Ground): number {
	return { '%': container / 100, em: type, vw: window / 100, rem: 16, pt: 96 / 72 }[unit] ?? 1;
}

/**
 * Returns what a person typed as a length: a number with or without a unit, or a sum of such, as 12*1.5 or (320-16)/2.
 * A unit stays where it is only scaled by plain numbers; everything else comes to pixels. Null is no length.
 */
export function typedLength(text: string, ground: Ground, keepsUnits: boolean): Length | null {
	const tokens = text
		.toLowerCase()
		.replace(/,/g, '.')
		.match(/[\d.]+|%|[a-z]+|[-+*/()]|\S/g);
	if (!tokens) return null;
	const reader = new Reader(tokens, ground);
	const value = reader.sum();
	if (!value || !reader.isDone || !Number.isFinite(value.number)) return null;
	const rounded = Math.round(value.number * 1000) / 1000;
	if (!value.unit || value.unit === 'px') return rounded;
	if (keepsUnits && ['%', 'em', 'vw'].includes(value.unit)) return `${rounded}${value.unit}`;
	return Math.round(value.number * unitPx(value.unit, ground) * 100) / 100;
}

class Reader {
	#at = 0;

	constructor(
		readonly tokens: readonly string[],
		readonly ground: Ground,
	) {}

	get isDone(): boolean {
		return this.#at === this.tokens.length;
	}

	#take(...wanted: string[]): string | null {
		const next = this.tokens[this.#at];
		if (next === undefined || !wanted.includes(next)) return null;
		this.#at++;
		return next;
	}

	sum(): Value | null {
		let left = this.#product();
		for (let sign = this.#take('+', '-'); left && sign; sign = this.#take('+', '-')) {
			const right = this.#product();
			left = right && this.#added(left, right, sign === '-' ? -1 : 1);
		}
		return left;
	}

	/** Equal units stay; a bare number beside a unit is one of pixels. */
	#added(left: Value, right: Value, sign: number): Value {
		if (left.unit === right.unit) return { number: left.number + sign * right.number, unit: left.unit };
		return { number: this.#px(left) + sign * this.#px(right), unit: 'px' };
	}

	#px({ number, unit }: Value): number {
		return number * (unit ? unitPx(unit, this.ground) : 1);
	}

	#product(): Value | null {
		let left = this.#atom();
		for (let sign = this.#take('*', '/'); left && sign; sign = this.#take('*', '/')) {
			const right = this.#atom();
			if (!right || (right.unit && (sign === '/' || left.unit))) return null;
			const number = sign === '*' ? left.number * right.number : left.number / right.number;
			left = { number, unit: left.unit || right.unit };
		}
		return left;
	}

	#atom(): Value | null {
		if (this.#take('-')) {
			const inner = this.#atom();
			return inner && { ...inner, number: -inner.number };
		}
		if (this.#take('(')) {
			const inner = this.sum();
			return this.#take(')') ? inner : null;
		}
		const next = this.tokens[this.#at] ?? '';
		if (!/^\d*\.?\d+$/.test(next) && !/^\d+\.$/.test(next)) return null;
		this.#at++;
		const unit = this.#take('px', '%', 'em', 'vw', 'rem', 'pt') ?? '';
		return { number: Number(next), unit };
	}
}

/** Returns a length one step on; what has a unit keeps it, in steps of a tenth of it (a whole percent). */
export function stepped(length: Length, by: number, least: number, most: number): Length {
	if (typeof length === 'number') return Math.round(Math.min(most, Math.max(least, length + by)) * 100) / 100;
	const match = /^([\d.]+)(%|em|vw)$/.exec(length);
	if (!match) return length;
	const part = match[2] === 'em' ? 0.1 : match[2] === 'vw' ? 0.2 : 1;
	return `${Math.round(Math.max(0, Number(match[1]) + by * part) * 1000) / 1000}${match[2]}`;
}
