<script lang="ts">
	import { untrack } from 'svelte';
	import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
	import type { Device } from '$lib/api/types';
	import { DEVICES, WINDOW_HEIGHTS_PX, WINDOWS_PX } from '$lib/pure/facts';
	import { addActions } from '$lib/state/actions.svelte';
	import { AlongThePage } from '$lib/state/along.svelte';
	import { Desk } from '$lib/state/desk.svelte';
	import { Study } from '$lib/state/study.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';
	import Figures from './Figures.svelte';
	import ScrollFindings from './ScrollFindings.svelte';
	import Standings, { OWN_STANDING, type OwnStanding } from './Standings.svelte';
	import Strip from './Strip.svelte';
	import StudyLines from './StudyLines.svelte';
	import Ways from './Ways.svelte';
	import Windows from './Windows.svelte';

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
	const had = $derived(places.data?.placements ?? []);
	const standings = $derived((Object.keys(OWN_STANDING) as OwnStanding[]).filter((standing) => had.includes(standing)));
	/** Those that are met along this page; the first of them is what one most likely came for. */
	let met = $state.raw<readonly string[]>([]);
	const usual = $derived(standings.find((standing) => met.includes(standing)));
	const standing = $derived(standings.find((standing) => standing === context.placement) ?? usual ?? standings[0]);
	/** What edits go to: the placement itself, unless somebody picks an exception that holds here. */
	const layer = $derived(context.own('layer'));
	const desk = new Desk(workshop, () => ({
		placement: standing ?? had[0] ?? ('product_page' as const),
		product,
		device,
		language,
		layer: standing ? layer || `place:${standing}` : '',
	}));
	const at = new AlongThePage(workshop, desk, () => ({ path: page?.path ?? '/', product, language }));
	const onDevice = $derived(at.on(device));
	$effect(() => {
		const keys = (onDevice?.along.lanes ?? []).map(({ key }) => key).filter((key) => key in OWN_STANDING);
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
		const across = DEVICES.reduce((sum, size) => sum + WINDOWS_PX[size] / WINDOW_HEIGHTS_PX[size], 0);
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
		const to = pages.find((page) => page.path === path);
		context.look({ page: path, product: to?.product || context.product, layer: '' });
	}

	/** Goes to another page on which the placement stands; what is edited stays. */
	function stepTo(to: (typeof pages)[number]): void {
		stepped = to;
		context.look({ page: to.path, product: to.product || context.product, placement: standing ?? '' });
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
				onpick={(to) => context.look({ language: to })}
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
					const to = pages.find((page) => page.path === path);
					context.look({ page: path, product: to?.product || context.product, device: name, layer: '' });
					isStudying = false;
				}}
				onclose={() => (isStudying = false)}
			/>
		</div>
	{/if}

	<section class="strip" hidden={isStudying} aria-label="The whole page on a {device}">
		<Strip {at} {device} {onDevice} {desk} {standing} high={stripHigh} />
	</section>

	<section class="seen" hidden={isStudying} aria-label="Windows" bind:clientWidth={wide}>
		<Windows {at} {device} {desk} {standing} name={page?.name} high={windowHigh} />
		{#if onDevice}
			<Figures {onDevice} survey={at.surveys[device]} onlook={(px) => at.scrollTo(device, px)} />
			<div class="below">
				<Standings
					{at}
					{device}
					{desk}
					{standing}
					{standings}
					{language}
					{product}
					path={page?.path ?? ''}
					isKnown={!!places.data}
					isOnPicture={met.includes('over_picture')}
					onstep={stepTo}
				/>
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
