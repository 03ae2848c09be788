import type { FromFrame, ToFrame } from '@storefront/studio/messages';
import { client, data, Problem } from '$lib/api/client';
import type { Device } from '$lib/api/types';
import { DEVICES } from '$lib/pure/facts';
import type { Desk } from './desk.svelte';
import type { FramedPage } from './framed_page.svelte';
import type { Workshop } from './workshop.svelte';

type Draft = Extract<ToFrame, { up: 'draft' }>;
/** Keeping an edit waits so long for windows to draw it, and no longer: one may be loading, or gone. */
const DRAWS_MS = 150;

/** The draft in windows of the shop's pages: each is told what it does not show yet, and says when it has drawn it. */
export class DraftWindows {
	/** From the last edit until all windows had drawn it, in milliseconds. */
	took = $state<number | null>(null);
	readonly #workshop: Workshop;
	readonly #desk: Desk;
	readonly #pages: Readonly<Record<Device, FramedPage>>;
	/** What each window was told since it was loaded, by the parts of the draft, as text. */
	readonly #shown: Partial<Record<Device, { parts: Record<string, string>; looks: string[] }>> = {};
	/** The windows that have not drawn yet what they were told. */
	#drawing: readonly Device[] = [];
	#whenDrawn: () => void = () => undefined;
	#asked = 0;
	#editedAt = 0;
	#timedAt = 0;

	constructor(workshop: Workshop, desk: Desk, pages: Readonly<Record<Device, FramedPage>>) {
		this.#workshop = workshop;
		this.#desk = desk;
		this.#pages = pages;
	}

	/** Says whether a window has been told something since it was loaded. */
	knows(device: Device): boolean {
		return this.#shown[device] !== undefined;
	}

	/** A window is loaded anew, with the draft as it is kept. */
	forget(device: Device): void {
		delete this.#shown[device];
	}

	/** Shows the edit that is being tried, or the draft as it is now; done once the windows have been told. */
	async show(): Promise<void> {
		const asked = ++this.#asked;
		const { trying, kept, editedAt } = this.#desk;
		const params = { path: this.#workshop.path };
		const body = { layer: kept?.editing.layer ?? '', patch: trying ?? {} };
		const drawn = new Promise<void>((done) => (this.#whenDrawn = done));
		const answer = trying
			? data(client.POST('/api/stores/{store}/draft/manifest', { params, body, parseAs: 'json' }))
			: data(client.GET('/api/stores/{store}/draft/manifest', { params, parseAs: 'json' }));
		// An edit is kept once it is seen: keeping it takes the processor that drawing needs.
		this.#desk.showing = answer.then(
			() => Promise.race([drawn, new Promise((done) => setTimeout(done, DRAWS_MS))]),
			() => undefined,
		);
		const manifest = (await answer.catch((error) => {
			if (!(error instanceof Problem)) throw error;
		})) as Draft['manifest'];
		// Of several edits only the newest is drawn.
		if (!manifest || asked !== this.#asked) return;
		this.#editedAt = editedAt;
		this.#tell(manifest);
	}

	#tell({ looks = [], ...others }: NonNullable<Draft['manifest']>): void {
		const parts = Object.entries(others).map(([name, part]) => ({ name, part, text: JSON.stringify(part) }));
		const texts = Object.fromEntries(parts.map(({ name, text }) => [name, text]));
		const lookTexts = looks.map((look) => JSON.stringify(look));
		// One that is being loaded gets the draft as it is kept.
		this.#drawing = DEVICES.filter((device) => this.#pages[device].isReady);
		for (const device of this.#drawing) {
			// The whole of it takes a page as long to read as to draw.
			const { parts: known, looks: before } = this.#shown[device] ?? { parts: {}, looks: [] };
			const changed = parts.filter(({ name, text }) => known[name] !== text);
			this.#pages[device].tell({
				up: 'draft',
				manifest: Object.fromEntries(changed.map(({ name, part }) => [name, part])),
				looks: {
					many: looks.length,
					changed: Object.fromEntries(looks.flatMap((look, n) => (lookTexts[n] === before[n] ? [] : [[n, look]]))),
				},
			});
			this.#shown[device] = { parts: { ...known, ...texts }, looks: lookTexts };
		}
	}

	/** Hears from a window that it has drawn what it was told. */
	hear(device: Device, { at }: Extract<FromFrame, { up: 'drawn' }>): void {
		if (!this.#drawing.includes(device)) return;
		this.#drawing = this.#drawing.filter((other) => other !== device);
		if (this.#drawing.length) return;
		this.#whenDrawn();
		// What is told again once the edit is kept changes nothing.
		if (!this.#editedAt || this.#editedAt === this.#timedAt) return;
		this.#timedAt = this.#editedAt;
		this.took = Math.round(at - this.#editedAt);
	}
}
