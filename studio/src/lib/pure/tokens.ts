/** Returns what has been typed of a live value whose brace is open at a place in a text; null where none is. */
export function openBrace(text: string, at: number): string | null {
	const before = text.slice(0, at);
	const open = before.lastIndexOf('{');
	if (open < 0 || before.lastIndexOf('}') > open) return null;
	const begun = before.slice(open + 1);
	// In a plural's form the brace holds words, not the name of a value.
	const inPlural = /plural\s*,[^}]*$/.test(before.slice(0, open));
	return /^[a-z ]*$/.test(begun) && !inPlural ? begun.trimStart() : null;
}

/** Returns the text with a live value in place of the open brace, and where the writing goes on. */
export function withToken(text: string, at: number, name: string): { text: string; at: number } {
	const open = text.slice(0, at).lastIndexOf('{');
	const rest = text.slice(at).replace(/^[a-z ]*\}/, '');
	const head = `${text.slice(0, open)}{${name}}`;
	return { text: head + rest, at: head.length };
}
