import { client, data } from '$lib/api/client';
import type { Workshop } from './workshop.svelte';

/** Reasons against a release that somebody has seen and goes on in spite of. */
type Despite = ('findings' | 'trial')[];

/** Giving the draft to shoppers, or an earlier release back to them. */
export class Releasing {
	note = $state('');
	readonly #workshop: Workshop;
	/** The draft's version that is shown: what nobody has looked at is not released. */
	readonly #seen: () => number;
	#wish: { back: number | null; despite: Despite } = { back: null, despite: [] };

	constructor(workshop: Workshop, seen: () => number) {
		this.#workshop = workshop;
		this.#seen = seen;
	}

	/** What the release was refused for and can be done in spite of, as the problem's code. */
	get asks(): string | undefined {
		return this.#workshop.problem?.code;
	}

	/** Releases the draft, or takes back to an earlier release by its number. Says whether it was done. */
	async send(back: number | null, despite: Despite = []): Promise<boolean> {
		this.#wish = { back, despite };
		const body = { note: this.note, despite };
		const headers = { 'If-Match': `"${this.#seen()}"` };
		const { path } = this.#workshop;
		const released = () =>
			back === null
				? data(client.POST('/api/stores/{store}/release', { params: { path }, body, headers }))
				: data(
						client.POST('/api/stores/{store}/release/{n}/take-back', {
							params: { path: { ...path, n: back } },
							body,
							headers,
						}),
					);
		const done = await this.#workshop.act(async () => (await released()).draft, 'It was not released.');
		if (done) this.note = '';
		return done;
	}

	/** Does the same in spite of what it was refused for. */
	goOn(): Promise<boolean> {
		const more: Despite = this.asks === 'findings_left' ? ['findings'] : ['trial'];
		return this.send(this.#wish.back, [...this.#wish.despite, ...more]);
	}
}
