<script lang="ts">
	import { many } from '$lib/pure/format';
	import { KEPT } from '$lib/pure/places';
	import type { PointingAt } from '$lib/state/pointing.svelte';
	import Progress from '$lib/ui/Progress.svelte';

	type Props = { at: PointingAt };
	let { at }: Props = $props();
	const MARK = { well: '·', note: '◇', broken: '▲' } as const;
	/** Why places of the page that is seen keep the shop's own button, each reason once. */
	const kept = $derived.by(() => {
		const byPlace: Record<string, number> = {};
		for (const place of at.taken?.places ?? [])
			if (!place.stands && place.kept) byPlace[place.kept] = (byPlace[place.kept] ?? 0) + 1;
		return Object.entries(byPlace);
	});
	const standing = $derived((at.taken?.places ?? []).filter(({ stands }) => stands).length);
	const weight = $derived(at.survey?.weight);
</script>

<div class="mt-3 border-t border-hair pt-3">
	{#if at.taken}
		<p>
			On the page that is seen {many(standing, 'button')}
			{standing === 1 ? 'stands' : 'stand'}{at.taken.count > standing && !kept.length ? ', once they come near' : ''}.
			{#each kept as [why, count] (why)}
				<span class="text-look"
					>◇ {count}
					{why === 'told' || why === 'nothing seen' ? 'stays empty' : 'keep the shop’s own'}: {KEPT[why] ?? why}.</span
				>
			{/each}
		</p>
	{/if}
	{#if at.survey}
		<p role="status" class={['mt-2 text-md font-semibold', weight === 'broken' && 'text-must']}>
			{weight === 'broken' ? '▲ ' : ''}{at.survey.says}
		</p>
		<ul class="mt-2" aria-label="Pages that were looked at">
			{#each at.survey.pages as line, n (n)}
				<li class="row">
					<span class={[line.weight === 'broken' && 'text-must', line.weight === 'note' && 'text-look']}
						>{MARK[line.weight]}</span
					>
					<button class="figure path" onclick={() => (at.path = line.path)} title="Look at this page"
						>{line.path}</button
					>
					<span>{line.says} <span class="text-soft">{line.to_do}</span></span>
				</li>
			{/each}
			{#each at.silent as path, n (n)}
				<li class="row">
					<span class="text-look">◇</span>
					<span class="figure path">{path}</span>
					<span
						>It did not answer in 8 s. <span class="text-soft">Our line is not on it, or it may not be framed.</span
						></span
					>
				</li>
			{/each}
		</ul>
	{:else}
		<p class="mt-2 text-soft" role="status">
			Looking at the shop’s pages, <span class="figure">{at.looked.done}</span> of
			<span class="figure">{at.looked.of}</span>…
		</p>
		<Progress label="Looking at the shop’s pages" done={at.looked.done} of={at.looked.of} />
	{/if}
</div>

<style>
	.row {
		display: grid;
		grid-template-columns: 14px 120px 1fr;
		align-items: start;
		gap: 6px;
		padding: 3px 0;
	}
	.path {
		overflow: hidden;
		text-align: start;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	button.path {
		text-decoration: underline;
		text-underline-offset: 3px;
	}
</style>
