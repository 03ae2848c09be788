import { createQuery } from '@tanstack/svelte-query';
import { Problem } from '$lib/api/client';
import type { ReachRead } from '$lib/api/types';
import type { Workshop } from './workshop.svelte';

/** How long typing has to rest before the words are read, in milliseconds. */
const REST_MS = 160;

/** A reach as a designer types it, and what the studio understands of it. */
export class ReachReading {
	#typed = $state<string | null>(null);
	readonly #usual: () => string;
	readonly #query;

	/** `usual` are the words that stand while nothing else is typed. */
	constructor(workshop: Workshop, usual: () => string) {
		this.#usual = usual;
		this.#query = createQuery(
			() => workshop.ask.reach(this.words, REST_MS),
			() => workshop.queries,
		);
	}

	get words(): string {
		return this.#typed ?? this.#usual();
	}

	set words(typed: string) {
		this.#typed = typed;
	}

	get isChanged(): boolean {
		return this.words !== this.#usual();
	}

	/** Gives up what was typed. */
	reset(): void {
		this.#typed = null;
	}

	/** What the words mean; null until that is known, and while they mean nothing. */
	get read(): ReachRead | null {
		return this.#query.data ?? null;
	}

	/** Why the words mean nothing, with what is allowed near it. */
	get wrong(): { says: string; near: readonly string[]; at: string } | null {
		const { error } = this.#query;
		if (!error) return null;
		const facts = error instanceof Problem ? error.facts : {};
		return { says: error.message, near: (facts.near as string[] | undefined) ?? [], at: String(facts.at ?? '') };
	}

	/** Writes an allowed name in the place of the one that was not understood. */
	mend(near: string): void {
		const at = this.wrong?.at ?? '';
		const from = at ? this.words.toLowerCase().lastIndexOf(at.toLowerCase()) : -1;
		this.words = from < 0 ? near : this.words.slice(0, from) + near + this.words.slice(from + at.length);
	}
}
