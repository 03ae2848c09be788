import { CssFrame, type Reading } from './frame';
import type { Likely } from './likely';

export type Asked = { css: string; markup?: string; name?: string; words?: string };

/**
 * Reads a stylesheet in a page that is there for nothing else, for the command line. Without markup of its own, the
 * button that is named is read, or else the first that the stylesheet seems to have.
 */
export async function readCss(asked: Asked): Promise<{ reading: Reading | null; likely: Likely[] }> {
	const frame = await CssFrame.open(asked.css, document.body);
	try {
		const likely = frame.likely(asked.words ?? 'Add to basket');
		const chosen = likely.find((guess) => guess.name === asked.name) ?? likely[0];
		if (asked.markup) return { reading: frame.read(asked.markup, asked.name), likely };
		return { reading: chosen ? frame.read(chosen.markup, chosen.name) : null, likely };
	} finally {
		frame.close();
	}
}
