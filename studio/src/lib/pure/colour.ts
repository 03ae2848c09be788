/**
 * Returns a hex colour in the form that documents keep, `#3a2a12`, or null for anything else. One that lets the page
 * show through has two digits more, and is taken only where it may.
 */
export function hexColour(text: string, seeThrough = false): string | null {
	const bare = text.trim().replace(/^#/, '').toLowerCase();
	const whole = /^[0-9a-f]{3,4}$/.test(bare) ? [...bare].map((c) => c + c).join('') : bare;
	if (/^[0-9a-f]{6}$/.test(whole)) return `#${whole}`;
	if (seeThrough && /^[0-9a-f]{8}$/.test(whole)) return withOpacity(`#${whole}`, opacityOf(`#${whole}`));
	return null;
}

/** Returns how much of a colour is there, in percent. */
export const opacityOf = (colour: string): number =>
	colour.length === 9 ? Math.round((parseInt(colour.slice(7), 16) / 255) * 100) : 100;

/** Returns a colour of which so many percent are there; a whole one has six digits. */
export function withOpacity(colour: string, percent: number): string {
	if (percent >= 100) return colour.slice(0, 7);
	// Digits that stand for this percentage already stay what they are.
	if (colour.length === 9 && opacityOf(colour) === percent) return colour;
	return (
		colour.slice(0, 7) +
		Math.round((percent / 100) * 255)
			.toString(16)
			.padStart(2, '0')
	);
}
