import { wait } from '../base/wait';
import type { Manifest } from '../base/types';

const FONT_WAIT_MS = 1200;

/**
 * Loads the fonts that buttons use, since a font that comes late would move what stands beside them. The page gets them
 * only once they are there: whatever is added to its fonts, or comes in for one of them, lays the whole page out anew.
 */
export async function loadFonts({ fonts, edge }: Manifest, rtl: boolean): Promise<void> {
	const faces = fonts.map(({ family, weight, range, file }) => {
		const face = new FontFace(family, `url(${edge}/fonts/${file})`, { weight, unicodeRange: range });
		// Only what the buttons' own letters need: the extended subset comes when a letter asks for it.
		const isOwn = range.startsWith('U+0-') || (rtl && range.startsWith('U+600-'));
		return { face, loading: isOwn && face.load().catch(() => undefined) };
	});
	await Promise.race([Promise.all(faces.map(({ loading }) => loading)), wait(FONT_WAIT_MS)]);
	for (const { face } of faces) document.fonts.add(face);
}
