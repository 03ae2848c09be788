import { client, data, Problem } from '$lib/api/client';
import type { AlongView, Device, KeptStudy, PlacesView, ScrollFinding } from '$lib/api/types';
import { DEVICES } from '$lib/pure/facts';
import type { FromFrame } from '@storefront/studio/messages';
import type { PageSurvey } from '@storefront/studio/page_survey';
import { FramedPage } from './framed_page.svelte';
import type { Workshop } from './workshop.svelte';

type StudyPage = PlacesView['pages'][number];
/** What was found on one page and device; none where it is as it should be, null where the page did not answer. */
export type StudyLine = {
	page: StudyPage;
	device: Device;
	findings: Pick<ScrollFinding, 'rule' | 'weight' | 'title' | 'says'>[] | null;
	reach: number;
};
const WEIGHTS = ['must_fix', 'look_again', 'note'];
/** A page has come to rest when it tells nothing new for so long; it has this long for it. */
const QUIET_MS = 800;
const REST_MS = 5000;
/** While one page comes to rest, the next is loaded in windows of its own. */
const AT_ONCE = 2;
type Windows = Readonly<Record<Device, FramedPage>>;

/** Returns how bad a line is, the worst first. */
export function rank({ findings }: StudyLine): number {
	if (findings === null) return 0;
	const worst = Math.min(...findings.map(({ weight }) => WEIGHTS.indexOf(weight)), WEIGHTS.length);
	return 1 + worst;
}

/** A study of the whole shop: one page of each kind and some products, on every device, two pages at a time. */
export class Study {
	readonly #workshop: Workshop;
	readonly #address: (path: string) => string;
	readonly windows: readonly Windows[];
	lines = $state.raw<readonly StudyLine[]>([]);
	done = $state(0);
	of = $state(0);
	/** Who made what is shown, and when, where it was kept. */
	kept = $state.raw<KeptStudy | null>(null);
	/** The draft's version that was studied; 0 while none was. */
	version = $state(0);
	tookMs = $state(0);
	readonly #heard = new WeakMap<FramedPage, (survey: PageSurvey) => void>();
	#turn = 0;
	#running: Promise<void> = Promise.resolve();

	constructor(workshop: Workshop, address: (path: string) => string) {
		this.#workshop = workshop;
		this.#address = address;
		const origin = () => workshop.info?.store.origin ?? '';
		const framed = (): FramedPage => {
			const page = new FramedPage(origin, (message) => this.#hear(page, message));
			return page;
		};
		this.windows = Array.from({ length: AT_ONCE }, () => ({ phone: framed(), tablet: framed(), desktop: framed() }));
	}

	get isRunning(): boolean {
		return this.done < this.of;
	}

	get isStale(): boolean {
		return this.version > 0 && this.version !== this.#workshop.draft?.version;
	}

	/** Shows the newest study that was kept, unless one is running. */
	async open(): Promise<void> {
		if (this.isRunning || this.lines.length) return;
		const params = { path: this.#workshop.path };
		const kept = await this.#told(client.GET('/api/stores/{store}/places/study', { params }));
		if (!kept || this.isRunning) return;
		const pages: Record<string, StudyPage> = {};
		this.lines = kept.study.lines.map(({ name, path, product, device, reach, findings }): StudyLine => {
			const page = (pages[path] ??= { name, path, product });
			return { page, device, findings: findings ? [...findings] : null, reach };
		});
		this.kept = kept;
		this.version = kept.study.version;
		this.tookMs = kept.study.took_ms;
	}

	/** Keeps what was found with the draft's version that it is about. */
	async #keep(language: string): Promise<void> {
		const lines = this.lines.map(({ page, device, findings, reach }) => ({
			name: page.name,
			path: page.path,
			product: page.product,
			device,
			reach,
			findings: findings?.map(({ rule, weight, title, says }) => ({ rule, weight, title, says })) ?? null,
			why: '',
		}));
		if (!lines.length) return;
		const body = { version: this.version, language, took_ms: this.tookMs, lines };
		const params = { path: this.#workshop.path };
		this.kept = await this.#told(client.PUT('/api/stores/{store}/places/study', { params, body }));
	}

	/** Returns the study that an answer holds; what was refused is told at the head of the page. */
	async #told(asked: Parameters<typeof data<{ kept: KeptStudy | null }>>[0]): Promise<KeptStudy | null> {
		try {
			return (await data(asked)).kept;
		} catch (error) {
			if (!(error instanceof Problem)) throw error;
			this.#workshop.problem = error;
			return null;
		}
	}

	stop(): void {
		this.#turn++;
		this.of = this.done;
	}

	/** Looks at every page, one after the other, once what was stopped before has come to its end. */
	async run(pages: readonly StudyPage[], language: string): Promise<void> {
		const mine = ++this.#turn;
		this.version = this.#workshop.draft?.version ?? 0;
		this.lines = [];
		this.kept = null;
		this.done = 0;
		this.of = pages.length;
		// A frame that is still loading the page of before would answer for that one.
		await this.#running;
		if (mine === this.#turn) await (this.#running = this.#look(pages, language, mine));
	}

	async #look(pages: readonly StudyPage[], language: string, mine: number): Promise<void> {
		const began = performance.now();
		const left = [...pages];
		const at = ({ page }: StudyLine) => pages.indexOf(page);
		const add = (lines: readonly StudyLine[]) => {
			if (mine !== this.#turn) return;
			this.lines = [...this.lines, ...lines].sort((line, other) => rank(line) - rank(other) || at(line) - at(other));
			this.done++;
			this.tookMs = performance.now() - began;
		};
		const oneByOne = async (windows: Windows) => {
			const added: Promise<void>[] = [];
			for (let page = left.shift(); page && mine === this.#turn; page = left.shift()) {
				const surveys = await this.#surveysOf(page, windows);
				// While the next page is loaded and measured, what comes of this one is worked out.
				if (mine === this.#turn) added.push(this.#linesOf(page, surveys, language).then(add));
			}
			await Promise.all(added);
		};
		await Promise.all(this.windows.map(oneByOne));
		if (mine === this.#turn) await this.#keep(language);
	}

	async #surveysOf(page: StudyPage, windows: Windows): Promise<Partial<Record<Device, PageSurvey>>> {
		const surveys: Partial<Record<Device, PageSurvey>> = {};
		await Promise.all(
			DEVICES.map(async (device) => {
				const survey = await this.#measured(windows[device], page.path);
				if (survey) surveys[device] = survey;
			}),
		);
		return surveys;
	}

	async #linesOf(
		page: StudyPage,
		surveys: Partial<Record<Device, PageSurvey>>,
		language: string,
	): Promise<StudyLine[]> {
		const view = Object.keys(surveys).length ? await this.#along(page, surveys, language) : null;
		return DEVICES.map((device) => {
			const onDevice = view?.devices.find((seen) => seen.device === device);
			return { page, device, findings: onDevice?.findings ?? null, reach: onDevice?.along.reach_share ?? 0 };
		});
	}

	async #along(
		page: StudyPage,
		surveys: Partial<Record<Device, PageSurvey>>,
		language: string,
	): Promise<AlongView | null> {
		const bare = Object.fromEntries(Object.entries(surveys).map(([name, survey]) => [name, { ...survey, blocks: [] }]));
		try {
			const asked = client.POST('/api/stores/{store}/places/along', {
				params: { path: this.#workshop.path },
				body: { surveys: bare, product: page.product ?? '', language },
			});
			return (await data<unknown>(asked)) as AlongView;
		} catch (error) {
			if (!(error instanceof Problem)) throw error;
			this.#workshop.problem = error;
			return null;
		}
	}

	/** Returns a page's measuring in a window once it has come to rest; null where it does not answer. */
	async #measured(page: FramedPage, path: string): Promise<PageSurvey | null> {
		if (!page.frame) return null;
		const ready = page.next('ready');
		page.frame.src = this.#address(path);
		if (!(await ready)) return null;
		return new Promise((done) => {
			let newest: PageSurvey | null = null;
			let quiet = 0;
			const end = () => {
				clearTimeout(last);
				clearTimeout(quiet);
				this.#heard.delete(page);
				done(newest);
			};
			const last = window.setTimeout(end, REST_MS);
			this.#heard.set(page, (survey) => {
				newest = survey;
				clearTimeout(quiet);
				quiet = window.setTimeout(end, QUIET_MS);
			});
			page.tell({ up: 'survey' });
		});
	}

	#hear(page: FramedPage, message: FromFrame): void {
		if (message.up === 'survey') this.#heard.get(page)?.(message.survey);
	}
}
