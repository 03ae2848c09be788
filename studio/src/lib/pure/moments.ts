import type { Moment, Placement } from '$lib/api/types';
import { MOMENTS } from './facts';

/** Tells whether the button waits in a moment. Where the choice is on the page, it waits for that too. */
export function waits(moment: Moment, placement: Placement): boolean {
	if (moment === 'sold_out' || moment === 'working') return true;
	// On a product's own page its choice is there too.
	return moment === 'choose_first' && ['product_page', 'sticky_bar', 'floating'].includes(placement);
}

/** Returns the moment so many steps on, around the end. */
export function momentAfter(moment: Moment, steps: number): Moment {
	return MOMENTS[(MOMENTS.indexOf(moment) + steps + MOMENTS.length) % MOMENTS.length] ?? 'ready';
}
