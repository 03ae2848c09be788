import { QueryClient } from '@tanstack/svelte-query';
import { client, data, Problem } from '$lib/api/client';
import type { At } from '$lib/api/keys';
import { Queries } from '$lib/api/queries';
import type {
	Addresses,
	Device,
	DraftState,
	DrawView,
	ExceptionChange,
	Fix,
	NewException,
	NewStore,
	Patch,
	Placement,
	StoreInfo,
} from '$lib/api/types';
import { createContext } from 'svelte';
import { Clipboard } from './clipboard.svelte';
import { Context } from './context.svelte';
import { DraftQueue, type Doing } from './draft_queue.svelte';
import { Opened } from './opened.svelte';
import { Preferences } from './preferences.svelte';
import { SessionState } from './session.svelte';

/** The id of the line that tells what went wrong. */
export const PROBLEM_ID = 'problem';

/** The signed-in designer's store: who they are, what the draft's state is, and every change of it, one at a time. */
export class Workshop {
	readonly queries = new QueryClient({
		// An answer of a draft that has changed is never asked for again, so it is not kept long.
		defaultOptions: { queries: { retry: false, staleTime: 2_000, gcTime: 20_000, refetchOnWindowFocus: false } },
	});
	readonly session = new SessionState();
	readonly preferences = new Preferences();
	readonly clipboard = new Clipboard();
	readonly context = new Context();
	readonly opened = new Opened();
	readonly ask = new Queries(this);
	info = $state.raw<StoreInfo | null>(null);
	readonly #queue = new DraftQueue({
		read: () => data(client.GET('/api/stores/{store}/draft', { params: { path: this.path } })),
		onsignedout: () => this.session.end(),
	});

	/** The store's key in addresses. */
	readonly store = $derived(this.info?.store.key ?? '');
	readonly path = $derived({ store: this.store });
	readonly language = $derived(this.info?.store.language ?? 'en-GB');
	/** The language that is shown: the one chosen, as long as the buttons speak it. */
	readonly shownLanguage = $derived(
		this.info?.spoken.some(({ language }) => language === this.context.language)
			? this.context.language
			: this.language,
	);
	readonly languageOptions = $derived(
		(this.info?.spoken ?? []).map((spoken) => ({ value: spoken.language, label: spoken.name })),
	);

	get draft(): DraftState | null {
		return this.#queue.draft;
	}

	set draft(state: DraftState | null) {
		this.#queue.draft = state;
	}

	get saving(): boolean {
		return this.#queue.saving;
	}

	get savedOnce(): boolean {
		return this.#queue.savedOnce;
	}

	get problem(): Problem | null {
		return this.#queue.problem;
	}

	/** What could not be done, as a sentence. */
	get failed(): string {
		return this.#queue.failed;
	}

	set problem(problem: Problem | null) {
		this.#queue.problem = problem;
	}

	/** What the keys of answers begin with: the store, and what its draft and its release are now. */
	get at(): At {
		return this.#atOf(this.draft);
	}

	/** The same for what lies beside an edit; it is asked for once changes rest. */
	get rested(): At {
		return this.#atOf(this.#queue.rested);
	}

	#atOf(draft: DraftState | null): At {
		return { store: this.store, stamp: `${draft?.version ?? 0}.${draft?.release ?? 0}` };
	}

	/** Returns what ties a field to what was said to be wrong with it; nothing, while nothing was. */
	told(field: string): { 'aria-invalid'?: true; 'aria-describedby'?: string } {
		const wrong = String(this.problem?.facts.field ?? '');
		if (wrong !== field && !wrong.endsWith(`.${field}`)) return {};
		return { 'aria-invalid': true, 'aria-describedby': PROBLEM_ID };
	}

	async open(): Promise<void> {
		await this.session.open();
		await this.#openStore();
	}

	async signIn(email: string, password: string): Promise<void> {
		await this.session.signIn(email, password);
		await this.#openStore();
	}

	async signOut(): Promise<void> {
		await this.session.signOut();
		this.queries.clear();
		this.info = this.draft = null;
	}

	async #openStore(): Promise<void> {
		const own = this.session.current?.stores ?? [];
		const store = own.find((key) => key === this.preferences.store) ?? own[0];
		if (!store) return;
		this.info = await data(client.GET('/api/stores/{store}', { params: { path: { store } } }));
		this.draft = await data(client.GET('/api/stores/{store}/draft', { params: { path: { store } } }));
		loadShopFonts(this.info);
	}

	/** Opens another store of the same person, with nothing left over of the one before. */
	switchStore(key: string): void {
		if (key === this.store) return;
		this.preferences.store = key;
		location.assign('/');
	}

	/** Registers a shop as a store of this person, and opens it. Says whether it was done. */
	makeStore(body: NewStore): Promise<boolean> {
		return this.#asked(async () => this.switchStore((await data(client.POST('/api/stores', { body }))).key));
	}

	/** Registers addresses of the shop: visits of the server and signals of shoppers are allowed from them. */
	setAddresses(addresses: Addresses, before: Addresses): Promise<boolean> {
		const body = { addresses, instead_of: before };
		return this.#asked(async () => {
			await data(client.PUT('/api/stores/{store}/addresses', { params: { path: this.path }, body }));
			await this.reloadStore();
		});
	}

	/** Asks for something that is no change of the draft; what was refused is told at the head of the page. */
	async #asked(work: () => Promise<void>): Promise<boolean> {
		this.problem = null;
		try {
			await work();
			return true;
		} catch (error) {
			if (!(error instanceof Problem)) throw error;
			this.problem = error;
			return false;
		}
	}

	async reloadStore(): Promise<void> {
		await this.#openStore();
		await this.queries.invalidateQueries();
	}

	/** Asks anew for answers that do not hang on the draft, by the first part of their keys. */
	async refresh(...kinds: string[]): Promise<void> {
		await this.queries.invalidateQueries({ predicate: (query) => kinds.includes(String(query.queryKey[0])) });
	}

	/** Hands on a view that arrives, and takes the draft's state from it; an older one changes nothing. */
	async seen<View extends { draft: DraftState }>(answer: Promise<View>): Promise<View> {
		const view = await answer;
		if (!this.draft || view.draft.version >= this.draft.version) this.draft = view.draft;
		return view;
	}

	/** Changes one layer of the draft. */
	change(layer: string, patch: Patch): Promise<boolean> {
		return this.act((headers) =>
			data(client.PATCH('/api/stores/{store}/draft', { params: { path: this.path }, headers, body: { layer, patch } })),
		);
	}

	/**
	 * Changes one layer and hands on the drawing that comes of it. `patch` is asked when its turn comes, after `take` has
	 * had the drawing of the change before it: arrow keys can be faster than answers.
	 */
	changeDrawing(
		layer: string,
		patch: () => Promise<Patch>,
		placement: Placement,
		query: { product?: string; device?: Device; language?: string; layer?: string },
		take: (view: DrawView) => void,
	): Promise<boolean> {
		return this.act(async (headers) => {
			const view = await data(
				client.PATCH('/api/stores/{store}/draw/{placement}', {
					params: { path: { ...this.path, placement }, query },
					headers,
					body: { layer, patch: await patch() },
				}),
			);
			take(view);
			return view.draft;
		});
	}

	/** Presses a fix: a patch for a layer, or for an exception itself. */
	fix(fix: Fix): Promise<boolean> {
		if (!fix.of_rule) return this.change(fix.layer, fix.patch);
		return this.changeException(fix.layer.replace('exception:', ''), fix.patch);
	}

	/** Makes an exception, and returns its id; empty where it was refused. */
	async addException(body: Omit<NewException, 'reach'>): Promise<string> {
		const params = { path: this.path };
		const done = await this.act(
			(headers) => data(client.POST('/api/stores/{store}/exceptions', { params, headers, body: body as NewException })),
			'The exception was not made.',
		);
		if (!done) return '';
		const all = await data(client.GET('/api/stores/{store}/exceptions', { params }));
		// Somebody else may have made one since.
		return all.findLast(({ name, note }) => name === body.name && note === body.note)?.id ?? '';
	}

	changeException(rule: string, body: Partial<ExceptionChange>): Promise<boolean> {
		const params = { path: { ...this.path, rule } };
		return this.act((headers) =>
			data(
				client.PATCH('/api/stores/{store}/exceptions/{rule}', {
					params,
					headers,
					body: body as ExceptionChange,
				}),
			),
		);
	}

	removeException(rule: string): Promise<boolean> {
		const params = { path: { ...this.path, rule } };
		return this.act((headers) => data(client.DELETE('/api/stores/{store}/exceptions/{rule}', { params, headers })));
	}

	async speak(more: readonly string[]): Promise<boolean> {
		const params = { path: this.path };
		const done = await this.act((headers) =>
			data(client.PUT('/api/stores/{store}/languages', { params, headers, body: { more: [...more] } })),
		);
		if (done) await this.reloadStore();
		return done;
	}

	undo(): Promise<boolean> {
		return this.act(
			() => data(client.POST('/api/stores/{store}/draft/undo', { params: { path: this.path } })),
			'It was not undone.',
		);
	}

	redo(): Promise<boolean> {
		return this.act(
			() => data(client.POST('/api/stores/{store}/draft/redo', { params: { path: this.path } })),
			'It was not redone.',
		);
	}

	/** Does one change of the draft after those before it; see `DraftQueue`. */
	act(doing: Doing, failed?: string): Promise<boolean> {
		return this.#queue.act(doing, failed);
	}
}

/** Loads the shop's own faces, so that buttons here are set in the very files that shoppers get. */
function loadShopFonts(info: StoreInfo): void {
	for (const file of info.font_files as { family: string; weight: string; range: string; file: string }[]) {
		const { family, weight, range: unicodeRange } = file;
		document.fonts.add(new FontFace(family, `url(/shop-fonts/${file.file})`, { weight, unicodeRange }));
	}
}

export const [useWorkshop, provideWorkshop] = createContext<Workshop>();
