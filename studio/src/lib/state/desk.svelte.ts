import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
import { client, data, Problem } from '$lib/api/client';
import { Newest } from './newest';
import { keyOf } from '$lib/api/keys';
import type { DrawParams } from '$lib/api/queries';
import type { Device, DrawView, LooksView, Fix, Patch, Placement } from '$lib/api/types';
import { editOf, fieldOf, together } from '$lib/pure/edit';
import { patchAt } from '$lib/pure/patch';
import type { Stage } from '$lib/pure/stage';
import { tick } from 'svelte';
import type { Workshop } from './workshop.svelte';

type Where = { placement: Placement; product: string; device: Device | ''; language: string; layer: string };
/** Values by their paths. */
export type Values = Readonly<Record<string, unknown>>;

/** One button on the drawing desk: what is drawn, which of its values is being worked on, and the edits. */
export class Desk {
	/** The path of the value that is marked. */
	marked = $state('');
	/** What the button would be with the edit that is being tried, while a dimension is dragged. */
	tried = $state.raw<DrawView | null>(null);
	/** The edit that is being tried. */
	trying = $state.raw<Patch | null>(null);
	/** Where the button stands while a dimension is dragged: as it stood when the drag began. */
	held = $state.raw<Stage | null>(null);
	/** When the last edit began, in milliseconds of the wall clock. */
	editedAt = 0;
	/** The edit on its way to the shop's pages, while somebody looks at those. */
	showing: Promise<unknown> | null = null;
	readonly #workshop: Workshop;
	readonly #where: () => Where;
	/** How often something has been tried, and the edits that are being kept meanwhile. */
	#tries = 0;
	#keeping: Patch[] = [];
	readonly drawing;
	readonly why;
	readonly looks;
	readonly #trials = new Newest<Patch, DrawView>(
		(patch, signal) =>
			data(
				client.POST('/api/stores/{store}/draw/{placement}/try', {
					params: this.params,
					body: { layer: this.kept?.editing.layer ?? '', patch },
					signal,
				}),
			),
		(view, patch) => {
			this.tried = view;
			this.trying = patch;
		},
		// What cannot be drawn is not tried; letting go says why.
		(error) => error instanceof Problem,
	);

	constructor(workshop: Workshop, where: () => Where) {
		this.#workshop = workshop;
		this.#where = where;
		const queries = () => workshop.queries;
		this.drawing = createQuery(
			() => ({ ...workshop.ask.drawing(this.params), placeholderData: keepPreviousData }),
			queries,
		);
		this.looks = createQuery(() => ({ ...workshop.ask.looks(), placeholderData: keepPreviousData }), queries);
		this.why = createQuery(() => {
			const { product, device, language } = this.kept?.seen ?? {};
			const { placement } = this.#where();
			const asked = { placement, field: fieldOf(this.marked), product: product?.sku, device, language };
			return { ...workshop.ask.trace(asked), enabled: this.marked !== '' };
		}, queries);
	}

	/** What is drawn: the edit being tried, or else the draft. */
	get view(): DrawView | undefined {
		return this.tried ?? this.drawing.data;
	}

	get kept(): DrawView | undefined {
		return this.drawing.data;
	}

	get kit(): LooksView | undefined {
		return this.looks.data;
	}

	/** Says whether the layer that takes the edits sets a field itself, so that it can be reset. */
	isOwn(path: string): boolean {
		return this.kept?.editing.own.includes(fieldOf(path)) ?? false;
	}

	mark(path: string): void {
		this.marked = path;
	}

	/** Draws an edit without saving it; of several that come faster than their answers only the newest is drawn. */
	tryOut(values: Values): void {
		this.editedAt = performance.timeOrigin + performance.now();
		this.#tries++;
		// A drag that begins before the one before it is kept shows both.
		this.#trials.want(together([...this.#keeping, editOf(this.kept?.document, values)]));
	}

	/** Ends trying, and saves values where there are some. */
	async settle(values: Values | null): Promise<void> {
		this.#trials.stop();
		if (values) await this.setAll(values);
		else this.tried = this.trying = null;
	}

	set(path: string, value: unknown): Promise<void> {
		return this.setAll({ [path]: value });
	}

	async setAll(values: Values): Promise<void> {
		this.marked = Object.keys(values)[0] ?? '';
		const view = this.kept;
		if (!view) return;
		this.#trials.stop();
		const tries = this.#tries;
		const edit = editOf(view.document, values);
		this.#keeping.push(edit);
		await this.#apply(view.editing.layer, () => editOf(this.kept?.document, values));
		this.#keeping.splice(this.#keeping.indexOf(edit), 1);
		// What has been tried since is seen until it is kept itself.
		if (tries === this.#tries) this.tried = this.trying = null;
	}

	async reset(path: string): Promise<void> {
		if (this.kept) await this.#apply(this.kept.editing.layer, () => patchAt(fieldOf(path), null));
	}

	/** Takes back what the layer says itself of some fields, all at once. */
	async resetAll(paths: readonly string[]): Promise<void> {
		const patches = paths.map((path) => patchAt(path, null));
		if (this.kept) await this.#apply(this.kept.editing.layer, () => together(patches));
	}

	async fix(fix: Fix): Promise<void> {
		if (fix.of_rule) await this.#workshop.fix(fix);
		else await this.#apply(fix.layer, () => fix.patch);
	}

	/** Gives what stands beside the button the button's own look, as far as it has one. */
	async matchBeside(): Promise<void> {
		await this.patch(await data(client.GET('/api/stores/{store}/draw/{placement}/match', { params: this.params })));
	}

	/** Applies a patch as it is, to the layer that takes the edits. */
	async patch(patch: Patch): Promise<void> {
		if (this.kept) await this.#apply(this.kept.editing.layer, () => patch);
	}

	async #apply(layer: string, patch: () => Patch): Promise<void> {
		const { placement } = this.#where();
		const { query } = this.params;
		this.editedAt = performance.timeOrigin + performance.now();
		// What shows the shop's pages need not wait until the edit is kept.
		if (layer === this.kept?.editing.layer && !this.#workshop.saving) this.trying = patch();
		const inTurn = async () => {
			await this.#pagesShow();
			return patch();
		};
		await this.#workshop.changeDrawing(layer, inTurn, placement, query, this.take);
		if (!this.tried) this.trying = null;
	}

	/** Lets the shop's pages have the edit first: they are what is looked at, and keeping it can wait that long. */
	async #pagesShow(): Promise<void> {
		await tick();
		// Where more edits wait, the pages show the last of them.
		if (this.#keeping.length < 2) await this.showing?.catch(() => undefined);
		this.showing = null;
	}

	/** Shows a drawing that an edit has just answered with. */
	take = (view: DrawView): void => {
		const { version, release } = view.draft;
		const at = { store: this.#workshop.store, stamp: `${version}.${release}` };
		this.#workshop.queries.setQueryData(keyOf.drawing(at, this.params), view);
	};

	get params(): DrawParams {
		const { placement, product, device, language, layer } = this.#where();
		return {
			path: { ...this.#workshop.path, placement },
			query: {
				product: product || undefined,
				device: device || undefined,
				language: language || undefined,
				layer: layer || undefined,
			},
		};
	}
}
