<script lang="ts">
	import type { Placement } from '$lib/api/types';
	import { capital, px, said } from '$lib/pure/format';
	import { Plan } from '$lib/pure/dimensions';
	import { fieldOf } from '$lib/pure/edit';
	import { patchAt, valueAt } from '$lib/pure/patch';
	import { stageFor } from '$lib/pure/stage';
	import { Desk } from '$lib/state/desk.svelte';
	import { momentAfter, waits } from '$lib/pure/moments';
	import { addActions } from '$lib/state/actions.svelte';
	import { DrawingTools } from '$lib/state/drawing_tools.svelte';
	import type { Carried } from '$lib/state/clipboard.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Findings from '$lib/ui/Findings.svelte';
	import Press from '$lib/ui/Press.svelte';
	import TrueButton from '$lib/ui/TrueButton.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';
	import BrandField from './BrandField.svelte';
	import Dimensions from './Dimensions.svelte';
	import Hangings from './Hangings.svelte';
	import Leaders from './Leaders.svelte';
	import LooksSheet from './LooksSheet.svelte';
	import Moments from './Moments.svelte';
	import OnPage from './OnPage.svelte';
	import { numbersOf } from '$lib/pure/leaders';
	import Specification from './Specification.svelte';
	import TakeAway from './TakeAway.svelte';
	import Tools from './Tools.svelte';
	import Why from '../../shared/exceptions/Why.svelte';

	const workshop = useWorkshop();
	const { context } = workshop;
	const placement = $derived<Placement>(context.placement || 'product_page');
	const desk = new Desk(workshop, () => ({
		placement,
		product: context.product,
		device: context.device,
		language: workshop.shownLanguage,
		layer: context.own('layer'),
	}));
	const view = $derived(desk.view);
	const drawnAt = (moment: string | undefined) => view?.moments.find((drawn) => drawn.moment === moment);
	/** A product that never comes to the moment that was looked at is drawn in its own. */
	const drawn = $derived(drawnAt(context.moment) ?? drawnAt(view?.shown.moment) ?? view?.moments[0]);
	const chosen = $derived(drawn?.moment ?? 'ready');
	const atMoment = $derived(
		view && drawn ? { ...view, shown: { ...view.shown, drawing: drawn.drawing, text: drawn.text } } : undefined,
	);

	let width = $state(800);
	const tools = new DrawingTools();
	let list = $state<HTMLElement>();
	/** The window's height, of which a larger one goes to the drawing first. */
	let tall = $state(800);
	const more = $derived(Math.max(0, tall - 800));
	const height = $derived(tools.onPage ? 430 + more : Math.round(306 + more * 0.65));
	const stage = $derived(
		atMoment && desk.held
			? desk.held
			: atMoment
				? stageFor(atMoment.shown.drawing, width, height, tools.times)
				: { x: 0, y: 0, zoom: 1, edge: 0 },
	);
	const plan = $derived(atMoment && new Plan(atMoment, stage));
	/** Where the host of the whole row begins, seen from the button's own corner. */
	const corner = $derived.by(() => {
		const { second, quantity } = atMoment?.shown.drawing ?? {};
		return {
			x: Math.min(0, second?.outer.x ?? 0, quantity?.x ?? 0),
			y: Math.min(0, second?.outer.y ?? 0, quantity?.y ?? 0),
		};
	});
	const room = $derived(view?.around.container_px ?? 300);
	const ground = $derived({
		container: room,
		window: view?.around.window_px ?? 1280,
		type: Number(valueAt(view?.document, 'look.type.size_px') ?? 16),
	});
	const second = $derived(view?.shown.drawing.second?.text ?? '');
	const known = $derived(
		[...new Set((view?.states ?? []).flatMap((state) => [state.fill ?? '', state.words]))].filter(Boolean),
	);

	/** What the layer sets itself of the group that the marked value belongs to, as all padding. */
	const group = $derived(desk.marked.split('.').slice(0, 2).join('.'));
	const grouped = $derived((view?.editing.own ?? []).filter((path) => path.startsWith(`${group}.`)));

	let sheet = $state(false);
	let bringing = $state.raw<Carried | null>(null);
	const address = $derived(`${placement}/${view?.seen.product.sku ?? ''}`);
	function copy(): void {
		workshop.clipboard.copyButton(address);
	}
	function openLooks(from: Carried | null): void {
		bringing = from;
		sheet = true;
	}

	/** Begins an exception from just what is seen, with the value that is marked. */
	function narrow(): void {
		if (!view) return;
		const field = fieldOf(desk.marked || 'look.fill');
		workshop.opened.newException = {
			placement,
			device: view.seen.device,
			language: view.seen.language,
			product: view.seen.product,
			layer: patchAt(field, valueAt(view.document, field)),
			sets: field
				.replace(/^look\./, '')
				.replace(/[._]/g, ' ')
				.replace(' px', ''),
			onmade: (id) => context.look({ layer: `exception:${id}` }),
		};
	}

	function askWhy(): void {
		if (!view) return;
		workshop.opened.trace = {
			placement,
			field: desk.marked ? fieldOf(desk.marked) : `wording.${chosen}.${view.seen.language}`,
			product: view.seen.product.sku,
			device: view.seen.device,
			language: view.seen.language,
		};
	}
	const hasCopied = () => workshop.clipboard.look !== null;
	addActions('In Draw', [
		{ title: 'The moment before', keys: ['['], run: () => context.look({ moment: momentAfter(chosen, -1) }) },
		{ title: 'The next moment', keys: [']'], run: () => context.look({ moment: momentAfter(chosen, 1) }) },
		{
			title: 'Show the button on the shop’s own page, or back',
			keys: ['p'],
			run: () => (tools.onPage = !tools.onPage),
		},
		{ title: 'Larger', keys: ['+'], run: () => tools.larger() },
		{ title: 'Smaller', keys: ['-'], run: () => tools.smaller() },
		{ title: 'As large as it goes', keys: ['0'], run: () => tools.fit() },
		{ title: 'Pixel grid', keys: ['g'], run: () => (tools.grid = !tools.grid) },
		{ title: 'Copy this look', keys: ['c'], run: copy },
		{
			title: 'Apply the copied look',
			keys: ['v'],
			when: hasCopied,
			run: () => openLooks(workshop.clipboard.look),
		},
		{ title: 'Saved looks, starting points, a look from CSS', keys: ['l'], run: () => openLooks(null) },
		{ title: 'Why the chosen value is what it is', keys: ['w'], run: askWhy },
		{ title: 'New exception from what is seen', run: narrow },
	]);
</script>

<svelte:window bind:innerHeight={tall} />

{#if view && atMoment && plan && workshop.info}
	<h1 class="sr-only">Draw: {said(placement)}, {view.seen.product.name}</h1>
	<div class="desk">
		<Hangings {view} onnarrow={narrow} />

		<section class={['stage bg-leaf', tools.onPage && 'whole']} aria-label="Drawing">
			{#if tools.onPage && placement === 'outside'}
				<p class="p-6 text-md">
					A button outside stands on no page of the shop.
					<a href={context.href('/release/outside', { product: view.seen.product.sku })}
						>See it as code, and on other pages</a
					>.
				</p>
			{:else if tools.onPage}
				<div bind:clientWidth={width}><OnPage {view} {desk} {width} {height} /></div>
			{:else}
				<div
					class={['paper', tools.grid && 'pixels']}
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
							button={view.shown.button}
							moment={chosen}
							text={atMoment.shown.text}
							rtl={view.seen.rtl}
							inactive={waits(chosen, placement)}
							{second}
							{room}
							zoom={stage.zoom}
						/>
					</div>
					<!-- Before the dimensions, so that no leader crosses out a figure. -->
					{#if tools.callouts}<Leaders {plan} findings={view.findings} {list} {width} {height} />{/if}
					<Dimensions {plan} {desk} {width} {height} {ground} linked={tools.linked} />
				</div>
				<div class="callouts" bind:this={list} style:height="{height}px">
					<Findings
						findings={view.findings}
						numbers={tools.callouts ? numbersOf(view.findings) : []}
						onfix={(fix) => desk.fix(fix)}
					/>
					{#if !view.findings.length}
						<p class="py-3 text-md">
							<b>It fits and can be read.</b>
							<span class="text-soft">
								{px(atMoment.shown.drawing.container_px - atMoment.shown.drawing.needs_width_px)} px to spare on the {view
									.seen.device}. The worst product of the catalogue was tried in every moment.
							</span>
						</p>
					{/if}
				</div>
			{/if}
			<Tools {tools} zoom={stage.zoom} />
		</section>

		<section class="below px-6 py-3" aria-label="Specification">
			<div class="mb-2 flex items-baseline gap-4">
				<h2 class="text-base">Specification</h2>
				<span class="ml-auto flex items-baseline gap-3">
					<BrandField {desk} {known} />
					<button class="value" onclick={() => openLooks(null)}>looks</button>
					<button class="value" onclick={copy}>{workshop.clipboard.holdsButton(address) ? 'copied' : 'copy'}</button>
					{#if hasCopied()}<button class="value" onclick={() => openLooks(workshop.clipboard.look)}>paste</button>{/if}
					<TakeAway {desk} />
				</span>
			</div>
			<Specification {view} {desk} {ground} />
			<div class="mt-3">
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
					<Why lines={desk.why.data.lines} onjump={(to) => context.look({ layer: to })} />
				{:else}
					<p class="text-soft">
						Go to a value to see why it is what it is.
						{#if view.editing.own.length}
							{view.editing.title} sets {view.editing.own.length === 1
								? 'one value'
								: `${view.editing.own.length} values`} itself;
							<button
								class="value"
								onclick={() => desk.resetAll(view.editing.own.filter((path) => !path.startsWith('wording.')))}
								>reset all that is drawn</button
							>.
						{/if}
					</p>
				{/if}
			</div>
		</section>

		<Moments {view} {chosen} {second} {room} onpick={(moment) => context.look({ moment })} />
	</div>
	{#if sheet}<LooksSheet {desk} from={bringing} onclose={() => (sheet = false)} />{/if}
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
	.below {
		overflow: auto;
		scrollbar-width: thin;
	}
	@media (max-width: 1000px) {
		.desk,
		.stage {
			grid-template-columns: minmax(0, 1fr);
			height: auto;
		}
	}
</style>
