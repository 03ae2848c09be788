/** Stands in a filled text where a product has no value; no text of a designer can hold it. */
export const HOLE = '\0';

/** Returns a text without its holes and what joined them to the rest: `Add · ` is `Add`. */
export function withoutHoles(text: string): string {
	return text.replace(/[\s·•,:;–—|/(-]*\0[\s·•,:;–—|/)\0-]*/g, ' ').trim();
}

/** Returns whole minor units of an amount, or nothing where there is none. */
export function minorUnits(amount: string, digits: number): number | undefined {
	return amount ? Math.round(Number(amount) * 10 ** digits) : undefined;
}
