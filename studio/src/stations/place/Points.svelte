<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import type { Device, Placement } from '$lib/api/types';
	import { DEVICES, WINDOW_HEIGHTS_PX, WINDOWS_PX } from '$lib/pure/facts';
	import { addActions } from '$lib/state/actions.svelte';
	import { PointingAt } from '$lib/state/pointing.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';
	import PlaceList from './PlaceList.svelte';
	import PlaceSentences from './PlaceSentences.svelte';
	import SurveyLines from './SurveyLines.svelte';

	const workshop = useWorkshop();
	const { context } = workshop;
	const places = createQuery(() => workshop.ask.places(context.product));
	const device = $derived<Device>(context.device || 'desktop');
	const at = new PointingAt(workshop);
	let width = $state(780);
	let tall = $state(800);
	const room = $derived(tall - 170);
	const wide = $derived(WINDOWS_PX[device]);
	const scale = $derived(Math.min(1, width / wide));
	const high = $derived(Math.min(Math.max(WINDOW_HEIGHTS_PX[device], room / scale), room / scale));
	const kinds = [
		{ value: 'product_page', label: 'a product’s page' },
		{ value: 'listing_card', label: 'a card in a list' },
		{ value: 'strip', label: 'a card in a strip' },
		{ value: 'over_picture', label: 'a picture' },
		{ value: 'tile', label: 'tiles, which bring their pictures' },
	] as const;
	const pages = $derived(
		(places.data?.pages ?? []).map((page) => ({ value: page.path, label: `${page.name} ${page.path}` })),
	);
	const devices = DEVICES.map((name) => ({ value: name, label: `a ${name}` }));
	const ways = { ArrowUp: 'parent', ArrowDown: 'child', ArrowRight: 'next', ArrowLeft: 'before' } as const;

	function key(event: KeyboardEvent): void {
		if (!at.isPointing) return;
		const way = ways[event.key as keyof typeof ways];
		if (way) at.move(way);
		else if (event.key === 'Escape') at.cancel();
		else return;
		event.preventDefault();
	}
	addActions('In Place', [{ title: 'Point at a place', keys: ['p'], run: () => at.point() }]);
	// Whoever came to point begins at once.
	if (context.own('point')) at.point();
</script>

<svelte:window bind:innerHeight={tall} />

<div class="place">
	<section class="page" aria-label="The shop’s page">
		<p class="mb-2">
			<a href={context.href('/place')} class="mr-3">← Along the page</a>
			<span class="text-md">
				The page <Pick label="Page" value={at.path} options={pages} onpick={(path) => (at.path = path)} />, seen on
				<Pick label="Device" value={device} options={devices} onpick={(name) => context.look({ device: name })} />
			</span>
			<span class="figure text-soft">{wide} px · {scale.toFixed(2)} : 1</span>
		</p>
		<div bind:clientWidth={width}></div>
		<div class="window" style:width="{wide * scale}px" style:height="{Math.min(room, high * scale)}px">
			{#key `${at.path} ${workshop.draft?.version}`}
				<iframe
					bind:this={at.seen.frame}
					title="The shop’s page {at.path}"
					src={at.address(at.path)}
					{@attach () => void at.opened()}
					width={wide}
					height={high}
					style:transform="scale({scale})"
				></iframe>
			{/key}
		</div>
		<p class="text-soft" role="status">
			{#if at.isPointing}
				Press the spot on the page. By keys: <kbd>↑</kbd> what is around it, <kbd>↓</kbd> within, <kbd>← →</kbd> beside,
				<kbd>Enter</kbd> takes it, <kbd>Esc</kbd> leaves.
			{:else if at.taken}
				{at.taken.count === 1 ? 'One place is' : `${at.taken.count} places are`} marked on the page with a dashed line.
			{:else}
				The page is live, with the draft in it.
			{/if}
		</p>
	</section>

	<section class="said" aria-label="Places">
		{#if at.place}
			<PlaceSentences {at} {kinds} />
			<SurveyLines {at} />
			<p class="mt-4 flex items-center gap-3">
				<Press main disabled={workshop.saving || !at.isMeasured} onpress={() => at.keep()}>Keep the place</Press>
				<Press onpress={() => at.point()}>Point again</Press>
				<Press onpress={() => at.cancel()}>Cancel</Press>
			</p>
		{:else if at.isPointing}
			<h1 class="text-xl">{at.seen.isReady ? 'Point at the spot on the page.' : 'The page is still loading.'}</h1>
			<p class="mt-3 text-md leading-8">
				It is for <Pick
					label="What the place is for"
					value={at.placement}
					options={kinds}
					onpick={(picked) => (at.placement = picked as Placement)}
				/>.
			</p>
			<p class="mt-2 text-soft">
				Where it is a card, any card will do: the same spot is found in all of them. Inside our own buttons nothing can
				be pointed at.
			</p>
			{#if at.seen.isReady}<button
					class="keys"
					onclick={() => at.take()}
					onkeydown={key}
					{@attach (button) => button.focus()}
				>
					While this is marked, arrow keys move over the page and Enter takes what is marked there.
				</button>{:else if !at.isAnswering}<p class="mt-3 text-must">
					▲ It does not answer: our line is not on it, or it may not be framed here.
				</p>{/if}
			<p class="mt-4 flex gap-3">
				<Press onpress={() => at.cancel()}>Cancel</Press>
			</p>
		{:else if at.at && !at.made}
			<h1 class="text-xl">Looking at the shop’s pages.</h1>
			<SurveyLines {at} />
			<p class="mt-4"><Press onpress={() => at.cancel()}>Cancel</Press></p>
		{:else if at.made && !at.made.choices.length}
			<h1 class="text-xl">No selector would last.</h1>
			<p class="mt-3">{at.made.says}</p>
			<p class="mt-4 flex gap-3"><Press onpress={() => at.point()}>Point elsewhere</Press></p>
		{:else if places.data}
			<PlaceList {at} places={places.data.places} />
		{:else}
			<Waiting what="Reading the places" error={places.error} onretry={() => places.refetch()} />
		{/if}
	</section>
	<!-- Other pages are looked at unseen but within the window: what a browser need not draw, it does not lay out in time. -->
	<div class="beside" aria-hidden="true" inert>
		<iframe
			bind:this={at.beside.frame}
			title="Another page of the shop"
			width={at.besideWide}
			height="800"
			tabindex="-1"
		></iframe>
	</div>
</div>

<style>
	.place {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 420px;
		height: calc(100vh - 67px);
	}
	.page {
		padding: 14px 24px 0;
		min-width: 0;
	}
	.window {
		overflow: hidden;
		border: 1px solid var(--color-ink);
		background: var(--color-leaf);
		margin-bottom: 6px;
	}
	iframe {
		border: 0;
		transform-origin: 0 0;
	}
	.said {
		overflow: auto;
		border-left: 1px solid var(--color-hair);
		padding: 18px 24px 24px;
	}
	.beside {
		position: fixed;
		left: 0;
		top: 0;
		z-index: -1;
		opacity: 0;
	}
	.keys {
		text-align: start;
		margin-top: 12px;
		border: 1px dashed var(--color-soft);
		padding: 8px 12px;
		color: var(--color-soft);
	}
	.keys:focus-visible {
		border-style: solid;
		border-color: var(--color-ink);
		background: var(--color-marker);
		color: var(--color-ink);
	}
	kbd {
		font-family: var(--font-mono);
		border: 1px solid var(--color-hair);
		background: var(--color-leaf);
		padding: 0 4px;
	}
	@media (max-width: 1000px) {
		.place {
			grid-template-columns: minmax(0, 1fr);
			height: auto;
		}
	}
</style>
