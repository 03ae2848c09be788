<svelte:options namespace="svg" />

<script lang="ts">
	import type { Dimension, Plan } from '$lib/pure/dimensions';
	import type { Desk } from '$lib/state/desk.svelte';

	type Props = { plan: Plan; desk: Desk };
	let { plan, desk }: Props = $props();
	const d = $derived(plan.view.shown.drawing);
	const chain = $derived(plan.chained(plan.view.seen.rtl));
	const X = (value: number) => plan.x(value);
	const Y = (value: number) => plan.y(value);
	const edge = $derived(plan.stage.edge);
	const aside = $derived(plan.end + 22);
	/** The box of the first line, whose height is the line height. */
	const line = $derived({ top: d.words.y, bottom: d.words.y + d.line_height_px });

	const ends = (dimension: Dimension) =>
		dimension.axis === 'x'
			? `M${dimension.from.x} ${dimension.from.y}H${dimension.to.x}M${dimension.from.x} ${dimension.from.y - 5}v10M${dimension.to.x} ${dimension.from.y - 5}v10`
			: `M${dimension.from.x} ${dimension.from.y}V${dimension.to.y}`;
</script>

<defs>
	<pattern id="hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
		<path d="M0 0v6" class="casing" /><path d="M3 0v6" class="hatch" />
	</pattern>
</defs>
{#each [[d.border.left, d.content.x], [d.content.x + d.content.width, d.outer.width - d.border.right]] as [from, to], n (n)}
	<rect
		x={X(from ?? 0)}
		y={Y(d.border.top)}
		width={Math.max(0, X(to ?? 0) - X(from ?? 0))}
		height={Math.max(0, (d.outer.height - d.border.top - d.border.bottom) * plan.stage.zoom)}
		fill="url(#hatch)"
	/>
{/each}
{#each ['casing', 'outline'] as layer (layer)}
	<g class={layer}>
		{#each d.lines as line, n (n)}
			{@const top = d.words.y + n * d.line_height_px}
			{@const down = n * d.line_height_px}
			<rect x={X(line.x)} y={Y(top)} width={line.width * plan.stage.zoom} height={d.line_height_px * plan.stage.zoom} />
			<path d="M{X(line.x)} {Y(d.baseline_y + down)}h{line.width * plan.stage.zoom}" />
			<path d="M{X(line.x)} {Y(d.cap_top_y + down)}h{line.width * plan.stage.zoom}" />
		{/each}
	</g>
{/each}
{#if d.quantity}
	<rect
		class="guide"
		x={X(d.quantity.x)}
		y={Y(d.quantity.y)}
		width={d.quantity.width * plan.stage.zoom}
		height={d.quantity.height * plan.stage.zoom}
	/>
{/if}
{#if d.second}
	{@const o = d.second.outer}
	<path class="guide" d="M{X(Math.min(0, o.x)) - 10} {Y(o.y)}H{X(Math.max(d.outer.width, o.x + o.width)) + 10}" />
	<path
		class="guide"
		d="M{X(Math.min(0, o.x)) - 10} {Y(o.y + o.height)}H{X(Math.max(d.outer.width, o.x + o.width)) + 10}"
	/>
{/if}

<path class="dim" d="M{X(0)} {Y(0) - 22}H{plan.right}M{X(0)} {Y(0) - 28}v12M{plan.right} {Y(0) - 28}v12" />
<path class="dim" d="M{edge - 24} {Y(0)}V{plan.bottom}M{edge - 30} {Y(0)}h12M{edge - 30} {plan.bottom}h12" />
{#each chain as dimension (dimension.name)}
	<path class="dim" d={ends(dimension)} class:marked={dimension.paths.includes(desk.marked)} />
	<path
		class="leader"
		d="M{(dimension.from.x + dimension.to.x) / 2} {plan.chain}L{dimension.label.x} {plan.chain + 14}"
	/>
{/each}
<path
	class="dim"
	d="M{aside} {Y(d.cap_top_y)}V{Y(d.baseline_y)}M{aside - 6} {Y(d.cap_top_y)}h12M{aside - 6} {Y(d.baseline_y)}h12"
/>
<path
	class="dim thin"
	d="M{aside - 11} {Y(line.top)}V{Y(line.bottom)}M{aside - 14} {Y(line.top)}h6M{aside - 14} {Y(line.bottom)}h6"
	class:marked={desk.marked === 'look.type.line'}
/>
{#if d.too_wide_px}
	{@const at = X(Math.min(d.container_px, d.outer.width))}
	<path class="over" d="M{at} {Y(0) - 18}V{plan.bottom + 18}" />
	{#if d.needs_width_px > d.outer.width}
		<path
			class="over thin"
			d="M{X((d.outer.width - d.needs_width_px) / 2)} {Y(0) - 4}H{X((d.outer.width + d.needs_width_px) / 2)}"
		/>
	{/if}
{/if}
{#if d.too_high_px}
	<path class="over" d="M{X(0) - 12} {plan.bottom}H{plan.right + 12}" />
{/if}

<style>
	path,
	rect {
		fill: none;
	}
	rect[fill] {
		fill: url(#hatch);
	}
	.hatch {
		stroke: var(--color-leaf);
		stroke-width: 1;
		opacity: 0.4;
	}
	pattern .casing {
		stroke: var(--color-ink);
		opacity: 0.3;
	}
	g.casing {
		stroke: var(--color-ink);
		stroke-width: 2.5;
		opacity: 0.55;
	}
	g.outline {
		stroke: var(--color-leaf);
		stroke-dasharray: 4 3;
	}
	.guide {
		stroke: var(--color-soft);
		stroke-dasharray: 2 3;
	}
	.dim {
		stroke: var(--color-ink);
		stroke-width: 1.25;
	}
	.dim.thin {
		stroke: var(--color-soft);
		stroke-width: 1;
	}
	.dim.marked {
		stroke-width: 3;
	}
	.leader {
		stroke: var(--color-soft);
	}
	.over {
		stroke: var(--color-must);
		stroke-width: 3;
		stroke-dasharray: 7 4;
	}
	.over.thin {
		stroke-width: 2;
		stroke-dasharray: none;
	}
</style>
