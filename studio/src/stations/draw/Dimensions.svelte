<script lang="ts">
	import { px } from '$lib/pure/format';
	import { widest, type Dimension, type Plan } from '$lib/pure/dimensions';
	import { holdsOf } from '$lib/pure/holds';
	import { inPx, type Ground, type Length } from '$lib/pure/length';
	import { heightOf, widthOf, withOpposite } from '$lib/pure/sizing';
	import type { Desk, Values } from '$lib/state/desk.svelte';
	import { Hand } from '$lib/state/hand.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Corners from './Corners.svelte';
	import DimensionLines from './DimensionLines.svelte';
	import Edges from './Edges.svelte';
	import Typeset from './Typeset.svelte';

	type Props = {
		plan: Plan;
		desk: Desk;
		width: number;
		height: number;
		ground: Ground;
		/** Equal sides change together. */
		linked: boolean;
	};
	let { plan, desk, width, height, ground, linked }: Props = $props();

	const view = $derived(plan.view);
	const d = $derived(view.shown.drawing);
	const look = $derived(view.document.look);
	const size = $derived(look.size.kind);
	const chain = $derived(plan.chained(view.seen.rtl));
	const upright = $derived(plan.upright());
	const X = (value: number) => plan.x(value);
	const Y = (value: number) => plan.y(value);
	const edge = $derived(plan.stage.edge);
	const aside = $derived(plan.end + 22);

	const change = $derived({
		of: (path: string) => (value: Length) => withOpposite(path, value, linked),
		width: (px: number) => widthOf(look, ground, d.outer.width, px),
		height: (px: number) => heightOf(look, ground, d.outer.height, px),
	});
	const hand = new Hand(
		() => desk,
		() => plan.stage,
	);
	const holds = $derived(holdsOf(look, d));

	/** The box of the first line, whose height is the line height. */
	const line = $derived({ top: d.words.y, bottom: d.words.y + d.line_height_px });
	const grips = $derived([
		...[...chain, ...upright].filter((dimension) => !dimension.fixed).map((dimension) => gripOf(dimension)),
		{
			name: 'width',
			d: `M${X(0)} ${Y(0) - 22}H${plan.right}`,
			axis: 'x' as const,
			hold: {
				start: d.outer.width,
				axis: 'x' as const,
				pull: 1,
				of: change.width,
				bounds: [16, 1200] as [number, number],
			},
		},
		{
			name: 'height',
			d: `M${edge - 24} ${Y(0)}V${plan.bottom}`,
			axis: 'y' as const,
			hold: {
				start: d.outer.height,
				axis: 'y' as const,
				pull: 1,
				of: change.height,
				bounds: [16, 400] as [number, number],
			},
		},
		{ name: 'type size', d: `M${aside} ${Y(d.cap_top_y)}V${Y(d.baseline_y)}`, axis: 'y' as const, hold: holds.type },
		{ name: 'line height', d: `M${aside - 11} ${Y(line.top)}V${Y(line.bottom)}`, axis: 'y' as const, hold: holds.line },
		{ name: 'border', d: `M${X(0)} ${Y(0) + 12}V${plan.bottom - 12}`, axis: 'x' as const, hold: holds.border },
	]);
	function gripOf(dimension: Dimension) {
		const path = dimension.paths[0] ?? '';
		return {
			name: dimension.name,
			d: `M${dimension.from.x} ${dimension.from.y}L${dimension.to.x} ${dimension.to.y}`,
			axis: dimension.axis,
			hold: {
				start: inPx(dimension.value, ground),
				axis: dimension.axis,
				pull: dimension.pull,
				of: change.of(path),
				bounds: [dimension.least, dimension.most] as [number, number],
			},
		};
	}
	const low = $derived(Math.min(plan.chain + 74, height - 14));
</script>

{#snippet figure(
	label: string,
	path: string,
	value: Length,
	least: number,
	most: number,
	more: { keepsUnits?: boolean; of?: (value: number) => Values } = {},
)}
	{@const valuesOf = (to: Length) => (more.of && typeof to === 'number' ? more.of(to) : change.of(path)(to))}
	<Figure
		{label}
		{value}
		{least}
		{most}
		{ground}
		keepsUnits={more.keepsUnits}
		marked={desk.marked === path}
		onfocus={() => desk.mark(path)}
		onset={(to: Length) => desk.setAll(valuesOf(to))}
		ontry={(to: Length) => desk.tryOut(valuesOf(to))}
	/>
{/snippet}

<svg {width} {height} class="lines" aria-hidden="true">
	<DimensionLines {plan} {desk} />
	{#each grips as grip (grip.name)}
		<path
			class={['grip', grip.axis]}
			d={grip.d}
			data-grip={grip.name}
			role="presentation"
			{@attach hand.drags(grip.hold)}
		/>
	{/each}
</svg>

<div class="labels">
	<p class="at" style:left="{(X(0) + plan.right) / 2}px" style:top="{Y(0) - 42}px">
		{#if look.size.kind === 'fixed'}
			{@render figure('width', 'look.size.width', look.size.width, 16, 1200, { keepsUnits: true })} px wide
		{:else}
			{@render figure('width', 'width', Math.round(d.outer.width * 10) / 10, 16, 1200, { of: change.width })} px wide,
			{size === 'full' ? 'all there is' : `of ${px(d.container_px)}`}
		{/if}
		{#if d.too_wide_px}<b class="text-must">▲ {px(d.too_wide_px)} too wide</b>{/if}
	</p>
	<p class="at" style:left="{edge - 58}px" style:top="{(Y(0) + plan.bottom) / 2}px">
		{@render figure(
			'height',
			size === 'fixed' ? 'look.size.height' : 'height',
			Math.round(d.outer.height * 10) / 10,
			16,
			400,
			{ of: change.height },
		)}
	</p>
	{#each upright as dimension (dimension.name)}
		<p class="at" style:left="{dimension.label.x}px" style:top="{dimension.label.y}px">
			<span class="plate"
				>{@render figure(dimension.name, dimension.paths[0] ?? '', dimension.value, 0, 400, { keepsUnits: true })}</span
			>
		</p>
	{/each}
	{#each chain as dimension (dimension.name)}
		<div class="at low" style:left="{dimension.label.x}px" style:top="{dimension.label.y}px">
			{#if dimension.fixed}
				<b class="figure">{px(widest(d))}</b>
			{:else}
				{@render figure(dimension.name, dimension.paths[0] ?? '', dimension.value, dimension.least, dimension.most, {
					keepsUnits: dimension.keepsUnits,
				})}
			{/if}
			<span class="name">{dimension.says}</span>
		</div>
	{/each}
	<div class="at side" style:left="{aside + 12}px" style:top="{(Y(d.cap_top_y) + Y(d.baseline_y)) / 2}px">
		<Typeset {view} {desk} {hand} {holds} />
	</div>
	<Corners {plan} {desk} {ground} {hand} />
	<p class="at side edge" style:left="{edge - 20}px" style:top="{low}px">
		<Edges {desk} {look} {hand} {holds} />
	</p>
</div>

<style>
	.lines,
	.labels {
		position: absolute;
		inset: 0;
		pointer-events: none;
	}
	.grip {
		fill: none;
		stroke: transparent;
		stroke-width: 14;
		pointer-events: stroke;
		touch-action: none;
	}
	.grip.x {
		cursor: ew-resize;
	}
	.grip.y {
		cursor: ns-resize;
	}
	.grip:hover {
		stroke: var(--color-marker);
		mix-blend-mode: multiply;
	}
	.at {
		position: absolute;
		transform: translate(-50%, -50%);
		white-space: nowrap;
		pointer-events: auto;
		font-size: 15px;
	}
	.at.low {
		transform: translate(-50%, 0);
		display: grid;
		justify-items: center;
	}
	.at.side {
		transform: translate(0, -50%);
		font-size: 13px;
		line-height: 1.5;
	}
	.at.low {
		background: var(--color-leaf);
	}
	.at.edge {
		display: flex;
		align-items: baseline;
		gap: 5px;
	}
	.name {
		font-size: 12px;
		color: var(--color-soft);
	}
	.plate {
		background: var(--color-leaf);
		padding: 0 3px;
		font-size: 12px;
	}
</style>
