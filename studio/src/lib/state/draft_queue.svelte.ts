import { Problem } from '$lib/api/client';
import type { DraftState } from '$lib/api/types';

type Around = {
	/** Reads where the draft stands now. */
	read: () => Promise<DraftState>;
	/** Called when nobody is signed in any more. */
	onsignedout: () => void;
};

/** Does something with the header that tells which version of the draft was seen. */
export type Doing = (headers: Record<string, string>) => Promise<DraftState | null>;

/** Changes rest once none has come for so long: longer than an edit takes that is held or dragged. */
const REST_MS = 300;

/** The changes of the draft, one at a time, each on the version that the one before has made. */
export class DraftQueue {
	#draft = $state.raw<DraftState | null>(null);
	/** The draft as it was when changes last rested: what lies beside an edit need not follow each step of a drag. */
	rested = $state.raw<DraftState | null>(null);
	#resting: ReturnType<typeof setTimeout> | undefined;
	saving = $state(false);
	savedOnce = $state(false);
	problem = $state.raw<Problem | null>(null);
	/** What could not be done, as a sentence. */
	failed = $state('');
	#last: Promise<unknown> = Promise.resolve();

	constructor(readonly around: Around) {}

	get draft(): DraftState | null {
		return this.#draft;
	}

	set draft(draft: DraftState | null) {
		this.#draft = draft;
		clearTimeout(this.#resting);
		if (this.rested && draft) this.#resting = setTimeout(() => (this.rested = draft), REST_MS);
		else this.rested = draft;
	}

	/** Does one change after those before it. Says whether it was done; what went wrong stands in `problem` and `failed`. */
	act(doing: Doing, failed = 'It was not saved.'): Promise<boolean> {
		const done = this.#last.then(() => this.#do(doing, failed));
		this.#last = done;
		return done;
	}

	async #do(doing: Doing, failed: string): Promise<boolean> {
		this.saving = true;
		try {
			const draft = await doing({ 'If-Match': `"${this.draft?.version ?? 0}"` });
			this.problem = null;
			this.savedOnce = true;
			if (draft) this.draft = draft;
			return true;
		} catch (error) {
			this.problem = error instanceof Problem ? error : new Problem({ detail: String(error) });
			this.failed = this.problem.code === 'stale' ? 'Somebody else changed it.' : failed;
			if (this.problem.code === 'stale') {
				// What others have changed is shown; what was to be changed is done again by hand. Where that cannot be read
				// now, the next change is told the same and reads again.
				this.draft = await this.around.read().catch(() => this.draft);
			}
			if (this.problem.code === 'not_signed_in') this.around.onsignedout();
			return false;
		} finally {
			this.saving = false;
		}
	}
}
