import type { Asked } from '$lib/api/queries';
import type { Device, Moment, Patch, Placement } from '$lib/api/types';

/** Where an exception is made from, and what it shall set at first. */
export type From = {
	placement: Placement;
	device?: Device;
	language?: string;
	product?: { sku: string; name: string; category: string };
	moment?: Moment;
	text?: string;
	layer?: Patch;
	/** What it sets, as a designer says it. */
	sets?: string;
	/** Called with the new exception's id. */
	onmade?: (id: string) => void;
};

/** Which of the sheets that every station can open is open. */
export class Opened {
	/** The exception that is looked at, by its id. */
	exception = $state('');
	/** The value whose trace is looked at. */
	trace = $state.raw<Asked | null>(null);
	/** Where an exception is being made from. */
	newException = $state.raw<From | null>(null);
	search = $state(false);
	history = $state(false);
	shortcuts = $state(false);
	/** How the shop's basket is told. */
	connection = $state(false);
	newStore = $state(false);
}
