<script lang="ts">
	import { px } from '$lib/pure/format';
	import { widest, type Dimension, type Plan } from '$lib/pure/dimensions';
	import { holdsOf } from '$lib/pure/holds';
	import { inPx, type Ground, type Length } from '$lib/pure/length';
	import type { Desk, Values } from '$lib/state/desk.svelte';
	import { Hand } from '$lib/state/hand.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Corners from './Corners.svelte';
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

	/** The sides that change with one. */
	function withPartner(path: string, value: Length): Values {
		const side = /^look\.padding\.(\w+)$/.exec(path)?.[1];
		const other = side && { left: 'right', right: 'left', top: 'bottom', bottom: 'top' }[side];
		return linked && other ? { [path]: value, [`look.padding.${other}`]: value } : { [path]: value };
	}

	/** A width that follows from words and padding is changed by its padding, one that fills its room by its most. */
	function widthOf(value: number): Values {
		if (size === 'fixed') return { 'look.size.width': value };
		if (size === 'full') return { 'look.size.most': value };
		return spread('left', 'right', value - d.outer.width);
	}
	function heightOf(value: number): Values {
		return size === 'fixed' ? { 'look.size.height': value } : spread('top', 'bottom', value - d.outer.height);
	}
	function spread(one: 'left' | 'top', other: 'right' | 'bottom', more: number): Values {
		const half = (side: 'left' | 'top' | 'right' | 'bottom') =>
			Math.max(0, Math.round((inPx(look.padding[side], ground) + more / 2) * 100) / 100);
		return { [`look.padding.${one}`]: half(one), [`look.padding.${other}`]: half(other) };
	}

	const hand = new Hand(
		() => desk,
		() => plan.stage,
	);
	const holds = $derived(holdsOf(look, d));

	/** The box of the first line, whose height is the line height. */
	const line = $derived({ top: d.words.y, bottom: d.words.y + d.line_height_px });
	const grips = $derived([
		...[...chain, ...upright].filter((one) => !one.fixed).map((one) => gripOf(one)),
		{
			name: 'width',
			d: `M${X(0)} ${Y(0) - 22}H${plan.right}`,
			axis: 'x' as const,
			hold: { start: d.outer.width, axis: 'x' as const, pull: 1, of: widthOf, bounds: [16, 1200] as [number, number] },
		},
		{
			name: 'height',
			d: `M${edge - 24} ${Y(0)}V${plan.bottom}`,
			axis: 'y' as const,
			hold: { start: d.outer.height, axis: 'y' as const, pull: 1, of: heightOf, bounds: [16, 400] as [number, number] },
		},
		{ name: 'type size', d: `M${aside} ${Y(d.cap_top_y)}V${Y(d.baseline_y)}`, axis: 'y' as const, hold: holds.type },
		{ name: 'line height', d: `M${aside - 11} ${Y(line.top)}V${Y(line.bottom)}`, axis: 'y' as const, hold: holds.line },
		{ name: 'border', d: `M${X(0)} ${Y(0) + 12}V${plan.bottom - 12}`, axis: 'x' as const, hold: holds.border },
	]);
	function gripOf(one: Dimension) {
		const path = one.paths[0] ?? '';
		return {
			name: one.name,
			d: `M${one.from.x} ${one.from.y}L${one.to.x} ${one.to.y}`,
			axis: one.axis,
			hold: {
				start: inPx(one.value, ground),
				axis: one.axis,
				pull: one.pull,
				of: (value: number) => withPartner(path, value),
				bounds: [one.least, one.most] as [number, number],
			},
		};
	}
	const ends = (one: Dimension) =>
		one.axis === 'x'
			? `M${one.from.x} ${one.from.y}H${one.to.x}M${one.from.x} ${one.from.y - 5}v10M${one.to.x} ${one.from.y - 5}v10`
			: `M${one.from.x} ${one.from.y}V${one.to.y}`;
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
	{@const valuesOf = (to: Length) => (more.of && typeof to === 'number' ? more.of(to) : withPartner(path, to))}
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
				<rect
					x={X(line.x)}
					y={Y(top)}
					width={line.width * plan.stage.zoom}
					height={d.line_height_px * plan.stage.zoom}
				/>
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
			{@render figure('width', 'width', Math.round(d.outer.width * 10) / 10, 16, 1200, { of: widthOf })} px wide,
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
			{ of: heightOf },
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
	.lines path,
	.lines rect {
		fill: none;
	}
	.lines rect[fill] {
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
	.grip {
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
	.over {
		stroke: var(--color-must);
		stroke-width: 3;
		stroke-dasharray: 7 4;
	}
	.over.thin {
		stroke-width: 2;
		stroke-dasharray: none;
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
