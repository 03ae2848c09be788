import { QueryClient } from '@tanstack/svelte-query';
import { client, data, Problem } from '$lib/api/client';
import type {
	Device,
	DraftState,
	DrawView,
	ExceptionChange,
	Fix,
	Moment,
	Patch,
	Placement,
	Session,
	StoreInfo,
} from '$lib/api/types';
import { createContext } from 'svelte';
import { DraftQueue } from './draft_queue.svelte';

const KEYS_SETTING = 'uptick.single-keys';

/** A value somewhere: what a trace is asked for. */
export type Asked = {
	placement: Placement;
	field: string;
	product?: string;
	device?: Device;
	language?: string;
	exception?: string;
};

/** A look on its way from somewhere to a button. */
export type Carried = { kind: 'button' | 'start' | 'look' | 'css' | 'tokens'; value: string; selector: string };

/** Where an exception is made from, and what it shall set at first. */
export type From = {
	placement: Placement;
	device?: Device;
	language?: string;
	product?: { sku: string; name: string; category: string };
	moment?: Moment;
	text?: string;
	layer?: Patch;
	/** What it sets, as a designer says it. */
	sets?: string;
	/** Called with the new exception's id. */
	onmade?: (id: string) => void;
};

/** The signed-in designer's store: who they are, what the draft's state is, and every change of it, one at a time. */
export class Workshop {
	readonly queries = new QueryClient({
		defaultOptions: { queries: { retry: false, staleTime: 2_000, refetchOnWindowFocus: false } },
	});
	session = $state.raw<Session | null>(null);
	info = $state.raw<StoreInfo | null>(null);
	readonly #queue = new DraftQueue({
		refresh: (except) =>
			void this.queries.invalidateQueries({ predicate: (q) => !except.includes(String(q.queryKey[0])) }),
		read: () => data(client.GET('/api/stores/{store}/draft', { params: { path: this.path } })),
		onsignedout: () => (this.session = null),
	});
	/** The device and the language that every station shows. */
	device = $state<Device>('desktop');
	tongue = $state('');
	/** The exception that is looked at, by its id. */
	opened = $state('');
	/** The value whose trace is looked at. */
	asked = $state.raw<Asked | null>(null);
	/** Where an exception is being made from. */
	making = $state.raw<From | null>(null);
	/** A look that was copied from a button. */
	copied = $state.raw<Carried | null>(null);
	singleKeys = $state(localStorage.getItem(KEYS_SETTING) !== 'off');

	/** The store's key in addresses. */
	readonly store = $derived(this.info?.store.key ?? '');
	readonly path = $derived({ store: this.store });
	readonly language = $derived(this.info?.store.language ?? 'en-GB');
	/** The language that is shown: the one chosen, as long as the buttons speak it. */
	readonly shownLanguage = $derived(
		this.info?.spoken.some((one) => one.language === this.tongue) ? this.tongue : this.language,
	);
	readonly languageOptions = $derived(
		(this.info?.spoken ?? []).map((one) => ({ value: one.language, label: one.name })),
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

	set problem(problem: Problem | null) {
		this.#queue.problem = problem;
	}

	async open(): Promise<void> {
		try {
			this.session = await data(client.GET('/api/session'));
		} catch (error) {
			if (error instanceof Problem && error.code === 'not_signed_in') this.session = null;
			else throw error;
			return;
		}
		await this.#openStore();
	}

	async signIn(email: string, password: string): Promise<void> {
		this.session = await data(client.POST('/api/session', { body: { email, password } }));
		await this.#openStore();
	}

	async signOut(): Promise<void> {
		await data(client.DELETE('/api/session'));
		this.queries.clear();
		this.session = this.info = this.draft = null;
	}

	async #openStore(): Promise<void> {
		const store = this.session?.stores[0];
		if (!store) return;
		this.info = await data(client.GET('/api/stores/{store}', { params: { path: { store } } }));
		this.draft = await data(client.GET('/api/stores/{store}/draft', { params: { path: { store } } }));
		loadShopFonts(this.info);
	}

	async reloadStore(): Promise<void> {
		await this.#openStore();
		await this.queries.invalidateQueries();
	}

	/** Takes the draft's state from a view that has just arrived; an older one changes nothing. */
	sees(draft: DraftState): void {
		if (!this.draft || draft.version >= this.draft.version) this.draft = draft;
	}

	setSingleKeys(on: boolean): void {
		this.singleKeys = on;
		localStorage.setItem(KEYS_SETTING, on ? 'on' : 'off');
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
		return this.act(
			async (headers) => {
				const view = await data(
					client.PATCH('/api/stores/{store}/draw/{placement}', {
						params: { path: { ...this.path, placement }, query },
						headers,
						body: { layer, patch: await patch() },
					}),
				);
				take(view);
				return view.draft;
			},
			// Kept looks change only where one of them is edited.
			layer.startsWith('look:') ? ['draw'] : ['draw', 'looks'],
		);
	}

	/** Presses a fix: a patch for a layer, or for an exception itself. */
	fix(fix: Fix): Promise<boolean> {
		if (!fix.of_rule) return this.change(fix.layer, fix.patch);
		return this.changeException(fix.layer.replace('exception:', ''), fix.patch);
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
		return this.act(() => data(client.POST('/api/stores/{store}/draft/undo', { params: { path: this.path } })));
	}

	redo(): Promise<boolean> {
		return this.act(() => data(client.POST('/api/stores/{store}/draft/redo', { params: { path: this.path } })));
	}

	/** Does one change of the draft after those before it, and refreshes what is shown; see `DraftQueue`. */
	act(
		doing: (headers: Record<string, string>) => Promise<DraftState | null>,
		except: readonly string[] = [],
	): Promise<boolean> {
		return this.#queue.act(doing, except);
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
