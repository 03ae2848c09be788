import { client, data, Problem } from '$lib/api/client';
import type { OutsideCode, OutsideOrder } from '$lib/api/types';
import { Newest } from './newest';
import type { Workshop } from './workshop.svelte';

/** Code of buttons for pages that are not the shop's: what is asked for, and what comes of it. */
export class OutsideMaking {
	order = $state.raw<OutsideOrder>({
		products: [],
		kind: 'web',
		across: 1,
		drawn: 'as_drawn',
		campaign: '',
		language: null,
		leads: 'page',
	});
	made = $state.raw<OutsideCode | null>(null);
	/** Names of products by their codes, as far as they were met. */
	names = $state.raw<Record<string, string>>({});
	/** Why there is no code, in a sentence. */
	wrong = $state('');
	/** What is shown was made of. */
	#madeOf = $state.raw<OutsideOrder | null>(null);
	readonly #workshop: Workshop;
	readonly #newest = new Newest<OutsideOrder, OutsideCode>(
		(order) => this.#make(order, false),
		(made, order) => {
			this.made = made;
			this.#madeOf = order;
			this.wrong = '';
			this.names = {
				...this.names,
				...Object.fromEntries(made.buttons.map(({ product: { sku, name } }) => [sku, name])),
			};
		},
		(error) => {
			if (!(error instanceof Problem)) return false;
			this.made = null;
			this.wrong = error.message;
			return true;
		},
	);

	constructor(workshop: Workshop) {
		this.#workshop = workshop;
	}

	/** Tells whether what is shown is what is asked for: only that may be copied. */
	get isUpToDate(): boolean {
		return this.made !== null && this.#madeOf === this.order;
	}

	/** Asks for something else, and makes that as soon as there is a product. */
	want(change: Partial<OutsideOrder>): void {
		this.order = { ...this.order, ...change };
		if (this.order.products.length) this.#newest.want(this.order);
		else this.made = null;
	}

	add(sku: string): void {
		if (!this.order.products.includes(sku)) this.want({ products: [...this.order.products, sku] });
	}

	drop(sku: string): void {
		this.want({ products: this.order.products.filter((product) => product !== sku) });
	}

	/** Keeps that what is shown was handed out as it looks now: it was copied, or its picture was taken. */
	async handOut(): Promise<void> {
		try {
			await this.#make(this.order, true);
			await this.#workshop.refresh('outside');
		} catch (error) {
			this.wrong = error instanceof Error ? error.message : String(error);
		}
	}

	#make(order: OutsideOrder, copied: boolean): Promise<OutsideCode> {
		const params = { path: this.#workshop.path };
		return data(client.POST('/api/stores/{store}/outside', { params, body: { order, copied } }));
	}
}
