/**
 * Asks for the newest of several wishes. Of those that come faster than their answers only the last is asked for, and an
 * answer counts only while nothing newer was begun: one at a time is on its way.
 */
export class Newest<Wish, Answer> {
	#wanted: { wish: Wish } | null = null;
	#running: AbortController | null = null;

	constructor(
		readonly ask: (wish: Wish, signal: AbortSignal) => Promise<Answer>,
		readonly got: (answer: Answer, wish: Wish) => void,
		/** What went wrong and may be passed over: the next wish can be right again. */
		readonly passes: (error: unknown) => boolean,
	) {}

	want(wish: Wish): void {
		this.#wanted = { wish };
		if (!this.#running) void this.#run();
	}

	/** Gives up what is wanted and what is on its way. */
	stop(): void {
		this.#wanted = null;
		this.#running?.abort();
		this.#running = null;
	}

	async #run(): Promise<void> {
		const own = new AbortController();
		this.#running = own;
		while (this.#wanted && this.#running === own) {
			const { wish } = this.#wanted;
			this.#wanted = null;
			try {
				const answer = await this.ask(wish, own.signal);
				if (this.#running === own) this.got(answer, wish);
			} catch (error) {
				if (this.#running === own && !this.passes(error)) {
					this.#running = null;
					throw error;
				}
			}
		}
		if (this.#running === own) this.#running = null;
	}
}
