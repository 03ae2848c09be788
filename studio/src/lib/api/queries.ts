import { queryOptions } from '@tanstack/svelte-query';
import { client, data } from './client';
import { keyOf, type At } from './keys';
import type { Device, DraftState, DrawView, Icon, Placement } from './types';

type Around = {
	/** The store, and what its draft and its release are now. */
	readonly at: At;
	/** The same as it was when changes last rested: what lies beside an edit keeps no drawing waiting. */
	readonly rested: At;
	/** Hands on a view that arrives, and takes the draft's state from it. */
	seen: <View extends { draft: DraftState }>(answer: Promise<View>) => Promise<View>;
};
export type DrawParams = {
	path: { store: string; placement: Placement };
	query: { product?: string; device?: Device; language?: string; layer?: string };
};
/** A value somewhere: what a trace is asked for. */
export type Asked = {
	placement: Placement;
	field: string;
	product?: string;
	device?: Device;
	language?: string;
	exception?: string;
};
type Seen = { device?: Device; language?: string };
export type IconFound = Pick<Extract<Icon, { kind: 'shipped' }>, 'name'> & { path: string; points: boolean };
/** How many steps of the history come at once. */
const PAGE = 60;

/** Every question that the studio asks of its API: under which key the answer is kept, and how it is fetched. */
export class Queries {
	readonly #of: Around;

	constructor(of: Around) {
		this.#of = of;
	}

	get #at(): At {
		return this.#of.at;
	}

	get #rested(): At {
		return this.#of.rested;
	}

	get #path() {
		return { store: this.#at.store };
	}

	/** The stores of the person who is signed in, by key and name. */
	stores() {
		return queryOptions({
			queryKey: keyOf.stores(),
			queryFn: () => data(client.GET('/api/stores')),
			staleTime: Infinity,
		});
	}

	floor(query: Seen) {
		return queryOptions({
			queryKey: keyOf.floor(this.#at, query),
			queryFn: () =>
				this.#of.seen(data(client.GET('/api/stores/{store}/floor', { params: { path: this.#path, query } }))),
		});
	}

	standing(placement: Placement, device: Device, language: string) {
		return queryOptions({
			queryKey: keyOf.standing(this.#rested, { placement, device, language }),
			queryFn: () => {
				const params = { path: { ...this.#path, placement }, query: { device, language } };
				return data(client.GET('/api/stores/{store}/places/standing/{placement}', { params }));
			},
		});
	}

	/** Places that were pointed at, and pages to look at: a product's own among them. */
	places(product = '') {
		return queryOptions({
			queryKey: keyOf.places(this.#at, product),
			queryFn: () => {
				const params = { path: this.#path, query: { product: product || undefined } };
				return data(client.GET('/api/stores/{store}/places', { params }));
			},
		});
	}

	findings(query: Seen & { most: number }) {
		return queryOptions({
			queryKey: keyOf.findings(this.#rested, query),
			queryFn: () => data(client.GET('/api/stores/{store}/findings', { params: { path: this.#path, query } })),
		});
	}

	findingsProgress() {
		return queryOptions({
			queryKey: keyOf.progress(this.#at.store),
			queryFn: () => data(client.GET('/api/stores/{store}/findings/progress', { params: { path: this.#path } })),
		});
	}

	drawing(params: DrawParams) {
		return queryOptions({
			queryKey: keyOf.drawing(this.#at, params),
			queryFn: (): Promise<DrawView> =>
				this.#of.seen(data(client.GET('/api/stores/{store}/draw/{placement}', { params }))),
		});
	}

	/** The look of a button as text of some form. */
	written({ path, query }: DrawParams, form: 'text' | 'css' | 'tokens' | 'json') {
		return queryOptions({
			queryKey: keyOf.written(this.#rested, { path, query }, form),
			queryFn: async () => {
				const params = { path, query: { ...query, form } };
				const at = '/api/stores/{store}/draw/{placement}/written';
				return String(await data(client.GET(at, { params, parseAs: 'text' })));
			},
		});
	}

	looks() {
		return queryOptions({
			queryKey: keyOf.looks(this.#rested),
			queryFn: () => data(client.GET('/api/stores/{store}/looks', { params: { path: this.#path } })),
		});
	}

	icons(text: string) {
		return queryOptions({
			queryKey: keyOf.icons(this.#at.store, text),
			queryFn: () =>
				data(client.GET('/api/stores/{store}/icons', { params: { path: this.#path, query: { text } } })) as Promise<
					IconFound[]
				>,
			// They ship with the studio.
			staleTime: Infinity,
		});
	}

	words(language: string) {
		return queryOptions({
			queryKey: keyOf.words(this.#at, language),
			queryFn: () => {
				const params = { path: this.#path, query: { language } };
				return this.#of.seen(data(client.GET('/api/stores/{store}/words', { params })));
			},
		});
	}

	trace(query: Asked) {
		return queryOptions({
			queryKey: keyOf.trace(this.#rested, query),
			queryFn: () => data(client.GET('/api/stores/{store}/trace', { params: { path: this.#path, query } })),
		});
	}

	exceptions() {
		return queryOptions({
			queryKey: keyOf.exceptions(this.#rested),
			queryFn: () => data(client.GET('/api/stores/{store}/exceptions', { params: { path: this.#path } })),
		});
	}

	/** What an exception changes. */
	effects(rule: string) {
		return queryOptions({
			queryKey: keyOf.effects(this.#rested, rule),
			queryFn: () => {
				const params = { path: { ...this.#path, rule } };
				return data(client.GET('/api/stores/{store}/exceptions/{rule}/effects', { params }));
			},
		});
	}

	/** What the words of a reach mean; asked once typing has rested for `restMs`. */
	reach(words: string, restMs: number) {
		return queryOptions({
			queryKey: keyOf.reach(this.#at, words),
			queryFn: async ({ signal }) => {
				await rest(restMs, signal);
				const params = { path: this.#path };
				return data(client.POST('/api/stores/{store}/reach', { params, body: { text: words }, signal }));
			},
		});
	}

	/** The history, page by page, the newest step first. */
	history() {
		return {
			queryKey: keyOf.history(this.#rested),
			initialPageParam: undefined as number | undefined,
			queryFn: ({ pageParam: before }: { pageParam: number | undefined }) =>
				data(client.GET('/api/stores/{store}/draft/history', { params: { path: this.#path, query: { before } } })),
			getNextPageParam: (page: { n: number }[]) => (page.length < PAGE ? undefined : page.at(-1)?.n),
		};
	}

	search(text: string) {
		return queryOptions({
			queryKey: keyOf.search(this.#at, text),
			queryFn: () => data(client.GET('/api/stores/{store}/search', { params: { path: this.#path, query: { text } } })),
		});
	}

	products(text: string) {
		return queryOptions({
			queryKey: keyOf.products(this.#at.store, text),
			queryFn: () =>
				data(client.GET('/api/stores/{store}/products', { params: { path: this.#path, query: { text } } })),
		});
	}

	release() {
		return queryOptions({
			queryKey: keyOf.release(this.#at),
			queryFn: () => this.#of.seen(data(client.GET('/api/stores/{store}/release', { params: { path: this.#path } }))),
		});
	}

	/** What was handed out for pages that are not the shop's. */
	outside() {
		return queryOptions({
			queryKey: keyOf.outside(this.#rested),
			queryFn: () => data(client.GET('/api/stores/{store}/outside', { params: { path: this.#path } })),
		});
	}

	trials() {
		return queryOptions({
			queryKey: keyOf.trials(this.#at.store),
			queryFn: () => data(client.GET('/api/stores/{store}/trials', { params: { path: this.#path } })),
		});
	}

	trial(number: number) {
		return queryOptions({
			queryKey: keyOf.trial(this.#at.store, number),
			queryFn: () => {
				const params = { path: { ...this.#path, number } };
				return data(client.GET('/api/stores/{store}/trials/{number}', { params }));
			},
		});
	}
}

function rest(ms: number, signal: AbortSignal): Promise<void> {
	return new Promise((done, fail) => {
		const timer = setTimeout(done, ms);
		signal.addEventListener('abort', () => {
			clearTimeout(timer);
			fail(new DOMException('', 'AbortError'));
		});
	});
}
