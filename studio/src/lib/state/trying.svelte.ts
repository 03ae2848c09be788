import { client, data } from '$lib/api/client';
import { keyOf } from '$lib/api/keys';
import type { Patch, Placement, TrialView } from '$lib/api/types';
import { wholeReach } from '$lib/pure/reach';
import type { Workshop } from './workshop.svelte';

export type TrialChange = { patch?: Patch; decides?: 'added' | 'ordered'; relative_difference?: number };

/** Draws a trial of a question on a placement, for a category or all products. Returns its number; 0 where it was refused. */
export async function drawTrial(
	workshop: Workshop,
	question: string,
	placement: Placement,
	category: string,
): Promise<number> {
	const reach = wholeReach({ categories: category ? [category] : [], placements: [placement] });
	const body = { question, reach, layer: {}, decides: 'added' as const, relative_difference: 0.2, window_days: 3 };
	const headers = { 'If-Match': `"${workshop.draft?.release ?? 0}"` };
	let number = 0;
	await workshop.act(async () => {
		const params = { path: workshop.path };
		({ number } = await data(client.POST('/api/stores/{store}/trials', { params, body, headers })));
		void workshop.refresh('trials');
		return null;
	}, 'The trial was not drawn.');
	return number;
}

/** What is done with one trial. */
export class Trying {
	readonly #workshop: Workshop;
	readonly #number: () => number;

	constructor(workshop: Workshop, number: () => number) {
		this.#workshop = workshop;
		this.#number = number;
	}

	get #path() {
		return { ...this.#workshop.path, number: this.#number() };
	}

	change(body: TrialChange): Promise<boolean> {
		return this.#act('The trial was not changed.', (headers) =>
			data(client.PATCH('/api/stores/{store}/trials/{number}', { params: { path: this.#path }, body, headers })),
		);
	}

	/** Starts it; on a practice store's own clock it can have begun some days ago. */
	start(daysAgo: number): Promise<boolean> {
		const body = { days_ago: daysAgo };
		return this.#act('The trial did not start.', (headers) =>
			data(client.POST('/api/stores/{store}/trials/{number}/start', { params: { path: this.#path }, body, headers })),
		);
	}

	keepB(): Promise<boolean> {
		return this.#act('B was not kept.', (headers) =>
			data(client.POST('/api/stores/{store}/trials/{number}/keep-b', { params: { path: this.#path }, headers })),
		);
	}

	close(): Promise<boolean> {
		return this.#act('The trial was not ended.', (headers) =>
			data(client.POST('/api/stores/{store}/trials/{number}/close', { params: { path: this.#path }, headers })),
		);
	}

	/** What was seen goes along, so that nothing that somebody else changed meanwhile is overwritten or started. */
	#act(failed: string, doing: (headers: Record<string, string>) => Promise<TrialView>): Promise<boolean> {
		const workshop = this.#workshop;
		return workshop.act(async () => {
			const key = keyOf.trial(workshop.store, this.#number());
			const seen = workshop.queries.getQueryData<TrialView>(key)?.trial.version ?? 0;
			workshop.queries.setQueryData(key, await doing({ 'If-Match': `"${seen}"` }));
			void workshop.refresh('trials', 'floor');
			return data(client.GET('/api/stores/{store}/draft', { params: { path: workshop.path } }));
		}, failed);
	}
}
