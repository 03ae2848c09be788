import type { FromFrame, ToFrame } from '@storefront/studio/messages';
import { client, data } from '$lib/api/client';
import type { Device, DrawView } from '$lib/api/types';
import { DEVICES } from '$lib/pure/facts';
import type { Desk } from './desk.svelte';
import { FramedPage } from './framed_page.svelte';
import type { Workshop } from './workshop.svelte';

type Draft = Extract<ToFrame, { up: 'draft' }>;

/** The shop's own pages in frames: they get each edit as it is made, and say when it is drawn. Used by one component. */
export class ShopPages {
	readonly pages: Record<Device, FramedPage>;
	/** How long the last edit took to be drawn on all pages, in milliseconds. */
	took = $state<number | null>(null);
	readonly #workshop: Workshop;
	readonly #desk: Desk;
	readonly #view: () => DrawView;
	#sentAt = 0;
	#drawn = 0;
	#timed = 0;
	#asked = 0;

	constructor(workshop: Workshop, desk: Desk, view: () => DrawView) {
		this.#workshop = workshop;
		this.#desk = desk;
		this.#view = view;
		const page = (device: Device) =>
			new FramedPage(
				() => this.#origin,
				(message) => this.#hear(device, message),
			);
		this.pages = { phone: page('phone'), tablet: page('tablet'), desktop: page('desktop') };
		let last: unknown = null;
		$effect(() => {
			const now = desk.trying ?? view().draft.version;
			// Once an edit that is drawn already is kept, the draft is what the pages show.
			const isKept = typeof last === 'object' && typeof now === 'number' && workshop.problem === null;
			if (last !== null && last !== now && !isKept) void this.#send();
			last = now;
		});
	}

	get #origin(): string {
		return this.#workshop.info?.store.origin ?? '';
	}

	/** The address of the page that holds the button, showing the draft. */
	get address(): string {
		const { placement, product, language } = this.#view().seen;
		const page = this.#workshop.info?.store.surfaces[placement]?.page_path || product.url;
		const draft = encodeURIComponent(this.#workshop.info?.preview ?? '');
		return `${this.#origin}${page}?lang=${language}&up-draft=${draft}`;
	}

	async #send(): Promise<void> {
		const mine = ++this.#asked;
		const began = this.#desk.editedAt;
		const params = { path: this.#workshop.path };
		const body = { layer: this.#view().editing.layer, patch: this.#desk.trying ?? {} };
		const asking = this.#desk.trying
			? data(client.POST('/api/stores/{store}/draft/manifest', { params, body, parseAs: 'json' }))
			: data(client.GET('/api/stores/{store}/draft/manifest', { params, parseAs: 'json' }));
		this.#desk.showing = asking;
		const manifest = (await asking) as Draft['manifest'];
		// Of several edits only the newest is drawn.
		if (mine !== this.#asked) return;
		this.#drawn = 0;
		this.#sentAt = began;
		for (const device of DEVICES) this.pages[device].tell({ up: 'draft', manifest });
	}

	#hear(device: Device, message: FromFrame): void {
		if (message.up === 'ready') {
			const { placement, product } = this.#view().seen;
			this.pages[device].tell({ up: 'draft', show: placement, product: product.sku });
		}
		if (message.up !== 'drawn' || ++this.#drawn !== DEVICES.length || this.#sentAt === this.#timed) return;
		// The draft that is sent again once the edit is kept changes nothing.
		this.#timed = this.#sentAt;
		this.took = Math.round(message.at - this.#sentAt);
	}
}
