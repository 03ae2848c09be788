/** How far one press of an arrow key goes: 1, with Shift 10, with Alt a half. */
export function stepOf(event: { shiftKey: boolean; altKey: boolean }): number {
	return event.shiftKey ? 10 : event.altKey ? 0.5 : 1;
}

/** Returns a value within its bounds, free of rounding dust. */
export function within(value: number, least: number, most: number): number {
	return Math.round(Math.min(most, Math.max(least, value)) * 100) / 100;
}

/** Returns what a person typed as a number; a unit behind it may stand, anything else is null. */
export function typedNumber(text: string): number | null {
	const match = /^\s*([+-]?\d+(?:[.,]\d+)?)\s*(?:px|%)?\s*$/.exec(text);
	return match?.[1] ? Number(match[1].replace(',', '.')) : null;
}
