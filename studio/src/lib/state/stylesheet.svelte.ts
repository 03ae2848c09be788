import { CssFrame, MOST_CSS, type Reading } from '$lib/pure/css/frame';
import type { Likely } from '$lib/pure/css/likely';

/** A button of a stylesheet where it stands in its frame. */
export type Standing = Likely & { box: DOMRect };

/** A stylesheet that is brought: the buttons that it seems to have, laid out, and what is read of the one that is meant. */
export class Stylesheet {
	/** The buttons that it seems to have; null until they are laid out. */
	standing = $state.raw<readonly Standing[] | null>(null);
	wrong = $state('');
	readonly #css: string;
	readonly #words: string;
	#frame: CssFrame | null = null;

	readonly #onlyOne: (onlyButton: Likely) => void;

	/** `onlyOne` is called where there is nothing to choose. */
	constructor(css: string, words: string, onlyOne: (onlyButton: Likely) => void) {
		this.#onlyOne = onlyOne;
		// Bare declarations are those of a button without a name.
		this.#css = css.includes('{') ? css : `.button{${css}}`;
		this.#words = words;
	}

	/** Lays its buttons out in some place of the page, until that is gone. */
	readonly layOut = (place: HTMLElement): (() => void) => {
		let gone = false;
		if (this.#css.length > MOST_CSS) {
			this.wrong = `The stylesheet has ${this.#css.length.toLocaleString('en')} characters; ${MOST_CSS.toLocaleString('en')} are the most.`;
			this.standing = [];
			return () => undefined;
		}
		void CssFrame.open(this.#css, place, true).then((frame) => {
			if (gone) return frame.close();
			this.#frame = frame;
			const likely = frame.likely(this.#words.replace(/[<&"]/g, ''));
			const boxes = frame.layOut(likely, place.clientWidth);
			this.standing = likely.flatMap((guess, n) => (boxes[n] ? [{ ...guess, box: boxes[n] }] : []));
			if (likely.length === 1) this.#onlyOne(likely[0]!);
		});
		return () => {
			gone = true;
			this.#frame?.close();
			this.#frame = null;
		};
	};

	/** Returns what the browser makes of it for a button in its own markup, or null where there is none. */
	async read(markup: string, name = ''): Promise<Reading | null> {
		this.wrong = '';
		const frame = await CssFrame.open(this.#css, document.body);
		try {
			const look = frame.read(markup, name);
			if (!look)
				this.wrong = 'There is no element in it. Write the button as your page does: <button class="…">…</button>';
			return look;
		} finally {
			frame.close();
		}
	}
}
