import { createQuery } from '@tanstack/svelte-query';
import { client, data } from '$lib/api/client';
import type { Device, DrawView, Mend, Placement } from '$lib/api/types';
import { editOf, fieldOf } from '$lib/pure/edit';
import { patchAt } from '$lib/pure/patch';
import type { Workshop } from './workshop.svelte';

type Where = { placement: Placement; product: string; device: Device | ''; language: string; layer: string };

/** One button on the drawing desk: what is drawn, which of its values is being worked on, and the edits. */
export class Desk {
	/** The path of the value that is marked. */
	marked = $state('');
	readonly #workshop: Workshop;
	readonly #where: () => Where;
	readonly drawing;
	readonly why;

	constructor(workshop: Workshop, where: () => Where) {
		this.#workshop = workshop;
		this.#where = where;
		this.drawing = createQuery(() => ({
			queryKey: this.#key(),
			queryFn: () => data(client.GET('/api/stores/{store}/draw/{placement}', { params: this.#params() })),
			placeholderData: (before: DrawView | undefined) => before,
		}));
		this.why = createQuery(() => ({
			queryKey: ['trace', workshop.store, this.#where(), fieldOf(this.marked), workshop.draft?.version],
			enabled: this.marked !== '',
			queryFn: () =>
				data(
					client.GET('/api/stores/{store}/trace', {
						params: {
							path: workshop.path,
							query: {
								placement: this.#where().placement,
								field: fieldOf(this.marked),
								product: this.view?.product.sku,
								device: this.view?.device,
								language: this.view?.language,
							},
						},
					}),
				),
		}));
	}

	get view(): DrawView | undefined {
		return this.drawing.data;
	}

	/** Says whether the layer that takes the edits sets a field itself, so that it can be reset. */
	isOwn(path: string): boolean {
		return this.view?.own.includes(fieldOf(path)) ?? false;
	}

	mark(path: string): void {
		this.marked = path;
	}

	async set(path: string, value: unknown): Promise<void> {
		this.marked = path;
		const view = this.view;
		if (!view) return;
		await this.#apply(view.layer, () => editOf(this.view?.document, path, value));
	}

	async reset(path: string): Promise<void> {
		if (this.view) await this.#apply(this.view.layer, () => patchAt(fieldOf(path), null));
	}

	async mend(mend: Mend): Promise<void> {
		if (mend.of_rule) await this.#workshop.mend(mend);
		else await this.#apply(mend.layer, () => mend.patch);
	}

	async #apply(layer: string, patch: () => Record<string, unknown>): Promise<void> {
		const { placement } = this.#where();
		const { query } = this.#params();
		const key = this.#key();
		await this.#workshop.changeDrawing(layer, patch, placement, query, (view) =>
			this.#workshop.queries.setQueryData(key, view),
		);
	}

	#key(): readonly unknown[] {
		return ['draw', this.#workshop.store, this.#where()];
	}

	#params() {
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
