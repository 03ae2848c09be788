import { client, data, Problem } from '$lib/api/client';
import type { Device, Placement, PlacesView, PointedPlace, Pointing, SelectorChoice, Survey } from '$lib/api/types';
import { DEVICES, WINDOWS_PX } from '$lib/pure/facts';
import type { FromFrame, TakenPlace, ToFrame } from '@storefront/studio/messages';
import { FramedPage, type Told } from './framed_page.svelte';
import type { Workshop } from './workshop.svelte';

type Draft = Extract<ToFrame, { up: 'draft' }>;
type Side = Extract<ToFrame, { up: 'move' }>['to'];
/** What draws itself after loading has this long. */
const SETTLE_MS = 400;

const sleep = (ms: number) => new Promise((done) => setTimeout(done, ms));

/** Placing by pointing at the shop's page: what was pointed at, what can be made of it, and what it comes to. */
export class PointingAt {
	readonly #workshop: Workshop;
	/** The page that is seen. */
	path = $state('/');
	isPointing = $state(false);
	placement = $state<Placement>('product_page');
	/** What was pointed at last. */
	at = $state.raw<Told<'pointed'> | null>(null);
	made = $state.raw<Pointing | null>(null);
	place = $state.raw<PointedPlace | null>(null);
	/** The id of a place that is changed; empty for a new one. */
	id = $state('');
	survey = $state.raw<Survey | null>(null);
	/** Pages that did not answer. */
	silent = $state.raw<string[]>([]);
	looked = $state({ done: 0, of: 0 });
	/** What the place came to on the page that is seen. */
	taken = $state.raw<{ count: number; places: TakenPlace[] } | null>(null);
	isAnswering = $state(true);
	readonly seen: FramedPage;
	/** A second frame, out of sight, in which other pages are looked at. */
	readonly beside: FramedPage;
	besidePath = $state('');
	besideWide = $state<number>(WINDOWS_PX.desktop);
	#turn = 0;
	#kept: { stamp: string; pages: { path: string; html: string }[] } | null = null;
	isMeasured = $state(false);

	constructor(workshop: Workshop) {
		this.#workshop = workshop;
		const origin = () => workshop.info?.store.origin ?? '';
		this.seen = new FramedPage(origin, (message) => void this.#hear(message));
		this.beside = new FramedPage(origin, () => undefined);
	}

	address(path: string): string {
		const draft = encodeURIComponent(this.#workshop.info?.preview ?? '');
		const origin = this.#workshop.info?.store.origin ?? '';
		return `${origin}${path}${path.includes('?') ? '&' : '?'}up-draft=${draft}`;
	}

	/** Waits for the script of a page that is being loaded. */
	async opened(): Promise<void> {
		this.isAnswering = true;
		this.seen.isReady = false;
		this.isAnswering = (await this.seen.next('ready')) !== null;
	}

	point(): void {
		this.cancel();
		this.isPointing = true;
		this.seen.tell({ up: 'point', on: true });
	}

	move(to: Side): void {
		this.seen.tell({ up: 'move', to });
	}

	take(): void {
		this.seen.tell({ up: 'take' });
	}

	/** Goes back to how the draft has it. */
	cancel(): void {
		this.#turn++;
		this.isPointing = false;
		this.at = this.made = this.place = this.survey = this.taken = null;
		this.id = '';
		this.seen.tell({ up: 'point', on: false });
		this.seen.tell({ up: 'show', selector: '' });
	}

	async #hear(message: FromFrame): Promise<void> {
		if (message.up === 'ready') {
			this.isAnswering = true;
			if (this.isPointing) this.seen.tell({ up: 'point', on: true });
			else if (this.place) await this.#show(this.place);
		}
		if (message.up === 'thumbs') this.thumbs = { ...this.thumbs, ...message.thumbs };
		if (message.up === 'taken' && this.place) this.taken = { count: message.count, places: message.places };
		if (message.up === 'pointed') await this.#pointed(message);
	}

	async #pointed(at: Told<'pointed'>): Promise<void> {
		const mine = ++this.#turn;
		this.at = at;
		this.isPointing = false;
		this.seen.tell({ up: 'point', on: false });
		await this.#try(async () => {
			const pages = await this.#outlines(mine);
			if (mine !== this.#turn) return;
			const params = { path: this.#workshop.path };
			const body = { placement: this.placement, path: at.path, html: at.html, pages };
			const made = await data(client.POST('/api/stores/{store}/places/point', { params, body }));
			if (mine !== this.#turn) return;
			this.made = made;
			const [first] = made.choices;
			if (first) await this.set(this.#placeOf(first, made, at));
		});
	}

	#placeOf({ found, telling }: SelectorChoice, { pages, row }: Pointing, at: Told<'pointed'>): PointedPlace {
		return {
			placement: this.placement,
			selector: found.selector,
			where: ['button', 'a', 'input'].includes(at.tag) && this.placement !== 'tile' ? 'instead' : 'after',
			pages,
			telling: telling ?? { kind: 'page' },
			widths_px: {},
			own_height_px: 0,
			page_path: at.path,
			row: this.placement === 'tile' ? row : null,
		};
	}

	/** Takes up a place of the draft again. */
	async open(id: string, place: PointedPlace): Promise<void> {
		this.cancel();
		this.id = id;
		this.placement = place.placement;
		if (place.page_path) this.path = place.page_path;
		await this.set(place);
	}

	/** Takes up a place of the draft as a new one, for other products. */
	async again(place: PointedPlace): Promise<void> {
		await this.open('', place);
	}

	/** Changes the place, shows what comes of it on the page that is seen, and looks at the others. */
	async set(place: PointedPlace): Promise<void> {
		const mine = ++this.#turn;
		this.place = place;
		this.survey = null;
		this.isMeasured = false;
		await this.#try(async () => {
			await this.#show(place);
			if (mine === this.#turn) await this.#look(place, mine);
		});
	}

	choose(choice: SelectorChoice): Promise<void> {
		if (!this.place) return Promise.resolve();
		const telling = choice.telling ?? { kind: 'page' as const };
		return this.set({ ...this.place, selector: choice.found.selector, telling });
	}

	/** Returns the draft with the place as it is drawn up, as the script reads it. */
	async #manifest(place: PointedPlace): Promise<Draft['manifest']> {
		const params = { path: this.#workshop.path };
		const body = { place, id: this.id };
		const asked = client.POST('/api/stores/{store}/places/manifest', { params, body, parseAs: 'json' });
		return (await data<unknown>(asked)) as Draft['manifest'];
	}

	async #show(place: PointedPlace): Promise<void> {
		const manifest = await this.#manifest(place);
		await this.seen.ask({ up: 'draft', manifest }, 'drawn');
		this.seen.tell({ up: 'show', selector: place.selector });
	}

	/** Measures the place on the page that was pointed at, and says what it comes to on all that were looked at. */
	async #look(place: PointedPlace, mine: number): Promise<void> {
		const isGone = () => mine !== this.#turn;
		const pages = await this.#outlines(mine);
		if (isGone()) return;
		const params = { path: this.#workshop.path };
		this.survey = await data(client.POST('/api/stores/{store}/places/survey', { params, body: { place, pages } }));
		const measured = await this.#measured(place, isGone);
		if (!isGone()) this.place = measured;
		if (!isGone()) this.isMeasured = true;
	}

	/** Returns the outlines of the shop's pages, which are the same whatever is pointed at: looked at once a draft. */
	async #outlines(mine: number): Promise<{ path: string; html: string }[]> {
		const stamp = `${this.#workshop.draft?.version}`;
		if (this.#kept?.stamp === stamp) return this.#kept.pages;
		const params = { path: this.#workshop.path };
		const { pages } = await data(client.GET('/api/stores/{store}/places', { params }));
		const outlines: { path: string; html: string }[] = [];
		const silent: string[] = [];
		this.looked = { done: 0, of: pages.length };
		for (const { path } of pages) {
			const html = await this.#outline(path);
			if (mine !== this.#turn) return [];
			if (html === null) silent.push(path);
			else outlines.push({ path, html });
			this.looked = { done: this.looked.done + 1, of: pages.length };
		}
		this.silent = silent;
		this.#kept = { stamp, pages: outlines };
		return outlines;
	}

	async #opened(path: string): Promise<boolean> {
		if (!this.beside.frame) return false;
		const ready = this.beside.next('ready');
		// The same address again is loaded again.
		this.besidePath = path;
		this.beside.frame.src = this.address(path);
		if (!(await ready)) return false;
		await sleep(SETTLE_MS);
		return true;
	}

	async #outline(path: string): Promise<string | null> {
		if (!(await this.#opened(path))) return null;
		return (await this.beside.ask({ up: 'outline' }, 'outline'))?.html ?? null;
	}

	/** Returns the place with how wide it is on each device, and how high what it stands instead of. */
	async #measured(place: PointedPlace, isGone: () => boolean): Promise<PointedPlace> {
		const manifest = await this.#manifest(place);
		const widths: Partial<Record<Device, number>> = {};
		let own = place.own_height_px ?? 0;
		for (const device of DEVICES) {
			if (isGone()) return place;
			this.besideWide = WINDOWS_PX[device];
			if (!(await this.#opened(place.page_path || this.path))) continue;
			const before = await this.beside.ask({ up: 'show', selector: place.selector }, 'taken');
			if (place.where === 'instead' && before) own = Math.max(own, before.own);
			await this.beside.ask({ up: 'draft', manifest }, 'drawn');
			const survey = await this.beside.ask({ up: 'show', selector: place.selector }, 'taken');
			const wide = survey?.places.filter((standing) => standing.place === place.placement && standing.width > 0) ?? [];
			if (wide.length) widths[device] = Math.min(...wide.map(({ width }) => width));
		}
		this.besideWide = WINDOWS_PX.desktop;
		return { ...place, widths_px: widths, own_height_px: Math.min(own, 400) };
	}

	/** Pictures of the shop's, made small by the page that is seen: the studio loads nothing from shops. */
	thumbs = $state.raw<Record<string, string>>({});
	readonly #asked: string[] = [];

	showThumb(src: string): void {
		if (!this.seen.isReady || this.#asked.includes(src)) return;
		this.#asked.push(src);
		this.seen.tell({ up: 'thumbs', srcs: [src] });
	}

	/** Keeps the place in the draft. */
	async keep(): Promise<boolean> {
		const place = this.place;
		if (!place) return false;
		const body = { place };
		const path = this.#workshop.path;
		const id = this.id;
		const done = await this.#workshop.act((headers) =>
			id
				? data(
						client.PUT('/api/stores/{store}/places/{place_id}', {
							params: { path: { ...path, place_id: id } },
							headers,
							body,
						}),
					)
				: data(client.POST('/api/stores/{store}/places', { params: { path }, headers, body })),
		);
		if (done) {
			this.cancel();
			await this.#workshop.reloadStore();
		}
		return done;
	}

	async remove(id: string): Promise<void> {
		const params = { path: { ...this.#workshop.path, place_id: id } };
		const done = await this.#workshop.act((headers) =>
			data(client.DELETE('/api/stores/{store}/places/{place_id}', { params, headers })),
		);
		if (done) await this.#workshop.reloadStore();
	}

	async #try(work: () => Promise<void>): Promise<void> {
		this.#workshop.problem = null;
		try {
			await work();
		} catch (error) {
			if (!(error instanceof Problem)) throw error;
			this.#workshop.problem = error;
		}
	}
}

export type PlacesPage = PlacesView['pages'][number];
