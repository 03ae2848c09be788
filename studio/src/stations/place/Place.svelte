<script lang="ts">
	import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
	import type { Device } from '$lib/api/types';
	import { DEVICES, WINDOWS_PX } from '$lib/pure/facts';
	import { addActions } from '$lib/state/actions.svelte';
	import { AlongThePage, HIGH_PX } from '$lib/state/along.svelte';
	import { Desk } from '$lib/state/desk.svelte';
	import { Study } from '$lib/state/study.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';
	import { navigate } from '../../app/router';
	import BarSentences from './BarSentences.svelte';
	import Figures from './Figures.svelte';
	import ScrollFindings from './ScrollFindings.svelte';
	import Strip from './Strip.svelte';
	import StudyLines from './StudyLines.svelte';

	const workshop = useWorkshop();
	// The windows stay as they are while the places are asked for anew.
	const places = createQuery(() => ({ ...workshop.ask.places(), placeholderData: keepPreviousData }));
	const pages = $derived(places.data?.pages ?? []);
	let picked = $state('');
	// A product's page is where most of the buttons stand.
	const page = $derived(pages.find(({ path }) => path === picked) ?? pages.find(({ product }) => product) ?? pages[0]);
	let device = $state<Device>('phone');
	const product = $derived(page?.product ?? '');
	const language = $derived(workshop.shownLanguage);
	/** What edits of the bar go to: the placement itself, unless somebody picks an exception that holds here. */
	let layer = $state('place:sticky_bar');
	const hasBar = $derived(!!workshop.info?.store.surfaces.sticky_bar);
	const desk = new Desk(workshop, () => ({
		placement: hasBar ? 'sticky_bar' : (Object.keys(workshop.info?.store.surfaces ?? {})[0] as never),
		product,
		device,
		language,
		layer: hasBar ? layer : '',
	}));
	const at = new AlongThePage(workshop, desk, () => ({ path: page?.path ?? '/', product, language }));
	const study = new Study(workshop, (path) => at.addressOf(path));
	let isStudying = $state(false);
	let tall = $state(800);
	let wide = $state(900);
	const stripHigh = $derived(Math.max(420, tall - 170));
	/** All windows are equally high, each at a scale of its own. */
	const windowHigh = $derived.by(() => {
		const across = DEVICES.reduce((sum, one) => sum + WINDOWS_PX[one] / HIGH_PX[one], 0);
		return Math.max(160, Math.min((wide - 2 * 20) / across, tall * 0.37));
	});
	const devices = DEVICES.map((name) => ({ value: name, label: name }));
	const pageOptions = $derived(pages.map(({ name, path }) => ({ value: path, label: `${name} ${path}` })));
	const found = $derived(at.on(device));
	const isAsked = $derived(at.silent.length === DEVICES.length);

	function open(path: string): void {
		if (path === page?.path) return;
		picked = path;
		layer = 'place:sticky_bar';
		at.scrollTo(device, 0);
		at.surveys = {};
		at.view = null;
	}

	function step(by: number): void {
		at.scrollTo(device, at.at(device) + by);
	}
	addActions('In Place', [
		{ title: 'Further down the page', keys: ['j'], run: () => step(40) },
		{ title: 'Further up the page', keys: ['k'], run: () => step(-40) },
		{ title: 'A window further down', keys: ['J'], run: () => step(HIGH_PX[device]) },
		{ title: 'A window further up', keys: ['K'], run: () => step(-HIGH_PX[device]) },
		{ title: 'Point at a place', keys: ['p'], run: () => void navigate('/place/points', { search: { point: '1' } }) },
	]);
</script>

<svelte:window bind:innerHeight={tall} />

<div class="place">
	<header class="head">
		<h1 class="text-lg font-normal">
			How buttons stand along <Pick label="Page" value={page?.path ?? ''} options={pageOptions} onpick={open} />, seen
			on a
			<Pick label="Device" value={device} options={devices} onpick={(name) => (device = name)} />, in
			<Pick
				label="Language"
				value={language}
				options={workshop.languageOptions}
				onpick={(one) => (workshop.preferences.language = one)}
			/>.
		</h1>
		<p class="text-soft">
			Drag the window along the rule, or press <kbd>J</kbd> <kbd>K</kbd>; the three windows move together.
			<span class="ml-3"
				><Press small onpress={() => navigate('/place/points')}
					>Places pointed at: {Object.keys(places.data?.places ?? {}).length || 'none'}</Press
				>
				<Press small onpress={() => navigate('/place/points', { search: { point: '1' } })}>Point at a place</Press>
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
					open(path);
					device = name;
					isStudying = false;
				}}
				onclose={() => (isStudying = false)}
			/>
		</div>
	{/if}

	<section class="strip" hidden={isStudying} aria-label="The whole page on a {device}">
		<Strip {at} {device} {found} {desk} high={stripHigh} />
	</section>

	<section class="seen" hidden={isStudying} aria-label="Windows" bind:clientWidth={wide}>
		<div class="windows">
			{#each DEVICES as name (name)}
				{@const scale = windowHigh / HIGH_PX[name]}
				<figure style:width="{WINDOWS_PX[name] * scale}px">
					<figcaption>
						<button class="name" aria-pressed={name === device} onclick={() => (device = name)}>{name}</button>
						<span class="figure text-sm text-soft"
							>{WINDOWS_PX[name]} × {HIGH_PX[name]}<br />{scale.toFixed(2)} : 1</span
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
									height={HIGH_PX[name]}
									style:transform="scale({scale})"
								></iframe>
							{/key}
						{/if}
					</div>
				</figure>
			{/each}
		</div>
		{#if found}
			<Figures {found} survey={at.surveys[device]} onlook={(px) => at.scrollTo(device, px)} />
			<div class="below">
				<div>
					{#if !product}
						<p class="text-soft">No bar stands on this page: it is no product’s own.</p>
					{:else if !hasBar}
						<p class="text-soft">The shop has no bar: its pages were registered without one.</p>
					{:else if desk.view}
						<BarSentences {desk} view={desk.view} {device} onlayer={(one) => (layer = one)} />
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
				line is on <a href="/release">Release</a>; a shop that forbids frames must allow this studio:
				<code class="figure">frame-ancestors 'self' {location.origin}</code>.
			</p>
		{:else}
			<div class="mt-6">
				<Waiting what="Measuring the page" error={places.error} onretry={() => places.refetch()} />
			</div>
		{/if}
	</section>
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
