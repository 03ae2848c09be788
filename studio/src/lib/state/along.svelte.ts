import { untrack } from 'svelte';
import { client, data, Problem } from '$lib/api/client';
import type { AlongDevice, AlongView, Device, Patch } from '$lib/api/types';
import { DEVICES } from '$lib/pure/facts';
import type { FromFrame } from '@storefront/studio/messages';
import type { PageSurvey } from '@storefront/studio/page_survey';
import type { Desk } from './desk.svelte';
import { DraftWindows } from './draft_windows.svelte';
import { FramedPage } from './framed_page.svelte';
import { Newest } from './newest';
import type { Workshop } from './workshop.svelte';

type Wish = { surveys: Partial<Record<Device, PageSurvey>>; edit: { layer: string; patch: Patch } | null };

/** One page of the shop in three windows that are scrolled together, and what comes of the draft along it. */
export class AlongThePage {
	readonly #workshop: Workshop;
	readonly #desk: Desk;
	readonly #where: () => { path: string; product: string; language: string };
	/** How far down the page is, as a share of the whole way. */
	share = $state(0);
	surveys = $state.raw<Partial<Record<Device, PageSurvey>>>({});
	view = $state.raw<AlongView | null>(null);
	/** The stretches that a finding which is looked at is about. */
	pointed = $state.raw<readonly (readonly [number, number])[]>([]);
	/** Where that finding stands on the screen. */
	pointedBy = $state.raw<HTMLElement | null>(null);
	/** Devices on which the page does not answer. */
	silent = $state.raw<readonly Device[]>([]);
	/** From the last edit until the lanes showed it, in milliseconds. */
	#lanesTook = $state<number | null>(null);
	readonly #windows: DraftWindows;
	readonly pages: Record<Device, FramedPage>;
	readonly #told: Partial<Record<Device, number>> = {};
	/** The window that was scrolled last, by somebody or for a look, and how far. */
	#leads: { device: Device; px: number } = { device: 'phone', px: 0 };
	#editedAt = 0;
	#answers = 0;
	/** Done once the windows have been told of the newest edit. */
	#telling: Promise<unknown> = Promise.resolve();
	readonly #asking = new Newest<Wish, AlongView>(
		async (wish, signal) => {
			const { product, language } = this.#where();
			const surveys = Object.fromEntries(
				// What the strip draws changes nothing that is worked out.
				Object.entries(wish.surveys).map(([device, survey]) => [device, { ...survey, blocks: [] }]),
			);
			const asked = client.POST('/api/stores/{store}/places/along', {
				params: { path: this.#workshop.path },
				body: { surveys, product, language, edit: wish.edit },
				signal,
			});
			return (await data<unknown>(asked)) as AlongView;
		},
		(view) => {
			// The windows go first: drawing the lanes would keep them waiting.
			const answer = ++this.#answers;
			void this.#telling.then(() => {
				if (answer !== this.#answers) return;
				this.view = view;
				if (this.#editedAt) this.#lanesTook = Math.round(now() - this.#editedAt);
			});
		},
		(error) => error instanceof Problem,
	);

	constructor(workshop: Workshop, desk: Desk, where: () => { path: string; product: string; language: string }) {
		this.#workshop = workshop;
		this.#desk = desk;
		this.#where = where;
		const origin = () => workshop.info?.store.origin ?? '';
		const page = (device: Device) => new FramedPage(origin, (message) => this.#hear(device, message));
		this.pages = { phone: page('phone'), tablet: page('tablet'), desktop: page('desktop') };
		this.#windows = new DraftWindows(workshop, desk, this.pages);
		let last: unknown = null;
		$effect(() => {
			const edit = desk.trying ?? workshop.draft?.version;
			// Once an edit that is shown already is kept, the draft is what the pages show.
			const isKept = typeof last === 'object' && typeof edit === 'number' && workshop.problem === null;
			if (last !== null && last !== edit && !isKept) void this.#send();
			last = edit;
		});
	}

	/** From the last edit until the windows and the lanes showed it, in milliseconds. */
	get took(): { windows: number | null; lanes: number | null } {
		return { windows: this.#windows.took, lanes: this.#lanesTook };
	}

	/** The address of the page, showing the draft. */
	get address(): string {
		return this.addressOf(this.#where().path);
	}

	addressOf(path: string): string {
		const { language } = this.#where();
		const draft = encodeURIComponent(this.#workshop.info?.preview ?? '');
		const origin = this.#workshop.info?.store.origin ?? '';
		return `${origin}${path}${path.includes('?') ? '&' : '?'}lang=${language}&up-draft=${draft}`;
	}

	on(device: Device): AlongDevice | undefined {
		return this.view?.devices.find((shown) => shown.device === device);
	}

	/** How far the page can be scrolled on a device, in CSS pixels. */
	way(device: Device): number {
		const survey = this.surveys[device];
		return survey ? Math.max(0, survey.page_high - survey.window.high) : 0;
	}

	at(device: Device): number {
		return this.share * this.way(device);
	}

	/** Scrolls all windows to where a device's page is at so many pixels. */
	scrollTo(device: Device, px: number): void {
		const way = this.way(device);
		this.#leads = { device, px: Math.min(way, Math.max(0, px)) };
		this.#follow();
		this.#tellScroll(device);
	}

	/** Takes all other windows to where the one that leads is. */
	#follow(): void {
		const { device, px } = this.#leads;
		const way = this.way(device);
		this.share = way ? Math.min(1, px / way) : 0;
		for (const other of DEVICES) if (other !== device) this.#tellScroll(other);
	}

	#tellScroll(device: Device): void {
		const y = Math.round(this.at(device));
		if (this.#told[device] === y) return;
		this.#told[device] = y;
		this.pages[device].tell({ up: 'scroll', y });
	}

	/** Waits for the page on a device to answer, from when it is being loaded. */
	async opened(device: Device): Promise<void> {
		untrack(() => {
			this.pages[device].isReady = false;
			this.silent = this.silent.filter((other) => other !== device);
		});
		delete this.#told[device];
		this.#windows.forget(device);
		const answered = await this.pages[device].next('ready');
		if (!answered) this.silent = [...this.silent, device];
	}

	#hear(device: Device, message: FromFrame): void {
		if (message.up === 'ready') {
			this.silent = this.silent.filter((other) => other !== device);
			// A page that loads itself anew may have begun before the edit was kept.
			if (this.#windows.knows(device)) {
				this.#windows.forget(device);
				void this.#send();
			}
			this.pages[device].tell({ up: 'survey' });
		} else if (message.up === 'survey') {
			this.surveys = { ...this.surveys, [device]: message.survey };
			// Whoever scrolls in a window that has grown stays where they are; the others follow.
			if (device === this.#leads.device) this.#follow();
			if (device !== this.#leads.device || this.#told[device] === undefined) this.#tellScroll(device);
			this.#ask();
		} else if (message.up === 'scrolled') {
			this.#told[device] = message.y;
			this.#leads = { device, px: message.y };
			this.#follow();
		} else if (message.up === 'drawn') this.#windows.hear(device, message);
	}

	#ask(): void {
		const { trying, kept } = this.#desk;
		const edit = trying && kept ? { layer: kept.editing.layer, patch: trying } : null;
		if (Object.keys(this.surveys).length) this.#asking.want({ surveys: this.surveys, edit });
	}

	/** Shows an edit, or the draft as it is now, in all windows, and works out what comes of it. */
	async #send(): Promise<void> {
		this.#editedAt = this.#desk.editedAt;
		const telling = this.#windows.show();
		this.#telling = telling.catch(() => undefined);
		this.#ask();
		await telling;
	}
}

function now(): number {
	return performance.timeOrigin + performance.now();
}
