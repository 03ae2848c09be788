import { client, data, Problem } from '$lib/api/client';
import type { Connection, Proposal, Tried } from '$lib/api/types';
import type { Workshop } from './workshop.svelte';

type Doing = '' | 'reading' | 'trying' | 'keeping';

/** How a shop's basket is told, while somebody draws it up: read from a page, changed by hand, tried, kept. */
export class Connecting {
	readonly #workshop: Workshop;
	/** The one that the store has. */
	kept = $state.raw<Connection>({} as Connection);
	/** The one that is being drawn up. */
	connection = $state.raw<Connection>({} as Connection);
	page = $state('');
	code = $state('');
	password = $state('');
	proposal = $state.raw<Proposal | null>(null);
	tried = $state.raw<Tried | null>(null);
	doing = $state<Doing>('');
	/** Whether what was tried last is what stands here now. */
	isTried = $state(false);
	readonly isOther = $derived(JSON.stringify(this.kept) !== JSON.stringify(this.connection));

	constructor(workshop: Workshop) {
		this.#workshop = workshop;
		const now = workshop.info?.store.connection;
		if (now) this.kept = this.connection = now;
	}

	/** Changes some of it; what was tried before says nothing about it any more. */
	set(patch: Partial<Connection> | Record<string, unknown>): void {
		this.connection = { ...this.connection, ...patch } as Connection;
		this.isTried = false;
	}

	/** Takes another kind of connection, with what both kinds have. */
	become(kind: Connection['kind']): void {
		const { add_path, product_field, quantity_field, option_fields, token, read, basket_path, checkout_path } = this
			.connection as Extract<Connection, { kind: 'form_post' }>;
		const common = { option_fields, token, read, basket_path, checkout_path };
		const byKind = {
			form_post: { kind, add_path, product_field: product_field || 'sku', quantity_field: quantity_field || 'qty' },
			json_call: { kind, method: 'POST', add_path, body: { sku: '{product}', quantity: '{quantity}' } },
			basket_link: { kind, add_path: add_path.includes('{product}') ? add_path : `${add_path}/{product}` },
		}[kind];
		this.connection = { ...common, ...byKind } as Connection;
		this.isTried = false;
	}

	get #which() {
		return { page: this.page, product: this.code, password: this.password };
	}

	/** Reads a product's page and takes up what it shows. */
	read(): Promise<void> {
		return this.#do('reading', async () => {
			const params = { path: this.#workshop.path };
			const answer = await data(
				client.POST('/api/stores/{store}/connection/read', { params, body: { ...this.#which } }),
			);
			this.proposal = answer.proposal;
			this.page = answer.page;
			this.code = answer.code;
			this.tried = null;
			if (answer.proposal.connection) this.set(answer.proposal.connection);
		});
	}

	/** Puts one product into a basket by it. */
	try(): Promise<void> {
		return this.#do('trying', async () => {
			const params = { path: this.#workshop.path };
			const body = { ...this.#which, connection: this.connection };
			this.tried = await data(client.POST('/api/stores/{store}/connection/try', { params, body }));
			this.isTried = true;
		});
	}

	/** Keeps it; shops' pages get it at once. */
	async keep(): Promise<boolean> {
		let isKept = false;
		await this.#do('keeping', async () => {
			const params = { path: this.#workshop.path };
			const body = { connection: this.connection, instead_of: this.kept };
			const store = await data(client.PUT('/api/stores/{store}/connection', { params, body }));
			this.kept = this.connection = store.connection;
			isKept = true;
			await this.#workshop.reloadStore();
		});
		return isKept;
	}

	/** Does one thing at a time; what goes wrong is said where everything is. */
	async #do(what: Doing, work: () => Promise<void>): Promise<void> {
		if (this.doing) return;
		this.doing = what;
		this.#workshop.problem = null;
		try {
			await work();
		} catch (error) {
			if (!(error instanceof Problem)) throw error;
			this.#workshop.problem = error;
		} finally {
			this.doing = '';
		}
	}
}
