<script lang="ts">
	import { untrack } from 'svelte';
	import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
	import type { Device } from '$lib/api/types';
	import { together } from '$lib/pure/edit';
	import { DEVICES, WINDOW_HEIGHTS_PX, WINDOWS_PX } from '$lib/pure/facts';
	import { patchAt } from '$lib/pure/patch';
	import { addActions } from '$lib/state/actions.svelte';
	import { AlongThePage } from '$lib/state/along.svelte';
	import { Desk } from '$lib/state/desk.svelte';
	import { Study } from '$lib/state/study.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';
	import BarSentences from './BarSentences.svelte';
	import Figures from './Figures.svelte';
	import FloatingGrip from './FloatingGrip.svelte';
	import FloatingSentences from './FloatingSentences.svelte';
	import OverSentences from './OverSentences.svelte';
	import ScrollFindings from './ScrollFindings.svelte';
	import Strip from './Strip.svelte';
	import StudyLines from './StudyLines.svelte';
	import Ways from './Ways.svelte';
	import WhereItStands from './WhereItStands.svelte';

	const workshop = useWorkshop();
	const { context } = workshop;
	// The windows stay as they are while the places are asked for anew.
	const places = createQuery(() => ({ ...workshop.ask.places(context.product), placeholderData: keepPreviousData }));
	const pages = $derived(places.data?.pages ?? []);
	/** A page that was stepped to; the list of pages has it a moment later. */
	let stepped = $state.raw<(typeof pages)[number] | null>(null);
	const wanted = $derived(context.own('page'));
	// A product's page is where most of the buttons stand.
	const page = $derived(
		pages.find(({ path }) => path === wanted) ??
			(stepped?.path === wanted ? stepped : undefined) ??
			pages.find(({ product }) => product && product === context.product) ??
			pages.find(({ product }) => product) ??
			pages[0],
	);
	const device = $derived<Device>(context.device || 'phone');
	const product = $derived(page?.product ?? '');
	const language = $derived(workshop.shownLanguage);
	/** The placements that say themselves how they stand, as far as the draft has them. */
	const OWN_STANDING = { sticky_bar: 'The bar', floating: 'The floating button', over_picture: 'On pictures' } as const;
	type OwnStanding = keyof typeof OWN_STANDING;
	const had = $derived(places.data?.placements ?? []);
	const standings = $derived((Object.keys(OWN_STANDING) as OwnStanding[]).filter((one) => had.includes(one)));
	/** Those that are met along this page; the first of them is what one most likely came for. */
	let met = $state.raw<readonly string[]>([]);
	const usual = $derived(standings.find((one) => met.includes(one)));
	const standing = $derived(standings.find((one) => one === context.placement) ?? usual ?? standings[0]);
	/** What edits go to: the placement itself, unless somebody picks an exception that holds here. */
	const layer = $derived(context.own('layer'));
	const desk = new Desk(workshop, () => ({
		placement: standing ?? had[0] ?? ('product_page' as const),
		product,
		device,
		language,
		layer: standing ? layer || `place:${standing}` : '',
	}));
	/** Why the one that is picked stands nowhere on this page. */
	const awaySaid = $derived.by(() => {
		// What comes later than the first look along the page counts as well.
		const isMet = () => met.includes('over_picture') || found?.along.lanes.some(({ key }) => key === 'over_picture');
		if (standing === 'over_picture') return isMet() ? '' : 'No picture of this page has a button on it.';
		if (product || desk.view?.document.placement.product) return '';
		return `No ${standing === 'floating' ? 'floating button' : 'bar'} stands on this page: it is no product’s own.`;
	});
	/** Whether what stands for one product of its own hangs on this page, as far as it is measured. */
	const isElsewhere = $derived.by(() => {
		const survey = at.surveys[device];
		if (!survey || !desk.view?.document.placement.product) return false;
		return (standing === 'floating' && !survey.floating) || (standing === 'sticky_bar' && !survey.bar);
	});
	const at = new AlongThePage(workshop, desk, () => ({ path: page?.path ?? '/', product, language }));
	const found = $derived(at.on(device));
	$effect(() => {
		const keys = (found?.along.lanes ?? []).map(({ key }) => key).filter((key) => key in OWN_STANDING);
		// What is edited does not change under one's hands.
		if (keys.length && !untrack(() => met).length) met = keys;
	});
	const study = new Study(workshop, (path) => at.addressOf(path));
	let isStudying = $state(false);
	let station = $state<HTMLElement>();
	let tall = $state(800);
	let wide = $state(900);
	const stripHigh = $derived(Math.max(420, tall - 170));
	/** All windows are equally high, each at a scale of its own. */
	const windowHigh = $derived.by(() => {
		const across = DEVICES.reduce((sum, one) => sum + WINDOWS_PX[one] / WINDOW_HEIGHTS_PX[one], 0);
		return Math.max(160, Math.min((wide - 2 * 20) / across, tall * 0.37));
	});
	const devices = DEVICES.map((name) => ({ value: name, label: name }));
	const pageOptions = $derived(
		[...pages, ...(page && !pages.includes(page) ? [page] : [])].map(({ name, path }) => ({
			value: path,
			label: `${name} ${path}`,
		})),
	);
	const isAsked = $derived(at.silent.length === DEVICES.length);

	let opened = '';
	// Before the windows load another page: what was measured of the one before is not told of it.
	$effect.pre(() => {
		const path = page?.path ?? '';
		untrack(() => {
			if (opened && path !== opened) leave();
			opened = path;
		});
	});
	function leave(): void {
		met = [];
		at.scrollTo(device, 0);
		at.surveys = {};
		at.view = null;
	}

	function open(path: string): void {
		if (path === page?.path) return;
		const to = pages.find((one) => one.path === path);
		context.look({ page: path, product: to?.product || context.product, layer: '' });
	}

	/** Goes to another page on which the placement stands; what is edited stays. */
	function stepTo(to: (typeof pages)[number]): void {
		stepped = to;
		context.look({ page: to.path, product: to.product || context.product, placement: standing ?? '' });
	}

	function choose(one: OwnStanding): void {
		context.look({ placement: one, layer: '' });
	}

	/** Lets the draft have a floating button, in the corner where it is usual to have one. */
	async function float(): Promise<void> {
		const comes = { kind: 'distance', px: 200 };
		const done = await workshop.change('place:floating', { floating: { corner: 'bottom_end', comes } });
		if (done) choose('floating');
	}

	async function unfloat(): Promise<void> {
		const all = Object.keys(desk.kept?.document ?? {});
		context.look({ placement: '', layer: '' });
		await workshop.change('place:floating', together([...all, 'uses'].map((name) => patchAt(name, null))));
	}

	function step(by: number): void {
		at.scrollTo(device, at.at(device) + by);
	}
	addActions('In Place', [
		{ title: 'Further down the page', keys: ['j'], run: () => step(40) },
		{ title: 'Further up the page', keys: ['k'], run: () => step(-40) },
		{ title: 'A window further down', keys: ['J'], run: () => step(WINDOW_HEIGHTS_PX[device]) },
		{ title: 'A window further up', keys: ['K'], run: () => step(-WINDOW_HEIGHTS_PX[device]) },
		{ title: 'Point at a place', keys: ['p'], run: () => context.go('/place/points', { point: '1' }) },
	]);
</script>

<svelte:window bind:innerHeight={tall} />

<div class="place" bind:this={station}>
	<header class="head">
		<h1 class="text-lg font-normal">
			How buttons stand along <Pick label="Page" value={page?.path ?? ''} options={pageOptions} onpick={open} />, seen
			on a
			<Pick label="Device" value={device} options={devices} onpick={(name) => context.look({ device: name })} />, in
			<Pick
				label="Language"
				value={language}
				options={workshop.languageOptions}
				onpick={(one) => context.look({ language: one })}
			/>.
		</h1>
		<p class="text-soft">
			Drag the window along the rule, or press <kbd>J</kbd> <kbd>K</kbd>; the three windows move together.
			<span class="ml-3"
				><Press small onpress={() => context.go('/place/points')}
					>Places pointed at: {Object.keys(places.data?.places ?? {}).length || 'none'}</Press
				>
				<Press small onpress={() => context.go('/place/points', { point: '1' })}>Point at a place</Press>
				<Press small onpress={() => (isStudying = true)}>Study the whole shop</Press></span
			>
		</p>
	</header>

	{#if isStudying}
		<div class="whole">
			<StudyLines
				{study}
				{pages}
				{language}
				onopen={(path, name) => {
					study.stop();
					const to = pages.find((one) => one.path === path);
					context.look({ page: path, product: to?.product || context.product, device: name, layer: '' });
					isStudying = false;
				}}
				onclose={() => (isStudying = false)}
			/>
		</div>
	{/if}

	<section class="strip" hidden={isStudying} aria-label="The whole page on a {device}">
		<Strip {at} {device} {found} {desk} {standing} high={stripHigh} />
	</section>

	<section class="seen" hidden={isStudying} aria-label="Windows" bind:clientWidth={wide}>
		<div class="windows">
			{#each DEVICES as name (name)}
				{@const scale = windowHigh / WINDOW_HEIGHTS_PX[name]}
				<figure style:width="{WINDOWS_PX[name] * scale}px">
					<figcaption>
						<button class="name" aria-pressed={name === device} onclick={() => context.look({ device: name })}
							>{name}</button
						>
						<span class="figure text-sm text-soft"
							>{WINDOWS_PX[name]} × {WINDOW_HEIGHTS_PX[name]}<br />{scale.toFixed(2)} : 1</span
						>
					</figcaption>
					<div
						class="window"
						class:chosen={name === device}
						style:width="{WINDOWS_PX[name] * scale}px"
						style:height="{windowHigh}px"
					>
						{#if page}
							{#key at.address}
								<iframe
									bind:this={at.pages[name].frame}
									title="{page.name} on a {name}"
									src={at.address}
									{@attach () => void at.opened(name)}
									width={WINDOWS_PX[name]}
									height={WINDOW_HEIGHTS_PX[name]}
									style:transform="scale({scale})"
								></iframe>
							{/key}
						{/if}
						{#if standing === 'floating' && desk.view?.seen.placement === 'floating' && at.surveys[name]?.floating}
							<FloatingGrip {desk} view={desk.view} device={name} box={at.surveys[name].floating} {scale} />
						{/if}
					</div>
				</figure>
			{/each}
		</div>
		{#if found}
			<Figures {found} survey={at.surveys[device]} onlook={(px) => at.scrollTo(device, px)} />
			<div class="below">
				<div>
					<h2 class="standings">
						{#each standings as one (one)}
							<button class="name" aria-pressed={one === standing} onclick={() => choose(one)}
								>{OWN_STANDING[one]}</button
							>
						{/each}
						{#if places.data && !standings.includes('floating')}
							<Press small onpress={float}>Add a floating button</Press>
						{/if}
					</h2>
					{#if standing}
						<WhereItStands placement={standing} {device} {language} path={page?.path ?? ''} onstep={stepTo} />
					{/if}
					{#if awaySaid}
						<p class="text-soft">{awaySaid}</p>
					{:else if desk.view && desk.view.seen.placement === standing}
						{@const view = desk.view}
						{@const onlayer = (one: string) => context.look({ layer: one })}
						{#if isElsewhere}<p class="text-soft">It does not hang on this page.</p>{/if}
						{#if standing === 'sticky_bar'}
							<BarSentences {desk} {view} {device} {onlayer} />
						{:else if standing === 'floating'}
							<FloatingSentences {desk} {view} {device} {onlayer} onremove={unfloat} />
						{:else}
							<OverSentences {desk} {view} {onlayer} />
						{/if}
					{/if}
				</div>
				<ScrollFindings {at} {device} onfix={(fix) => workshop.fix(fix)} />
			</div>
			<p class="text-soft" role="status">
				{#if at.took.lanes !== null}The last edit stood in the lanes after <span class="figure">{at.took.lanes}</span>
					ms{#if at.took.windows !== null}, in the windows after <span class="figure">{at.took.windows}</span> ms{/if}.{/if}
				What the shop shows only later, such as a notice after some time, is in these figures once it is there.
			</p>
		{:else if isAsked}
			<p class="mt-4 max-w-[60ch]">
				<b class="text-must">▲ The page does not answer.</b> Our line is not on it, or it may not be framed here. The
				line is on <a href={context.href('/release')}>Release</a>; a shop that forbids frames must allow this studio:
				<code class="figure">frame-ancestors 'self' {location.origin}</code>.
			</p>
		{:else}
			<div class="mt-6">
				<Waiting what="Measuring the page" error={places.error} onretry={() => places.refetch()} />
			</div>
		{/if}
	</section>
	<Ways {at} {station} />
</div>

<style>
	.place {
		display: grid;
		grid-template: auto minmax(0, 1fr) / 330px minmax(0, 1fr);
		gap: 0 20px;
		padding: 12px 24px 16px;
	}
	.whole {
		grid-column: 1 / -1;
	}
	.head {
		grid-column: 1 / -1;
		margin-bottom: 8px;
	}
	.windows {
		display: flex;
		gap: 20px;
		align-items: flex-start;
	}
	figure {
		margin: 0;
	}
	figcaption {
		display: flex;
		align-items: flex-start;
		line-height: 1.25;
		gap: 6px;
		margin-bottom: 4px;
		white-space: nowrap;
		overflow: hidden;
	}
	.name {
		font-weight: 650;
		border-bottom: 2px solid transparent;
	}
	.name[aria-pressed='true'] {
		border-color: var(--color-ink);
	}
	.window {
		position: relative;
		overflow: hidden;
		outline: 1px solid var(--color-hair);
		background: var(--color-leaf);
	}
	.window.chosen {
		outline: 2px solid var(--color-ink);
	}
	iframe {
		border: 0;
		transform-origin: 0 0;
	}
	.standings .name {
		min-height: 24px;
	}
	.standings {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 4px 18px;
		font-size: 15px;
		font-weight: 400;
	}
	.below {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 320px;
		gap: 32px;
		margin-top: 12px;
	}
	kbd {
		font-family: var(--font-mono);
		border: 1px solid var(--color-hair);
		background: var(--color-leaf);
		padding: 0 4px;
	}
	@media (max-width: 1000px) {
		.place,
		.below {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
