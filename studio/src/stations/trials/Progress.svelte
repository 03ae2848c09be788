<script lang="ts">
	import type { TrialView } from '$lib/api/types';
	import { count, date } from '$lib/pure/format';

	type Props = { view: TrialView };
	let { view }: Props = $props();
	const progress = $derived(view.readout?.progress);
	const share = $derived(progress ? Math.min(1, progress.timed_up / progress.planned) : 0);
</script>

{#if progress}
	<svg
		viewBox="0 0 850 74"
		class="mt-4 w-full"
		role="img"
		aria-label="{count(progress.timed_up)} of {count(progress.planned)} shoppers"
	>
		{#each Array.from({ length: 41 }, (_, n) => n) as n (n)}
			<path class={n % 10 ? 'small' : 'tick'} d="M{10 + n * 20.75} {n % 10 ? 32 : 24}V40" />
		{/each}
		<path class="tick" d="M10 40H840" />
		<path class="done" d="M10 48H{10 + 830 * share}" />
		<path class="stand" d="M{10 + 830 * share} 16V58" />
		<text x={10 + 830 * share + (share > 0.7 ? -10 : 10)} y="16" text-anchor={share > 0.7 ? 'end' : 'start'}
			>{count(progress.timed_up)} whose time is up</text
		>
		<text x="840" y="72" text-anchor="end">{count(progress.planned)} planned</text>
		<text x="10" y="72">{date(view.trial.started_at ?? '')}, start</text>
	</svg>
	<p class="text-soft">
		<span class="figure">{count(progress.inside)}</span> more have come in and are still followed, each for
		<span class="figure">{view.trial.window_days}</span> days.
	</p>
{/if}

<style>
	text {
		font: 12px var(--font-mono);
		fill: var(--color-soft);
	}
	path {
		fill: none;
		stroke: var(--color-soft);
	}
	.tick {
		stroke: var(--color-ink);
	}
	.done {
		stroke: var(--color-ink);
		stroke-width: 6;
	}
	.stand {
		stroke: var(--color-ink);
		stroke-width: 5;
	}
</style>
