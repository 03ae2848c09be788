<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import type { ChangeView, PointedPlace } from '$lib/api/types';
	import { pagesSaid, WHERE } from '$lib/pure/places';
	import { capital, many, moment, said } from '$lib/pure/format';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import { Releasing } from '$lib/state/releasing.svelte';
	import { LivePages } from '$lib/state/live_pages.svelte';
	import Copy from '$lib/ui/Copy.svelte';
	import Empty from '$lib/ui/Empty.svelte';
	import Press from '$lib/ui/Press.svelte';
	import TrueButton from '$lib/ui/TrueButton.svelte';
	import VirtualRows from '$lib/ui/VirtualRows.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';
	import LivePagesList from './LivePagesList.svelte';

	const workshop = useWorkshop();
	const { context } = workshop;
	const release = createQuery(() => workshop.ask.release());
	const live = new LivePages(workshop);
	const outside = createQuery(() => workshop.ask.outside());
	const MOST_NAMED = 3;
	const differing = $derived.by(() => {
		const names = (outside.data?.handed_out ?? [])
			.filter(({ differs }) => differs)
			.map((button) => button.product || button.sku);
		return [...new Set(names)];
	});
	const listed = (names: readonly string[]) =>
		names.slice(0, MOST_NAMED).join(', ') + (names.length > MOST_NAMED ? ` and ${names.length - MOST_NAMED} more` : '');
	// What the pages show before anything is released is the measure for after it.
	void live.open();
	const releasing = new Releasing(workshop, () => release.data?.draft.version ?? 0);

	async function send(back: number | null): Promise<void> {
		if (await releasing.send(back)) void live.look('after');
	}
	async function goOn(): Promise<void> {
		if (await releasing.goOn()) void live.look('after');
	}
	const first = $derived(release.data && !release.data.ledger.length);
	const canSend = $derived(Boolean(first || release.data?.is_other));
	function room(change: ChangeView): number {
		return Math.min(...Object.values(workshop.info?.store.surfaces[change.placement]?.widths_px ?? { any: 300 }));
	}
</script>

{#snippet changeOf(change: ChangeView)}
	{@const look = change.state === 'rest' ? undefined : change.state}
	<div>
		<h2 class="text-md">{capital(said(change.placement))}</h2>
		<p class="text-soft">{many(change.products, 'product')}, for example {change.example}</p>
		{#each change.under_trial as n (n)}<p class="mt-1 text-must">
				▲ under <a href={context.href(`/trials/${n}`)}>trial {n}</a>
			</p>{/each}
	</div>
	<div class="pair">
		<p class="tag">live now{look ? `, ${look === 'hover' ? 'hovered' : 'focused'}` : ''}</p>
		<span class="shown"><TrueButton {...change.before} room={room(change)} {look} /></span>
	</div>
	<div class="pair">
		<p class="tag">after release</p>
		<span class="shown"><TrueButton {...change.after} room={room(change)} {look} /></span>
	</div>
	<ul class="fields">
		{#each change.fields as field, n (n)}
			<li>
				{capital(field.field)}: <span class="text-soft"><bdi>{field.before}</bdi> →</span>
				<b><bdi>{field.after}</bdi></b>
			</li>
		{/each}
	</ul>
{/snippet}

{#snippet placeOf(before: PointedPlace | null, after: PointedPlace | null)}
	{#each [{ place: before, what: after ? 'was' : 'goes' }, { place: after, what: before ? 'will be' : 'comes' }] as { place, what } (what)}
		{#if place}
			<span class="block">
				<span class="figure text-soft">{what}</span>
				<b>{capital(said(place.placement))}</b>, {WHERE[place.where]}
				<code class="figure">{place.selector}</code>, {pagesSaid(place.pages)}
			</span>
		{/if}
	{/each}
{/snippet}

{#if release.data}
	<div class="release">
		<section class="px-6 pt-5 pb-8" aria-label="What changes">
			<h1 class="text-xl">
				{#if first}Nothing is released yet. Shoppers see the shop’s own buttons.
				{:else if !release.data.is_other}Shoppers see what the draft says.
				{:else if release.data.changes.length}{many(release.data.changes.length, 'kind')} of buttons would change.
				{:else if release.data.places.length}Buttons would stand in other places.
				{:else}The draft differs in what no shopper sees yet.{/if}
			</h1>
			{#if live.report && (release.data.changes.length || release.data.places.length)}
				<p class="mt-1">
					<a href="#live">
						{#if live.report.live < live.report.pages.length}<b class="text-must">▲</b>{/if}
						Release <span class="figure">{live.report.release}</span> is {live.report.sentence}</a
					>.
				</p>
			{/if}
			{#if outside.data?.differing}
				<p class="mt-1">
					<b class="text-look">◇ {many(outside.data.differing, 'button')} handed out</b>
					{outside.data.differing === 1 ? 'looks' : 'look'} otherwise than the draft: {listed(differing)}.
					<a class="underline" href={context.href('/release/outside')}>Buttons outside</a>
				</p>
			{/if}
			{#if release.data.places.length}
				<ul class="mt-3" aria-label="Places that would change">
					{#each release.data.places as { before, after }, n (n)}
						<li class="py-1">{@render placeOf(before, after)}</li>
					{/each}
				</ul>
			{/if}
			<VirtualRows
				items={release.data.changes}
				key={(_, n) => String(n)}
				tag="article"
				about={150}
				rowClass={() => 'change'}
				row={changeOf}
			/>
			{#if workshop.info}
				<h2 class="mt-8 text-md">Install snippet</h2>
				<p class="text-soft">
					One line for the head of every page of the shop. Releases arrive through it; nothing else of the shop changes.
				</p>
				<p class="mt-2 flex items-center gap-3">
					<code class="figure overflow-x-auto border border-hair bg-leaf px-3 py-2">{workshop.info.snippet}</code>
					<Copy small text={workshop.info?.snippet ?? ''} />
				</p>
			{/if}
			<h2 class="mt-8 text-md">Buttons outside the shop</h2>
			<p class="text-soft">
				{#if outside.data?.count}
					{many(outside.data.count, 'button')} handed out for mails, posts, partner pages and print.
				{:else}Code for mails, posts, partner pages and print, without a script.{/if}
			</p>
			<p class="mt-2"><Press small href={context.href('/release/outside')}>Buttons outside</Press></p>
			<LivePagesList {live} />
		</section>
		<aside class="border-l border-hair px-6 pt-5" aria-label="Release and ledger">
			<form
				onsubmit={(event) => {
					event.preventDefault();
					void send(null);
				}}
			>
				<label class="block font-semibold" for="note">What this release is for</label>
				<input
					id="note"
					class="field mt-1 mb-3 w-full"
					maxlength="400"
					bind:value={releasing.note}
					{...workshop.told('note')}
				/>
				<Press main type="submit" disabled={!canSend || workshop.saving}>
					Release {(release.data.ledger[0]?.n ?? 0) + 1}
				</Press>
			</form>
			{#if release.data.must_fix}
				<p class="mt-3">
					<b class="text-must">▲ {many(release.data.must_fix, 'finding')} to fix first.</b>
					<a href={context.href('/')}>The floor</a> shows how to fix them.
				</p>
			{/if}
			{#if releasing.asks === 'findings_left' || releasing.asks === 'trial_underway'}
				<p class="mt-3"><Press onpress={goOn}>Release anyway</Press></p>
			{/if}
			<h2 class="mt-8 text-md">Ledger</h2>
			<ol>
				{#each release.data.ledger as entry, n (entry.n)}
					<li class="ledger-line">
						<span class="figure text-lg">{entry.n}</span>
						<span class="min-w-0 flex-1">
							<b class="block">{entry.note || 'no note'}</b>
							<span class="text-soft">{entry.author}, {moment(entry.made_at)}</span>
							<span class="figure block text-xs text-soft">{entry.hash}</span>
							{#if entry.seen}<span class="block text-sm">{entry.seen}</span>{/if}
						</span>
						{#if n === 0}<b class="current">live now</b>
						{:else}<Press small onpress={() => send(entry.n)} label="Roll back to release {entry.n}">Roll back</Press
							>{/if}
					</li>
				{:else}
					<Empty tag="li">Empty. The first release will be listed here, and can always be rolled back to.</Empty>
				{/each}
			</ol>
		</aside>
	</div>
{:else}
	<Waiting what="Comparing with the last release" error={release.error} onretry={() => release.refetch()} />
{/if}

<style>
	.release {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 400px;
		min-height: calc(100vh - 67px);
	}
	.release :global(.change) {
		display: grid;
		grid-template-columns: 176px 1fr 1fr;
		gap: 8px 20px;
		border-bottom: 1px solid var(--color-hair);
		padding: 18px 0;
	}
	.tag {
		font: 12px var(--font-mono);
		color: var(--color-soft);
		margin-bottom: 6px;
	}
	.pair {
		border-left: 2px solid var(--color-ink);
		padding-left: 12px;
		overflow: hidden;
	}
	.shown {
		display: block;
		zoom: 0.85;
	}
	.fields {
		grid-column: 2 / -1;
	}
	.ledger-line {
		display: flex;
		align-items: flex-start;
		gap: 14px;
		border-bottom: 1px solid var(--color-hair);
		padding: 12px 0;
	}
	.current {
		border-left: 5px solid var(--color-ink);
		background: var(--color-marker);
		padding: 1px 8px;
	}
	@media (max-width: 1000px) {
		.release {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
