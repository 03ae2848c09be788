import { client, data } from '$lib/api/client';
import type { DraftState, TextsReport } from '$lib/api/types';
import { Attempt } from './attempt.svelte';
import type { Workshop } from './workshop.svelte';

/** A file of texts in one language: what it would change is looked at before it is taken in. */
export class TextsIn {
	readonly attempt = new Attempt();
	report = $state.raw<TextsReport | null>(null);
	readonly #workshop: Workshop;
	readonly #language: () => string;
	#file: File | null = null;

	constructor(workshop: Workshop, language: () => string) {
		this.#workshop = workshop;
		this.#language = language;
	}

	/** Reads a file; nothing is changed yet. */
	async read(file: File | undefined): Promise<void> {
		if (!file) return;
		this.#file = file;
		const headers = { 'If-Match': `"${this.#workshop.draft?.version ?? 0}"` };
		if ((await this.attempt.run(() => this.#send(file, headers, true))) === undefined) this.report = null;
	}

	/** Takes the texts in. */
	async take(): Promise<void> {
		const file = this.#file;
		if (file) await this.#workshop.act((headers) => this.#send(file, headers, false), 'The texts were not taken in.');
	}

	close(): void {
		this.report = this.#file = null;
		this.attempt.wrong = '';
	}

	async #send(file: File, headers: Record<string, string>, dryRun: boolean): Promise<DraftState | null> {
		const { store, path } = this.#workshop;
		const url = `/api/stores/${store}/texts/${this.#language()}?dry_run=${dryRun}`;
		const answer = await fetch(url, { method: 'POST', body: await file.arrayBuffer(), headers });
		const told: unknown = await answer.json();
		this.report = await data(Promise.resolve(answer.ok ? { data: told as TextsReport } : { error: told }));
		return dryRun ? null : data(client.GET('/api/stores/{store}/draft', { params: { path } }));
	}
}
