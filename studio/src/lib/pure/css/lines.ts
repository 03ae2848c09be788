/** One declaration as it is written, with the selector of its rule and the line where it stands. */
export type Written = { selector: string; name: string; value: string; line: number };

/**
 * Yields the declarations of a stylesheet as they are written. The browser keeps only those that it knows, so what it
 * has left out can be told by nothing else. Rules within rules keep the innermost selector.
 */
export function* writtenIn(css: string): Generator<Written> {
	const stack: string[] = [];
	let line = 1;
	let begun = '';
	let begunLine = 1;
	let depth = 0;
	function* ended(): Generator<Written> {
		const colon = begun.indexOf(':');
		const selector = stack.at(-1) ?? '';
		if (colon > 0 && stack.length)
			yield { selector, name: begun.slice(0, colon).trim(), value: begun.slice(colon + 1).trim(), line: begunLine };
		begun = '';
	}
	for (let n = 0; n < css.length; n++) {
		const c = css[n]!;
		if (c === '\n') line++;
		if (c === '/' && css[n + 1] === '*') {
			const end = css.indexOf('*/', n + 2);
			const comment = css.slice(n, end < 0 ? undefined : end + 2);
			line += comment.split('\n').length - 1;
			n += comment.length - 1;
			continue;
		}
		if (c === '\\' || c === '"' || c === "'") {
			const end = c === '\\' ? n + 2 : textEnd(css, n);
			const piece = css.slice(n, end);
			if (!begun.trim()) begunLine = line;
			line += c === '\\' ? 0 : piece.split('\n').length - 1;
			begun += piece;
			n = end - 1;
			continue;
		}
		if (c === '(') depth++;
		if (c === ')') depth = Math.max(0, depth - 1);
		if (depth && c !== '}') {
			begun += c;
		} else if (c === '{') {
			stack.push(begun.trim());
			begun = '';
		} else if (c === '}') {
			depth = 0;
			yield* ended();
			stack.pop();
		} else if (c === ';') {
			yield* ended();
		} else {
			if (!begun.trim()) begunLine = line;
			begun += c;
		}
	}
}

/** A text ends at its quote, or where its line does (CSS Syntax 3, section 4.3.5). */
function textEnd(css: string, n: number): number {
	for (let end = n + 1; end < css.length; end++) {
		if (css[end] === '\\') end++;
		else if (css[end] === css[n] || css[end] === '\n') return end + 1;
	}
	return css.length;
}
