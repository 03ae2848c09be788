<script lang="ts">
	import { searchParams } from 'sv-router';
	import type { Device, Moment, Placement } from '$lib/api/types';
	import { capital, px, said } from '$lib/pure/format';
	import { Plan } from '$lib/pure/dimensions';
	import { fieldOf } from '$lib/pure/edit';
	import { patchAt, valueAt } from '$lib/pure/patch';
	import { stageFor } from '$lib/pure/stage';
	import { Desk } from '$lib/state/desk.svelte';
	import { isFreeKey } from '$lib/pure/keys';
	import { useWorkshop, type Carried } from '$lib/state/workshop.svelte';
	import Findings from '$lib/ui/Findings.svelte';
	import Press from '$lib/ui/Press.svelte';
	import TrueButton from '$lib/ui/TrueButton.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';
	import { route } from '../../app/router';
	import BrandField from './BrandField.svelte';
	import Dimensions from './Dimensions.svelte';
	import Hangings from './Hangings.svelte';
	import Leaders from './Leaders.svelte';
	import LooksSheet from './LooksSheet.svelte';
	import OnPage from './OnPage.svelte';
	import { numbersOf } from '$lib/pure/leaders';
	import Specification from './Specification.svelte';
	import TakeAway from './TakeAway.svelte';
	import Why from '../../shared/exceptions/Why.svelte';

	const workshop = useWorkshop();
	const placement = $derived(((route.params as { placement?: string }).placement ?? 'product_page') as Placement);
	const product = $derived(String(searchParams.get('product') ?? ''));
	const device = $derived(String(searchParams.get('device') ?? '') as Device | '');
	const layer = $derived(String(searchParams.get('layer') ?? ''));
	const desk = new Desk(workshop, () => ({ placement, product, device, language: workshop.shownLanguage, layer }));
	const view = $derived(desk.view);
	$effect(() => {
		if (desk.kept) workshop.sees(desk.kept.draft);
	});

	const moments: readonly Moment[] = [
		'ready',
		'working',
		'added',
		'in_basket',
		'choose_first',
		'pre_order',
		'sold_out',
	];
	const looks = ['hover', 'pressed', 'focus'] as const;
	const lookNames = { hover: 'hovered', pressed: 'pressed', focus: 'focused' };
	let picked = $state<Moment | null>(null);
	const chosen = $derived(picked ?? view?.moment ?? 'ready');
	/** Where the choice is on the page, the button waits for it. */
	const waits = (moment: Moment) =>
		moment === 'sold_out' ||
		moment === 'working' ||
		(moment === 'choose_first' && (placement === 'product_page' || placement === 'sticky_bar'));
	const drawn = $derived(view?.moments.find((m) => m.moment === chosen));
	const shown = $derived(view && drawn ? { ...view, drawing: drawn.drawing, text: drawn.text } : undefined);

	let width = $state(800);
	let times = $state(1);
	let grid = $state(false);
	let guides = $state(true);
	let linked = $state(true);
	let onPage = $state(false);
	let list = $state<HTMLElement>();
	/** The window's height, of which a larger one goes to the drawing first. */
	let tall = $state(800);
	const more = $derived(Math.max(0, tall - 800));
	const height = $derived(onPage ? 430 + more : Math.round(306 + more * 0.65));
	const stage = $derived(shown ? stageFor(shown.drawing, width, height, times) : { x: 0, y: 0, zoom: 1, edge: 0 });
	const plan = $derived(shown && new Plan(shown, stage));
	/** Where the host of the whole row begins, seen from the button's own corner. */
	const corner = $derived.by(() => {
		const { second, quantity } = shown?.drawing ?? {};
		return {
			x: Math.min(0, second?.outer.x ?? 0, quantity?.x ?? 0),
			y: Math.min(0, second?.outer.y ?? 0, quantity?.y ?? 0),
		};
	});
	const room = $derived(view?.container_px ?? 300);
	/** Room for the widest of the moments, with what stands beside the button. */
	const column = $derived.by(() => {
		const widths = (view?.moments ?? []).map(({ drawing }) => {
			const { outer, second, quantity } = drawing;
			const from = Math.min(0, second?.outer.x ?? 0, quantity?.x ?? 0);
			const ends = [
				outer.width,
				second ? second.outer.x + second.outer.width : 0,
				quantity ? quantity.x + quantity.width : 0,
			];
			return Math.max(...ends) - from;
		});
		return Math.max(190, (view?.button.wide ? room : Math.max(0, ...widths)) + 12);
	});
	const ground = $derived({
		container: room,
		window: view?.window_px ?? 1280,
		type: Number(valueAt(view?.document, 'look.type.size_px') ?? 16),
	});
	const second = $derived(view?.drawing.second?.text ?? '');
	const known = $derived(
		[...new Set((view?.states ?? []).flatMap((one) => [one.fill ?? '', one.words]))].filter(Boolean),
	);

	/** What the layer sets itself of the group that the marked value belongs to, as all padding. */
	const group = $derived(desk.marked.split('.').slice(0, 2).join('.'));
	const grouped = $derived((view?.own ?? []).filter((path) => path.startsWith(`${group}.`)));

	let sheet = $state(false);
	let bringing = $state.raw<Carried | null>(null);
	function copy(): void {
		if (view) workshop.copied = { kind: 'button', value: `${placement}/${view.product.sku}`, selector: '' };
	}
	function openLooks(from: Carried | null): void {
		bringing = from;
		sheet = true;
	}

	/** Begins an exception from just what is seen, with the value that is marked. */
	function narrow(): void {
		if (!view) return;
		const field = fieldOf(desk.marked || 'look.fill');
		workshop.making = {
			placement,
			device: view.device,
			language: view.language,
			product: view.product,
			layer: patchAt(field, valueAt(view.document, field)),
			sets: field
				.replace(/^look\./, '')
				.replace(/[._]/g, ' ')
				.replace(' px', ''),
			onmade: (id) => searchParams.set('layer', `exception:${id}`),
		};
	}

	const keys: Record<string, () => void> = {
		'[': () => step(-1),
		']': () => step(1),
		'+': () => (times = Math.min(4, times * 1.25)),
		'-': () => (times = Math.max(0.25, times / 1.25)),
		'0': () => (times = 1),
		g: () => (grid = !grid),
		p: () => (onPage = !onPage),
		c: copy,
		v: () => openLooks(workshop.copied),
		l: () => openLooks(null),
		w: () => {
			if (!view) return;
			workshop.asked = {
				placement,
				field: desk.marked ? fieldOf(desk.marked) : `wording.${chosen}.${view.language}`,
				product: view.product.sku,
				device: view.device,
				language: view.language,
			};
		},
	};
	function step(way: number): void {
		picked = moments[(moments.indexOf(chosen) + way + moments.length) % moments.length] ?? 'ready';
	}
	function onkeydown(event: KeyboardEvent): void {
		if (workshop.singleKeys && isFreeKey(event)) keys[event.key]?.();
	}
</script>

<svelte:window {onkeydown} bind:innerHeight={tall} />

{#if view && shown && plan && workshop.info}
	<h1 class="sr-only">Draw: {said(placement)}, {view.product.name}</h1>
	<div class="desk">
		<Hangings {view} onnarrow={narrow} />

		<section class={['stage bg-leaf', onPage && 'whole']} aria-label="Drawing">
			{#if onPage}
				<div bind:clientWidth={width}><OnPage {view} {desk} {width} {height} /></div>
			{:else}
				<div
					class={['paper', grid && 'pixels']}
					bind:clientWidth={width}
					style:height="{height}px"
					style:--pixel="{stage.zoom}px"
					style:--from="{stage.x}px {stage.y}px"
				>
					<div
						class="button"
						style:left="{stage.x + corner.x * stage.zoom}px"
						style:top="{stage.y + corner.y * stage.zoom}px"
					>
						<TrueButton
							button={view.button}
							moment={chosen}
							text={shown.text}
							rtl={view.rtl}
							inactive={waits(chosen)}
							{second}
							{room}
							zoom={stage.zoom}
						/>
					</div>
					<!-- Before the dimensions, so that no leader crosses out a figure. -->
					{#if guides}<Leaders {plan} findings={view.findings} {list} {width} {height} />{/if}
					<Dimensions {plan} {desk} {width} {height} {ground} {linked} />
				</div>
				<div class="callouts" bind:this={list} style:height="{height}px">
					<Findings
						findings={view.findings}
						numbers={guides ? numbersOf(view.findings) : []}
						onfix={(fix) => desk.fix(fix)}
					/>
					{#if !view.findings.length}
						<p class="py-3 text-md">
							<b>It fits and can be read.</b>
							<span class="text-soft">
								{px(shown.drawing.container_px - shown.drawing.needs_width_px)} px to spare on the {view.device}. The
								worst product of the catalogue was tried in every moment.
							</span>
						</p>
					{/if}
				</div>
			{/if}
			<div class="tools" role="toolbar" aria-label="Drawing tools">
				<button class="value" aria-pressed={onPage} onclick={() => (onPage = !onPage)}
					>{onPage ? 'back to the drawing' : 'on the page'}</button
				>
				{#if !onPage}
					<span class="flex items-baseline gap-1">
						<button class="value" aria-label="Smaller" onclick={keys['-']}>−</button>
						<span class="figure whitespace-nowrap">{stage.zoom.toFixed(1)} : 1</span>
						<button class="value" aria-label="Larger" onclick={keys['+']}>+</button>
					</span>
					<button class="value" aria-pressed={grid} onclick={keys.g}>pixel grid {grid ? 'on' : 'off'}</button>
					<button class="value" aria-pressed={guides} onclick={() => (guides = !guides)}
						>callout lines {guides ? 'on' : 'off'}</button
					>
					<button class="value" aria-pressed={linked} onclick={() => (linked = !linked)}
						>{linked ? 'linked sides' : 'separate sides'}</button
					>
					<span class="text-soft">Drag a dimension or its name, type into it, or step it with ↑ ↓.</span>
				{/if}
			</div>
		</section>

		<section class="below px-6 py-3" aria-label="Specification">
			<div class="mb-2 flex items-baseline gap-4">
				<h2 class="text-base">Specification</h2>
				<span class="ml-auto flex items-baseline gap-3">
					<BrandField {desk} {known} />
					<button class="value" onclick={() => openLooks(null)}>looks</button>
					<button class="value" onclick={copy}
						>{workshop.copied?.value === `${placement}/${view.product.sku}` ? 'copied' : 'copy'}</button
					>
					{#if workshop.copied}<button class="value" onclick={() => openLooks(workshop.copied)}>paste</button>{/if}
					<TakeAway {desk} />
				</span>
			</div>
			<Specification {view} {desk} {ground} />
			<div class="mt-3" aria-live="polite">
				{#if desk.marked && desk.why.data}
					<div class="flex items-baseline justify-between gap-4">
						<h3 class="text-base">Why this value</h3>
						{#if desk.isOwn(desk.marked)}
							<Press small onpress={() => desk.reset(desk.marked)}>Reset to the wider rule</Press>
						{/if}
						{#if grouped.length > 1}
							<Press small onpress={() => desk.resetAll(grouped)}>Reset all {said(group.split('.').at(-1) ?? '')}</Press
							>
						{/if}
					</div>
					<Why lines={desk.why.data.lines} onjump={(to) => searchParams.set('layer', to)} />
				{:else}
					<p class="text-soft">
						Go to a value to see why it is what it is.
						{#if view.own.length}
							{view.layer_title} sets {view.own.length === 1 ? 'one value' : `${view.own.length} values`} itself;
							<button
								class="value"
								onclick={() => desk.resetAll(view.own.filter((path) => !path.startsWith('wording.')))}
								>reset all that is drawn</button
							>.
						{/if}
					</p>
				{/if}
			</div>
		</section>

		<section class="below border-l border-hair px-4 py-3" aria-label="Moments">
			<h2 class="mb-2 text-base">
				Moments
				<span class="font-normal text-soft"> at true size; press one to draw it, [ and ] step </span>
			</h2>
			<div class="moments" style:--wide="{column}px">
				{#each moments as moment (moment)}
					{@const one = view.moments.find((m) => m.moment === moment)}
					{#if one}
						<button class="moment" aria-pressed={moment === chosen} onclick={() => (picked = moment)}>
							<span class="tag">{said(moment)}</span>
							<span class="fit"
								><TrueButton
									button={view.button}
									{moment}
									text={one.text}
									rtl={view.rtl}
									inactive={waits(moment)}
									{second}
									{room}
								/></span
							>
							{#if one.drawing.too_wide_px}<span class="text-sm text-must"
									>▲ {px(one.drawing.too_wide_px)} px too wide</span
								>{/if}
						</button>
					{/if}
				{/each}
				{#each looks as look (look)}
					<div class="moment">
						<span class="tag">{lookNames[look]}</span>
						<span class="fit"
							><TrueButton
								button={view.button}
								moment="ready"
								text={view.text}
								rtl={view.rtl}
								{second}
								{room}
								{look}
							/></span
						>
					</div>
				{/each}
			</div>
		</section>
	</div>
	<LooksSheet open={sheet} {desk} from={bringing} onclose={() => (sheet = false)} />
{:else}
	<Waiting
		what="Drawing the {capital(said(placement))}"
		error={desk.drawing.error}
		onretry={() => desk.drawing.refetch()}
	/>
{/if}

<style>
	.desk {
		display: grid;
		grid-template-columns: minmax(540px, 0.78fr) minmax(0, 1fr);
		grid-template-rows: auto auto minmax(220px, 1fr);
		height: calc(100vh - 67px);
	}
	.desk > :global(nav),
	.stage {
		grid-column: 1 / -1;
	}
	.stage {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 352px;
		border-block: 1px solid var(--color-hair);
	}
	.stage.whole {
		grid-template-columns: minmax(0, 1fr);
	}
	.paper {
		position: relative;
		overflow: hidden;
		background-image: radial-gradient(var(--color-hair) 1px, transparent 1px);
		background-size: 16px 16px;
	}
	.paper.pixels {
		background-image:
			linear-gradient(to right, var(--color-hair) 1px, transparent 1px),
			linear-gradient(to bottom, var(--color-hair) 1px, transparent 1px);
		background-size: var(--pixel) var(--pixel);
		background-position: var(--from);
	}
	.button {
		position: absolute;
	}
	.callouts {
		padding: 8px 24px 0 16px;
		overflow: auto;
	}
	.tools {
		grid-column: 1 / -1;
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 4px 20px;
		padding: 4px 24px 6px;
		border-top: 1px solid var(--color-hair);
	}
	.below {
		overflow: auto;
		scrollbar-width: thin;
	}
	.moments {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(min(100%, var(--wide)), 1fr));
		gap: 0 12px;
	}
	.moment {
		display: grid;
		justify-items: start;
		align-content: start;
		text-align: left;
	}
	.tag {
		font: 12px/1.3 var(--font-mono);
		margin-left: 4px;
		color: var(--color-soft);
	}
	.moment[aria-pressed='true'] .tag {
		background: var(--color-marker);
		color: var(--color-ink);
		box-shadow: inset 0 -2px var(--color-ink);
	}
	.fit {
		display: block;
		padding: 4px;
	}
	@media (max-width: 1000px) {
		.desk,
		.stage {
			grid-template-columns: minmax(0, 1fr);
			height: auto;
		}
	}
</style>
