import { data, Problem } from '$lib/api/client';
import type { ImportReport } from '$lib/api/types';
import type { Workshop } from './workshop.svelte';

type Line = {
	progress?: { done: number; of: number };
	product?: Record<string, unknown>;
	end?: { odd: { address: string; why: string }[]; skipped: number };
	report?: ImportReport;
	problem?: { code: string; detail: string };
};

const OFF_PAGES = 'pages.jsonld';

/** A catalogue on its way in: looked at first, then taken in with progress; it can be stopped and nothing has happened. */
export class Taking {
	report = $state.raw<ImportReport | null>(null);
	wrong = $state('');
	progress = $state.raw<{ done: number; of: number } | null>(null);
	looking = $state(false);
	/** The file is the whole catalogue: what it lacks is removed. */
	whole = $state(false);
	/** What somebody says of how the file is written; nothing where it is found out. */
	encoding = $state('');
	decimal = $state('');
	/** The file as a whole could not be read. */
	unread = $state(false);
	/** How far the shop's own pages have been read; null while they are not. */
	collecting = $state.raw<{ done: number; of: number; products: number } | null>(null);
	/** Pages that could not be read, with why. */
	odd = $state.raw<{ address: string; why: string }[]>([]);
	/** What is looked at was read off the shop's pages, not from a file. */
	isOffPages = $state(false);
	#file: File | null = null;
	#stop: AbortController | null = null;
	readonly #workshop: Workshop;

	constructor(workshop: Workshop) {
		this.#workshop = workshop;
	}

	/** Reads a file without taking it in; none: the same again, as what is said of it now. */
	async look(file?: File): Promise<void> {
		if (file) Object.assign(this, { whole: false, encoding: '', decimal: '', isOffPages: file.name === OFF_PAGES });
		this.#file = file ?? this.#file;
		if (!this.#file) return;
		this.wrong = '';
		this.unread = false;
		this.looking = true;
		try {
			const answer = await fetch(this.#url('/preview', { whole: this.whole }), { method: 'POST', body: this.#file });
			const told: unknown = await answer.json();
			this.report = await data(Promise.resolve(answer.ok ? { data: told as ImportReport } : { error: told }));
		} catch (error) {
			this.#fail(error);
		} finally {
			this.looking = false;
		}
	}

	/** Takes the file in; `really` says that its warnings have been read. */
	async take(really: boolean): Promise<void> {
		if (!this.#file) return;
		this.#stop = new AbortController();
		this.progress = { done: 0, of: 0 };
		try {
			const url = this.#url('', { whole: this.whole, really });
			const answer = await fetch(url, { method: 'POST', body: this.#file, signal: this.#stop.signal });
			if (!answer.ok || !answer.body) throw new Problem((await answer.json()) as Record<string, never>);
			for await (const line of linesOf(answer.body)) this.#hear(line);
			await this.#workshop.reloadStore();
		} catch (error) {
			if (this.#stop.signal.aborted) this.wrong = 'Stopped. Nothing was imported.';
			else this.#fail(error);
		} finally {
			this.progress = null;
		}
	}

	/** Reads the catalogue off the shop's own pages; what was read until it is stopped is looked at all the same. */
	async collect(): Promise<void> {
		const products: Record<string, unknown>[] = [];
		this.#stop = new AbortController();
		this.collecting = { done: 0, of: 0, products: 0 };
		this.wrong = '';
		this.odd = [];
		try {
			const answer = await fetch(`/api/stores/${this.#workshop.store}/catalogue/collect`, {
				method: 'POST',
				headers: { 'Content-Type': 'application/json' },
				body: '{}',
				signal: this.#stop.signal,
			});
			if (!answer.ok || !answer.body) throw new Problem((await answer.json()) as Record<string, never>);
			for await (const line of linesOf(answer.body)) {
				if (line.product) products.push(line.product);
				if (line.progress) this.collecting = { ...line.progress, products: products.length };
				if (line.end) this.odd = line.end.odd;
				if (line.problem) throw new Problem(line.problem);
			}
		} catch (error) {
			if (!this.#stop.signal.aborted) this.#fail(error);
		} finally {
			this.collecting = null;
		}
		if (products.length) {
			const graph = { '@context': 'https://schema.org', '@graph': products };
			await this.look(new File([JSON.stringify(graph)], OFF_PAGES, { type: 'application/ld+json' }));
		} else if (!this.wrong) this.wrong = 'No page of the shop tells a product by JSON-LD. Import a file instead.';
	}

	stop(): void {
		this.#stop?.abort();
	}

	close(): void {
		this.report = null;
		this.wrong = '';
		this.unread = false;
		this.#file = null;
	}

	#url(path: string, query: Record<string, boolean>): string {
		const headers = {
			...query,
			...(this.encoding && { encoding: this.encoding }),
			...(this.decimal && { decimal: this.decimal }),
		};
		const pairs = Object.entries(headers).map(([name, value]) => `${name}=${encodeURIComponent(value)}`);
		return `/api/stores/${this.#workshop.store}/catalogue${path}?${pairs.join('&')}`;
	}

	#hear(line: Line): void {
		if (line.progress) this.progress = line.progress;
		if (line.report) this.report = line.report;
		if (line.problem) throw new Problem(line.problem);
	}

	#fail(error: unknown): void {
		this.report = null;
		this.unread = error instanceof Problem && error.code === 'bad_catalogue';
		this.wrong = error instanceof Problem ? error.message : String(error);
	}
}

async function* linesOf(body: ReadableStream<Uint8Array>): AsyncGenerator<Line> {
	const reader = body.pipeThrough(new TextDecoderStream() as never).getReader() as ReadableStreamDefaultReader<string>;
	let rest = '';
	for (;;) {
		const { done, value } = await reader.read();
		if (done) return;
		const parts = (rest + value).split('\n');
		rest = parts.pop() ?? '';
		for (const part of parts) yield JSON.parse(part) as Line;
	}
}
