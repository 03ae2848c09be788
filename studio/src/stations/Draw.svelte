<script lang="ts">
	import { searchParams } from 'sv-router';
	import type { Device, Moment, Placement } from '$lib/api/types';
	import { capital, px, said } from '$lib/pure/format';
	import { fieldOf } from '$lib/pure/edit';
	import { patchAt, valueAt } from '$lib/pure/patch';
	import { stageFor } from '$lib/pure/stage';
	import { Desk } from '$lib/state/desk.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Findings from '$lib/ui/Findings.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import Press from '$lib/ui/Press.svelte';
	import TrueButton from '$lib/ui/TrueButton.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';
	import { route } from '../router';
	import Dimensions from './parts/Dimensions.svelte';
	import Specification from './parts/Specification.svelte';
	import Why from './parts/Why.svelte';

	const workshop = useWorkshop();
	const placement = $derived(((route.params as { placement?: string }).placement ?? 'product_page') as Placement);
	const product = $derived(String(searchParams.get('product') ?? ''));
	const device = $derived(String(searchParams.get('device') ?? '') as Device | '');
	const layer = $derived(String(searchParams.get('layer') ?? ''));
	const desk = new Desk(workshop, () => ({ placement, product, device, language: workshop.shownLanguage, layer }));
	const view = $derived(desk.view);
	$effect(() => {
		if (view) workshop.sees(view.draft);
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
	const height = 300;
	/** What the quantity box takes beside the button, on the left where one reads from there. */
	const boxed = $derived.by(() => {
		const box = view?.document.quantity as { kind: string; width_px?: number } | undefined;
		return box?.kind === 'box' ? (box.width_px ?? 0) + 8 : 0;
	});
	const beside = $derived(view?.rtl ? 0 : boxed);
	const stage = $derived(shown ? stageFor(shown.drawing, width, height, beside) : { x: 0, y: 0, zoom: 1, edge: 0 });
	const room = $derived((view?.drawing.container_px ?? 300) + boxed);
	const shopPage = $derived(
		view && workshop.info
			? `${workshop.info.store.origin}${view.product.url}?up-draft=${encodeURIComponent(workshop.info.preview)}`
			: '',
	);

	const NEW = 'new';
	const products = $derived.by(() => {
		const listed = (workshop.info?.products ?? []).map((p) => ({ value: p.sku, label: `${p.name} · ${p.sku}` }));
		const here = view?.product;
		if (here && !listed.some((one) => one.value === here.sku)) listed.unshift({ value: here.sku, label: here.name });
		return listed;
	});
	/** Looks at another button; what takes its edits is its own narrowest layer. */
	function see(name: string, value: string): void {
		searchParams.delete('layer');
		searchParams.set(name, value);
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

	function onkeydown(event: KeyboardEvent): void {
		const typing = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement;
		if (typing || event.ctrlKey || event.metaKey || event.altKey || !workshop.singleKeys) return;
		const way = { '[': -1, ']': 1 }[event.key];
		if (way) picked = moments[(moments.indexOf(chosen) + way + moments.length) % moments.length] ?? 'ready';
		if (event.key === 'w' && view)
			workshop.asked = {
				placement,
				field: desk.marked ? fieldOf(desk.marked) : `wording.${chosen}.${view.language}`,
				product: view.product.sku,
				device: view.device,
				language: view.language,
			};
		if (event.key === 'p') window.open(shopPage, '_blank', 'noopener');
	}
</script>

<svelte:window {onkeydown} />

{#if view && shown && workshop.info}
	<div class="desk">
		<nav class="hangings" aria-label="Placements">
			{#each view.hanging as hung (hung.placement)}
				<a
					href="/draw/{hung.placement}?product={view.product.sku}"
					class="hung"
					aria-current={hung.placement === placement ? 'page' : undefined}
				>
					<span class="mb-2 flex items-center justify-between gap-4">
						<b class="name">{capital(said(hung.placement))}</b>
						{#if hung.must_fix}<b class="figure text-must">▲ {hung.must_fix}</b>
						{:else if hung.look_again}<b class="figure text-look">◇ {hung.look_again}</b>{/if}
					</span>
					<span class="mini"><TrueButton {...hung.shown} room={hung.shown.button.quantity ? 250 : 190} /></span>
				</a>
			{/each}
			<p class="seen text-md">
				seen by
				<Pick label="Product" value={view.product.sku} options={products} onpick={(sku) => see('product', sku)} /><br />
				on a
				<Pick
					label="Device"
					value={view.device}
					options={['phone', 'tablet', 'desktop'].map((d) => ({ value: d, label: d }))}
					onpick={(to) => see('device', to)}
				/>, in
				<Pick
					label="Language"
					value={view.language}
					options={workshop.languageOptions}
					onpick={(to) => (workshop.tongue = to)}
				/><br />
				edits go to
				<Pick
					label="Edits go to"
					value={view.layer}
					options={[
						...view.layers.map((one) => ({ value: one.layer, label: one.title })),
						{ value: NEW, label: 'only…' },
					]}
					onpick={(to) => (to === NEW ? narrow() : searchParams.set('layer', to))}
				/>
			</p>
		</nav>

		<section class="stage bg-leaf" aria-label="Drawing">
			<div class="paper" bind:clientWidth={width} style:height="{height}px">
				<div class="button" style:left="{stage.x - beside * stage.zoom}px" style:top="{stage.y}px">
					<TrueButton
						button={view.button}
						moment={chosen}
						text={shown.text}
						rtl={view.rtl}
						inactive={waits(chosen)}
						{room}
						zoom={stage.zoom}
					/>
				</div>
				<Dimensions view={shown} {desk} {stage} {width} {height} />
			</div>
			<div class="callouts">
				<Findings findings={view.findings} onmend={(mend) => desk.mend(mend)} />
				{#if !view.findings.length}
					<p class="py-3 text-md">
						<b>It fits and can be read.</b>
						<span class="text-soft">
							{px(shown.drawing.container_px - shown.drawing.needs_width_px)} px to spare on the {view.device}. The
							worst product of the catalogue was tried in every moment.
						</span>
					</p>
				{/if}
				<p class="mt-auto flex items-center justify-between gap-3 py-3 text-soft">
					<span>Type a dimension or step it with ↑ ↓.</span>
					<span class="figure whitespace-nowrap">{stage.zoom.toFixed(1)} : 1</span>
				</p>
				<p class="pb-4"><Press href={shopPage} away>Stand it on the shop’s page</Press></p>
			</div>
		</section>

		<section class="px-6 py-3" aria-label="Specification">
			<h2 class="mb-2 text-base">Specification</h2>
			<Specification {view} {desk} />
			<div class="mt-3" aria-live="polite">
				{#if desk.marked && desk.why.data}
					<div class="flex items-baseline justify-between gap-4">
						<h3 class="text-base">Why this value</h3>
						{#if desk.isOwn(desk.marked)}
							<Press small onpress={() => desk.reset(desk.marked)}>Reset to the wider rule</Press>
						{/if}
					</div>
					<Why lines={desk.why.data.lines} onjump={(to) => searchParams.set('layer', to)} />
				{:else}
					<p class="text-soft">Go to a value to see why it is what it is.</p>
				{/if}
			</div>
		</section>

		<section class="border-l border-hair px-6 py-3" aria-label="Moments">
			<h2 class="mb-2 text-base">
				Moments
				<span class="font-normal text-soft"> at true size; press one to draw it, [ and ] step </span>
			</h2>
			<div class="moments" style:--wide="{view.button.wide ? Math.max(190, room + 8) : 190}px">
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
									{room}
								/></span
							>
							{#if one.drawing.too_wide_px}<span class="text-sm text-must"
									>▲ {px(one.drawing.too_wide_px)} px too wide</span
								>{/if}
						</button>
					{/if}
				{/each}
				{#each ['hover', 'focus'] as const as look (look)}
					<div class="moment">
						<span class="tag">{look === 'hover' ? 'hovered' : 'focused'}</span>
						<span class="fit"
							><TrueButton button={view.button} moment="ready" text={view.text} rtl={view.rtl} {room} {look} /></span
						>
					</div>
				{/each}
			</div>
		</section>
	</div>
{:else}
	<Waiting what="Drawing the button" error={desk.drawing.error} onretry={() => desk.drawing.refetch()} />
{/if}

<style>
	.desk {
		display: grid;
		grid-template-columns: 430px minmax(0, 1fr);
		grid-template-rows: auto auto 1fr;
		min-height: calc(100vh - 67px);
	}
	.hangings,
	.stage {
		grid-column: 1 / -1;
	}
	.hangings {
		display: flex;
		align-items: stretch;
		padding: 8px 24px 0;
	}
	.hung {
		min-width: 172px;
		padding: 8px 16px 10px;
		border-top: 5px solid transparent;
		text-decoration: none;
	}
	.hung[aria-current] {
		border-color: var(--color-ink);
		background: var(--color-leaf);
	}
	.hung[aria-current] .name {
		background: var(--color-marker);
		padding: 0 6px;
	}
	.mini {
		display: block;
		zoom: 0.72;
	}
	.seen {
		margin-left: auto;
		align-self: center;
		text-align: right;
		line-height: 1.9;
	}
	.stage {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 384px;
		border-block: 1px solid var(--color-hair);
	}
	.paper {
		position: relative;
		overflow: hidden;
		background-image: radial-gradient(var(--color-hair) 1px, transparent 1px);
		background-size: 16px 16px;
	}
	.button {
		position: absolute;
	}
	.callouts {
		display: flex;
		flex-direction: column;
		padding: 8px 24px 0;
		max-height: 300px;
		overflow: auto;
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
		}
		.hangings {
			flex-wrap: wrap;
		}
	}
</style>
