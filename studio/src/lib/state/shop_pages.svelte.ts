import type { FromFrame } from '@storefront/studio/messages';
import type { Device, DrawView } from '$lib/api/types';
import type { Desk } from './desk.svelte';
import { DraftWindows } from './draft_windows.svelte';
import { FramedPage } from './framed_page.svelte';
import type { Workshop } from './workshop.svelte';

/** The shop's own pages in frames: they get each edit as it is made, and say when it is drawn. Used by one component. */
export class ShopPages {
	readonly pages: Record<Device, FramedPage>;
	readonly #workshop: Workshop;
	readonly #view: () => DrawView;
	readonly #windows: DraftWindows;

	constructor(workshop: Workshop, desk: Desk, view: () => DrawView) {
		this.#workshop = workshop;
		this.#view = view;
		const page = (device: Device) =>
			new FramedPage(
				() => this.#origin,
				(message) => this.#hear(device, message),
			);
		this.pages = { phone: page('phone'), tablet: page('tablet'), desktop: page('desktop') };
		this.#windows = new DraftWindows(workshop, desk, this.pages);
		let last: unknown = null;
		$effect(() => {
			const now = desk.trying ?? view().draft.version;
			// Once an edit that is drawn already is kept, the draft is what the pages show.
			const isKept = typeof last === 'object' && typeof now === 'number' && workshop.problem === null;
			if (last !== null && last !== now && !isKept) void this.#windows.show();
			last = now;
		});
	}

	/** How long the last edit took to be drawn on all pages, in milliseconds. */
	get took(): number | null {
		return this.#windows.took;
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

	#hear(device: Device, message: FromFrame): void {
		if (message.up === 'ready') {
			const { placement, product } = this.#view().seen;
			// A page that loads itself anew may have begun before the edit was kept.
			if (this.#windows.knows(device)) {
				this.#windows.forget(device);
				void this.#windows.show();
			}
			this.pages[device].tell({ up: 'draft', show: placement, product: product.sku });
		} else if (message.up === 'drawn') this.#windows.hear(device, message);
	}
}
