<script lang="ts">
	import { scaleLinear } from 'd3-scale';
	import { line } from 'd3-shape';
	import type { TrialView } from '$lib/api/types';
	import { count, percent, tenth } from '$lib/pure/format';

	type Props = { view: TrialView };
	let { view }: Props = $props();
	const planned = $derived(view.planned);
	const curve = $derived((planned.curve ?? []).map(({ relative, plan }) => ({ relative, days: plan.days })));
	const most = $derived(Math.min(400, Math.max(28, ...curve.map((c) => c.days))));
	const x = scaleLinear().domain([0, 0.55]).range([44, 560]);
	const y = $derived(scaleLinear().domain([0, most]).range([150, 14]));
	const path = $derived(
		line<{ relative: number; days: number }>()
			.x((c) => x(c.relative))
			.y((c) => y(Math.min(most, c.days)))(curve.filter((c) => c.days <= most)) ?? '',
	);
	const weeks = $derived(y.ticks(5));
</script>

{#if planned.plan}
	<p class="text-md">
		Now <b class="figure">{percent(planned.rate)}</b> of shoppers do it{#if planned.followed}, as
			<span class="figure">{count(planned.followed)}</span> followed lately tell{/if}. To see a difference of
		<b class="figure">{tenth(planned.plan.difference)}</b> points either way, each version needs
		<b class="figure">{count(planned.plan.per_version)}</b> shoppers,
		<b class="figure">{count(planned.plan.total)}</b> together. At
		<b class="figure">{count(planned.pace)}</b> new shoppers a day that takes
		<b class="figure">{planned.plan.days}</b> days, in whole weeks.
	</p>
	{#if curve.length}
		<table class="sr-only">
			<caption>Days needed by the smallest difference worth having</caption>
			<thead><tr><th>Smallest difference, of what A does</th><th>Days</th></tr></thead>
			<tbody>
				{#each curve as c, n (n)}<tr><th>{Math.round(c.relative * 100)} %</th><td>{c.days}</td></tr>{/each}
			</tbody>
		</table>
		<svg viewBox="0 0 600 190" class="mt-3 w-full max-w-2xl" aria-hidden="true">
			{#each weeks as days (days)}
				<path class="small" d="M38 {y(days)}h6" /><text x="34" y={y(days) + 4} text-anchor="end">{days}</text>
			{/each}
			<path class="tick" d="M44 14V150H560" />
			{#each curve as c, n (n)}
				<path class="small" d="M{x(c.relative)} 150v6" />
				<text x={x(c.relative)} y="168" text-anchor="middle">{Math.round(c.relative * 100)} %</text>
				{#if c.days <= most}<circle cx={x(c.relative)} cy={y(c.days)} r="3" />
					<text x={x(c.relative) + 6} y={y(c.days) - 5}>{c.days}</text>{/if}
			{/each}
			<path class="curve" d={path} />
			<path class="chosen" d="M{x(view.trial.relative_difference)} 150V{y(Math.min(most, planned.plan.days))}" />
			<text x="44" y="186">smallest difference worth having, of what A does; upward the days it takes</text>
		</svg>
	{/if}
{:else}
	<p class="text-md"><b class="text-look">◇ No plan yet.</b> {planned.why_not}</p>
{/if}

<style>
	text {
		font: 11px var(--font-mono);
		fill: var(--color-soft);
	}
	path {
		fill: none;
	}
	.tick,
	.small {
		stroke: var(--color-ink);
	}
	.curve {
		stroke: var(--color-b);
		stroke-width: 2.5;
		stroke-dasharray: 8 3;
	}
	circle {
		fill: var(--color-b);
	}
	.chosen {
		stroke: var(--color-ink);
		stroke-width: 4;
	}
</style>
