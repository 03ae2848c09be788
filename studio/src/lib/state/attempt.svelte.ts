import { Problem } from '$lib/api/client';

/** Something that may be refused: why it was is told beside it, and the next try takes that away. */
export class Attempt {
	/** Why the last try was refused, in a sentence; empty where it was not. */
	wrong = $state('');
	isBusy = $state(false);

	/** Does it, and returns what comes of it; undefined where it was refused. */
	async run<Made>(work: () => Promise<Made>): Promise<Made | undefined> {
		this.wrong = '';
		this.isBusy = true;
		try {
			return await work();
		} catch (error) {
			this.wrong = error instanceof Problem ? error.message : String(error);
			return undefined;
		} finally {
			this.isBusy = false;
		}
	}
}
