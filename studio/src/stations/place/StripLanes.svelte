<svelte:options namespace="svg" />

<script lang="ts">
	import type { AlongDevice } from '$lib/api/types';
	import { count } from '$lib/pure/format';
	import { ticks, type Stretch } from '$lib/pure/scroll';
	import { laneName, STRIP, type StripPlan } from '$lib/pure/strip';

	type Props = {
		plan: StripPlan;
		along?: AlongDevice['along'];
		high: number;
		/** The window's position, whose figure has the ruler to itself. */
		now: number;
		/** How far the window can go. */
		way: number;
		/** What a finding is about. */
		pointed: readonly Stretch[];
	};
	let { plan, along, high, now, way, pointed }: Props = $props();
	const gaps = $derived((along?.gaps ?? []).filter(([a, b]) => b - a >= 1));
	const slant = $derived(plan.lanes.length > 5 ? -56 : -38);
</script>

{#each ticks(plan.pageHigh, Math.max(3, Math.floor((high - STRIP.top) / 70))) as tick (tick)}
	<line class="tick" x1={STRIP.ruler} x2={STRIP.ruler + 10} y1={plan.y(tick)} y2={plan.y(tick)} />
	{#if Math.abs(plan.y(tick) - plan.y(now)) > 18}
		<text class="mark" x={STRIP.ruler + 14} y={plan.y(tick) + 4}>{count(tick)}</text>
	{/if}
{/each}
<line class="tick" x1={STRIP.ruler} x2={STRIP.ruler} y1={STRIP.top} y2={plan.y(plan.pageHigh)} />

{#each pointed as [from, to], n (n)}
	<rect
		class="pointed"
		x={STRIP.ruler}
		y={plan.y(from) - 1}
		width={plan.end + 8 - STRIP.ruler}
		height={Math.max(4, (to - from) * plan.scale + 2)}
	/>
{/each}
{#each plan.lanes as lane, n (lane.key)}
	{@const x = plan.laneX(n)}
	<text class="lane-name" transform="translate({x + 2} {STRIP.top - 8}) rotate({slant})">{laneName(lane)}</text>
	<line class="bed" x1={x} x2={x} y1={STRIP.top} y2={plan.y(way)} />
	{#each lane.spans as [from, to], n (n)}
		<rect
			class={['span', lane.kind, lane.only_up && 'only-up']}
			x={x - 3}
			y={plan.y(from)}
			width="6"
			height={Math.max(2, (to - from) * plan.scale)}
		>
			<title>{lane.name}{lane.only_up ? ', on the way up' : ''}: {count(from)} to {count(to)} px</title>
		</rect>
	{/each}
{/each}
{#each gaps as [from, to], n (n)}
	<rect
		class="gap"
		x={STRIP.lanes - 12}
		y={plan.y(from)}
		width={plan.end - STRIP.lanes + 12}
		height={Math.max(3, (to - from) * plan.scale)}
	>
		<title>No button in reach: {count(from)} to {count(to)} px</title>
	</rect>
{/each}
{#each along?.meetings ?? [] as meeting (meeting.one + meeting.other)}
	{@const [one, other] = [plan.xOf(meeting.one), plan.xOf(meeting.other)]}
	{#each meeting.spans as [from, to], n (n)}
		<rect
			class="meets"
			x={Math.min(one, other) - 8}
			y={plan.y(from)}
			width={Math.abs(other - one) + 16}
			height={Math.max(3, (to - from) * plan.scale)}
		>
			<title>{meeting.one} and {meeting.other}: {count(from)} to {count(to)} px</title>
		</rect>
	{/each}
{/each}

<style>
	.tick {
		fill: none;
		stroke: var(--color-ink);
	}
	.mark {
		font: 12px var(--font-mono);
		fill: var(--color-soft);
	}
	.lane-name {
		font-size: 12px;
		font-weight: 600;
		fill: var(--color-ink);
	}
	.bed {
		stroke: var(--color-hair);
	}
	.span {
		fill: var(--color-ink);
	}
	.span.cards {
		fill: var(--color-soft);
	}
	.span.shop {
		fill: none;
		stroke: var(--color-soft);
		stroke-dasharray: 2 3;
	}
	.span.only-up {
		fill: var(--color-paper);
		stroke: var(--color-ink);
	}
	.gap {
		fill: none;
		stroke: var(--color-look);
		stroke-dasharray: 4 3;
		pointer-events: none;
	}
	.meets {
		fill: url(#hatch);
		stroke: var(--color-must);
		stroke-dasharray: 1 0;
		fill-opacity: 0.6;
		pointer-events: none;
	}
	.pointed {
		fill: var(--color-marker);
	}
</style>
