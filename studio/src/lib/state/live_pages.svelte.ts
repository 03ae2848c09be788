import { client, data, Problem } from '$lib/api/client';
import type { Workshop } from './workshop.svelte';

export type PageLine = { about: string; weight: 'well' | 'note' | 'broken'; says: string; to_do: string };
export type PageCheck = { kind: string; path: string; lines: PageLine[] };
/** One look at a page of every kind, as it is kept. */
export type PagesReport = { release: number; made_at: string; live: number; sentence: string; pages: PageCheck[] };

/** A look older than this tells nothing of now. */
const FRESH_MS = 10 * 60_000;

/** The looks at a store's live pages: the newest one, and one that is being taken. */
export class LivePages {
	readonly #workshop: Workshop;
	report = $state.raw<PagesReport | null>(null);
	isLooking = $state(false);
	problem = $state('');

	constructor(workshop: Workshop) {
		this.#workshop = workshop;
	}

	/** Takes up the newest look. */
	async read(): Promise<void> {
		const params = { path: this.#workshop.path };
		this.report = (await data(client.GET('/api/stores/{store}/pages', { params }))).report as PagesReport | null;
	}

	/** Takes up the newest look, and looks again where that is old and something is live. */
	async open(): Promise<void> {
		await this.read();
		const age = this.report ? Date.now() - Date.parse(this.report.made_at) : Infinity;
		if (this.#workshop.draft?.release && age > FRESH_MS) await this.look('before');
	}

	/** Looks at the pages now. */
	async look(moment: 'before' | 'after' | 'asked'): Promise<void> {
		if (this.isLooking) return;
		this.isLooking = true;
		this.problem = '';
		try {
			const params = { path: this.#workshop.path };
			const answer = await data(client.POST('/api/stores/{store}/pages', { params, body: { moment, password: '' } }));
			this.report = answer.report as PagesReport | null;
			await this.#workshop.refresh('release');
		} catch (error) {
			if (!(error instanceof Problem)) throw error;
			this.problem = error.message;
		} finally {
			this.isLooking = false;
		}
	}
}
