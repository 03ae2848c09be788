import type { Look } from '$lib/api/types';
import { inPx, type Ground, type Length } from './length';

type Sides = 'left' | 'right' | 'top' | 'bottom';
type Values = Readonly<Record<string, unknown>>;
/** What of a look says how large a button is. */
export type Sized = Pick<Look, 'size' | 'padding'>;

const OPPOSITE: Record<Sides, Sides> = { left: 'right', right: 'left', top: 'bottom', bottom: 'top' };

/** Returns what changes with a value: where equal sides are linked, a side's padding takes the opposite's with it. */
export function withOpposite(path: string, value: Length, isLinked: boolean): Values {
	const side = /^look\.padding\.(\w+)$/.exec(path)?.[1];
	const opposite = isLinked && side ? OPPOSITE[side as Sides] : undefined;
	return opposite ? { [path]: value, [`look.padding.${opposite}`]: value } : { [path]: value };
}

/** A width that follows from words and padding is changed by its padding, one that fills its room by its most. */
export function widthOf(look: Sized, ground: Ground, now: number, wanted: number): Values {
	if (look.size.kind === 'fixed') return { 'look.size.width': wanted };
	if (look.size.kind === 'full') return { 'look.size.most': wanted };
	return spread(look, ground, 'left', 'right', wanted - now);
}

/** A height that follows from the line and padding is changed by its padding. */
export function heightOf(look: Sized, ground: Ground, now: number, wanted: number): Values {
	if (look.size.kind === 'fixed') return { 'look.size.height': wanted };
	return spread(look, ground, 'top', 'bottom', wanted - now);
}

/** Gives half of what is added to each of two sides, in hundredths of a pixel; no padding goes below nothing. */
function spread(look: Sized, ground: Ground, first: Sides, second: Sides, more: number): Values {
	const half = (side: Sides) => Math.max(0, Math.round((inPx(look.padding[side], ground) + more / 2) * 100) / 100);
	return { [`look.padding.${first}`]: half(first), [`look.padding.${second}`]: half(second) };
}
