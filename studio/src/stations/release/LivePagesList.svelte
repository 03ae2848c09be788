<script lang="ts">
	import { moment } from '$lib/pure/format';
	import type { LivePages, PageCheck } from '$lib/state/live_pages.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';

	type Props = { live: LivePages };
	let { live }: Props = $props();
	const report = $derived(live.report);
	const isLive = (page: PageCheck) => page.lines.every((line) => line.weight !== 'broken');
	const all = $derived(report ? report.live === report.pages.length : false);
	/** What is as it should be is said in one breath. */
	const well = (page: PageCheck) =>
		page.lines
			.filter((line) => line.weight === 'well')
			.map((line) => line.says)
			.join(' ');
</script>

<h2 class="mt-8 text-md" id="live">Live pages</h2>
{#if live.isLooking}
	<Waiting what="Looking at one page of every kind" />
{:else if live.problem}
	<p class="mt-1 text-must" role="alert">▲ {live.problem}</p>
{:else if report}
	<p class="mt-1" role="status">
		{#if all}Release <span class="figure">{report.release}</span> is live on all
			<span class="figure">{report.pages.length}</span> kinds of page.
		{:else}<b class="text-must"
				>▲ Release <span class="figure">{report.release}</span> is live on
				<span class="figure">{report.live}</span> of <span class="figure">{report.pages.length}</span> kinds of page.</b
			>{/if}
		<span class="text-soft">Looked at {moment(report.made_at)}.</span>
	</p>
	<ul class="mt-2" aria-label="Kinds of page">
		{#each report.pages as page, n (n)}
			<li class="page">
				<span class="figure mark" class:text-must={!isLive(page)} aria-label={isLive(page) ? 'live' : 'not live'}
					>{isLive(page) ? '|' : '▲'}</span
				>
				<span>
					<b>{page.kind}</b> <span class="figure text-soft">{page.path}</span>
					{#each page.lines.filter((line) => line.weight !== 'well') as line, n (n)}
						<span class={['block', line.weight === 'broken' && 'text-must']}>
							{line.weight === 'broken' ? '▲' : '–'}
							{line.says} <span class="text-ink">{line.to_do}</span>
						</span>
					{/each}
					<span class="block text-soft">{well(page)}</span>
				</span>
			</li>
		{/each}
	</ul>
{:else}
	<p class="mt-1 text-soft">Nobody has looked yet whether the shop’s pages show what is released.</p>
{/if}
<p class="mt-3">
	<Press small disabled={live.isLooking} onpress={() => live.look('asked')}>Look at the live pages</Press>
</p>

<style>
	.page {
		display: grid;
		grid-template-columns: 20px minmax(0, 1fr);
		gap: 4px;
		border-bottom: 1px solid var(--color-hair);
		padding: 8px 0;
	}
	.mark {
		font-weight: 700;
	}
</style>
