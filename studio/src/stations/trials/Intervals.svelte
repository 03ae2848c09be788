<script lang="ts">
	import { scaleLinear } from 'd3-scale';
	import type { TrialView } from '$lib/api/types';
	import { percent, points, tenth } from '$lib/pure/format';

	type Props = { view: TrialView };
	let { view }: Props = $props();
	const reading = $derived(view.readout?.reading);
	const worth = $derived(view.trial.plan?.difference ?? 0);
	const names = $derived(
		['clicked', 'added', 'ordered'].sort((a, b) => Number(b === view.trial.decides) - Number(a === view.trial.decides)),
	);
	const edge = $derived(
		Math.max(
			worth * 1.3,
			...Object.values(reading?.differences ?? {}).flatMap((gap) => [Math.abs(gap.low), Math.abs(gap.high)]),
		) * 1.08,
	);
	const x = $derived(scaleLinear().domain([-edge, edge]).range([390, 780]));
	const between = (of: { low: number; high: number }) => `${tenth(of.low)} to ${tenth(of.high)}`;
	const columns: Record<string, string> = { clicked: 'Clicked', added: 'Added to basket', ordered: 'Ordered' };
</script>

{#if reading}
	<table class="sr-only">
		<caption>Differences of B from A with their 95 % intervals</caption>
		<thead>
			<tr><th>Measure</th><th>A</th><th>B</th><th>Difference in points</th><th>From</th><th>To</th></tr>
		</thead>
		<tbody>
			{#each names as name (name)}
				{@const gap = reading.differences[name]}
				{#if gap}
					<tr>
						<th>{columns[name]}{name === view.trial.decides ? ', decides' : ''}</th>
						{#each ['A', 'B'] as letter (letter)}
							{@const rate = reading.rates[name]?.[letter]}
							<td>{rate ? `${percent(rate.estimate)}, ${between(rate)}` : ''}</td>
						{/each}
						<td>{points(gap.estimate, true)}</td><td>{points(gap.low, true)}</td><td>{points(gap.high, true)}</td>
					</tr>
				{/if}
			{/each}
		</tbody>
	</table>
	<svg viewBox="0 0 850 236" class="mt-4 w-full" aria-hidden="true">
		<rect class="worth" x={x(-worth)} y="34" width={x(worth) - x(-worth)} height="196" />
		{#each x.ticks(7) as tick (tick)}
			<path class="tick" d="M{x(tick)} 26v8" /><text x={x(tick)} y="18" text-anchor="middle">{points(tick)}</text>
		{/each}
		<path class="tick" d="M390 34H780M{x(0)} 26V230" />
		{#each names as name, n (name)}
			{@const gap = reading.differences[name]}
			{@const y = 70 + n * 58}
			{#if gap}
				<text class="name" x="0" {y}>{columns[name]}</text>
				<text class="soft" x="0" y={y + 18}>{name === view.trial.decides ? 'decides' : 'watched'}</text>
				{#each ['A', 'B'] as letter, m (letter)}
					{@const rate = reading.rates[name]?.[letter]}
					{#if rate}
						<text class="rate" class:b={letter === 'B'} x="150" y={y - 2 + m * 19}>{letter}</text>
						<text class="rate" x="234" y={y - 2 + m * 19} text-anchor="end">{percent(rate.estimate)}</text>
						<text class="soft" x="246" y={y - 2 + m * 19}>{between(rate)}</text>
					{/if}
				{/each}
				<path class="gap" class:decides={name === view.trial.decides} d="M{x(gap.low)} {y}H{x(gap.high)}" />
				<path class="end" d="M{x(gap.low)} {y - 7}v14M{x(gap.high)} {y - 7}v14" />
				<path class="estimate" d="M{x(gap.estimate)} {y - 12}v18" />
				<text class="value" x={x(gap.high) + 8} y={y + 5}>{points(gap.estimate, true)}</text>
			{/if}
		{/each}
	</svg>
	<p class="text-soft">
		Rates with their 95 % intervals, and the difference of B from A in points. Shaded: differences smaller than the
		<span class="figure">{points(worth).replace('+', '±')}</span> points that are worth having. An interval that reaches into
		the shade may be a small difference; one that crosses 0 may be none.
	</p>
{/if}

<style>
	text {
		font: 12px var(--font-mono);
		fill: var(--color-soft);
	}
	.name {
		font: 650 16px var(--font-sans);
		fill: var(--color-ink);
	}
	.soft {
		font: 12px var(--font-sans);
	}
	.rate {
		font-size: 14px;
		fill: var(--color-ink);
	}
	.rate.b {
		fill: var(--color-b);
		font-weight: 500;
	}
	.value {
		fill: var(--color-b);
		font-weight: 500;
		font-size: 14px;
	}
	.worth {
		fill: var(--color-hair);
		opacity: 0.5;
	}
	path {
		fill: none;
	}
	.tick {
		stroke: var(--color-ink);
	}
	.gap {
		stroke: var(--color-b);
		stroke-width: 2.5;
		stroke-dasharray: 8 3;
	}
	.gap.decides {
		stroke-width: 4;
	}
	.end,
	.estimate {
		stroke: var(--color-b);
		stroke-width: 3;
	}
	.estimate {
		stroke-width: 5;
	}
</style>
