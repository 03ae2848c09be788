<script lang="ts">
	import { scaleUtc } from 'd3-scale';
	import type { Trial } from '$lib/api/types';
	import { date } from '$lib/pure/format';
	import { useWorkshop } from '$lib/state/workshop.svelte';

	const { context } = useWorkshop();

	type Props = { trials: readonly Trial[] };
	let { trials }: Props = $props();
	const DAY = 86_400_000;
	const left = 40;
	let width = $state(1200);
	const begun = $derived(trials.filter((t) => t.started_at).toReversed());
	const planned = (t: Trial) => new Date(t.started_at ?? 0).getTime() + (t.plan?.days ?? 7) * DAY;
	const ended = (t: Trial) => (t.closed_at ? new Date(t.closed_at).getTime() : Date.now());
	const span = $derived([
		Math.min(Date.now() - 14 * DAY, ...begun.map((t) => new Date(t.started_at ?? 0).getTime())) - 3 * DAY,
		Math.max(Date.now() + 14 * DAY, ...begun.map(planned)) + 3 * DAY,
	]);
	const x = $derived(
		scaleUtc()
			.domain(span)
			.range([left, width - 10]),
	);
	const days = $derived(x.ticks(Math.round((span[1]! - span[0]!) / DAY)));
	const weeks = $derived(x.ticks(8));
	const height = $derived(54 + begun.length * 34);
</script>

<div bind:clientWidth={width}>
	<svg {width} {height} role="group" aria-label="Calendar of the trials that have started">
		{#each days as day (+day)}<path class="small" d="M{x(day)} 26v6" />{/each}
		{#each weeks as week (+week)}
			{@const isLast = x(week) > width - 60}
			<path class="tick" d="M{x(week)} 20v12" />
			<!-- Beside the edge there is room on the other side only. -->
			<text x={x(week) + (isLast ? -4 : 4)} y="18" text-anchor={isLast ? 'end' : 'start'}
				>{date(week.toISOString())}</text
			>
		{/each}
		<path class="tick" d="M{left} 32H{width - 10}" />
		<path class="now" d="M{x(Date.now())} 8V{height}" />
		<text class="today" x={x(Date.now()) + 6} y={height - 2}>today</text>
		{#each begun as trial, n (trial.number)}
			{@const y = 56 + n * 34}
			{@const from = x(new Date(trial.started_at ?? 0))}
			<text class="number" x="0" y={y + 5}>{trial.number}</text>
			<path class="planned" d="M{from} {y}H{x(planned(trial))}M{x(planned(trial))} {y - 7}v14" />
			<a href={context.href(`/trials/${trial.number}`)} aria-label="Trial {trial.number}: {trial.question}">
				<path class="run" d="M{from} {y}H{x(Math.min(ended(trial), planned(trial)))}M{from} {y - 9}v18" />
				<text class="question" x={from + 8} y={y - 7}>{trial.question}</text>
			</a>
		{/each}
	</svg>
</div>

<style>
	text {
		font: 11px var(--font-mono);
		fill: var(--color-soft);
	}
	.number {
		font-size: 15px;
		fill: var(--color-ink);
	}
	.question {
		font: 600 13px var(--font-sans);
		fill: var(--color-ink);
	}
	path {
		fill: none;
		stroke: var(--color-hair);
	}
	.tick {
		stroke: var(--color-ink);
	}
	.small {
		stroke: var(--color-soft);
	}
	.now {
		stroke: var(--color-ink);
		stroke-width: 3;
	}
	.today {
		fill: var(--color-ink);
	}
	.planned {
		stroke: var(--color-soft);
		stroke-dasharray: 2 4;
		stroke-width: 2;
	}
	.run {
		stroke: var(--color-b);
		stroke-width: 4;
		stroke-dasharray: 12 4;
	}
</style>
