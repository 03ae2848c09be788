/** Returns a hex colour in the form that documents keep, `#3a2a12`, or null for anything else. */
export function hexColour(text: string): string | null {
	const bare = text.trim().replace(/^#/, '').toLowerCase();
	if (/^[0-9a-f]{6}$/.test(bare)) return `#${bare}`;
	if (/^[0-9a-f]{3}$/.test(bare)) return `#${[...bare].map((c) => c + c).join('')}`;
	return null;
}
