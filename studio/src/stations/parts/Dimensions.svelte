<script lang="ts">
	import type { DrawView } from '$lib/api/types';
	import { px } from '$lib/pure/format';
	import { apart, type Stage } from '$lib/pure/stage';
	import type { Desk } from '$lib/state/desk.svelte';
	import Figure from '$lib/ui/Figure.svelte';

	type Props = {
		view: DrawView;
		desk: Desk;
		stage: Stage;
		width: number;
		height: number;
	};
	let { view, desk, stage, width, height }: Props = $props();

	const d = $derived(view.drawing);
	const look = $derived(
		view.document.look as { size: { kind: string }; padding: Record<string, number>; radius: number },
	);
	const icon = $derived(view.document.icon as { kind: string; size_px: number; gap_px: number; side: string });
	const fixed = $derived(look.size.kind === 'fixed');
	const X = (value: number) => stage.x + value * stage.zoom;
	const Y = (value: number) => stage.y + value * stage.zoom;
	const right = $derived(X(d.outer.width));
	const bottom = $derived(Y(d.outer.height));
	const chain = $derived(bottom + 26);
	const pad = $derived(d.padding);

	/** The pieces of the lower chain, from left to right: where each begins and ends. */
	const pieces = $derived.by(() => {
		const words = { name: 'words', from: d.words.x, to: d.words.x + d.words.width };
		const found = [{ name: 'padding left', from: 0, to: pad.left }, words];
		found.push({ name: 'padding right', from: d.outer.width - pad.right, to: d.outer.width });
		if (d.icon) {
			const before = icon.side === 'before';
			const edge = d.icon.x + d.icon.width;
			const shape = { name: 'icon', from: d.icon.x, to: edge };
			const gap = before ? { name: 'gap', from: edge, to: d.words.x } : { name: 'gap', from: words.to, to: d.icon.x };
			found.splice(before ? 1 : 2, 0, ...(before ? [shape, gap] : [gap, shape]));
		}
		return found;
	});
	const centres = $derived(
		apart(
			pieces.map((piece) => (X(piece.from) + X(piece.to)) / 2),
			66,
		),
	);
</script>

<svg {width} {height} class="lines" aria-hidden="true">
	<defs>
		<pattern id="hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
			<path d="M0 0v6" class="casing" /><path d="M3 0v6" class="hatch" />
		</pattern>
	</defs>
	<rect x={X(0)} y={Y(0)} width={pad.left * stage.zoom} height={d.outer.height * stage.zoom} fill="url(#hatch)" />
	<rect
		x={X(d.outer.width - pad.right)}
		y={Y(0)}
		width={pad.right * stage.zoom}
		height={d.outer.height * stage.zoom}
		fill="url(#hatch)"
	/>
	{#each ['casing', 'outline'] as layer (layer)}
		<g class={layer}>
			<rect x={X(d.words.x)} y={Y(d.words.y)} width={d.words.width * stage.zoom} height={d.words.height * stage.zoom} />
			<path d="M{X(d.words.x)} {Y(d.baseline_y)}h{d.words.width * stage.zoom}" />
			<path d="M{X(d.words.x)} {Y(d.cap_top_y)}h{d.words.width * stage.zoom}" />
		</g>
	{/each}

	<path class="dim" d="M{X(0)} {Y(0) - 22}H{right}M{X(0)} {Y(0) - 28}v12M{right} {Y(0) - 28}v12" />
	<path class="dim" d="M{stage.edge - 24} {Y(0)}V{bottom}M{stage.edge - 30} {Y(0)}h12M{stage.edge - 30} {bottom}h12" />
	{#each pieces as piece, n (piece.name)}
		<path
			class="dim"
			d="M{X(piece.from)} {chain}H{X(piece.to)}M{X(piece.from)} {chain - 5}v10M{X(piece.to)} {chain - 5}v10"
		/>
		<path class="leader" d="M{(X(piece.from) + X(piece.to)) / 2} {chain}L{centres[n]} {chain + 14}" />
	{/each}
	<path
		class="dim"
		d="M{right + 18} {Y(d.cap_top_y)}V{Y(d.baseline_y)}M{right + 12} {Y(d.cap_top_y)}h12M{right + 12} {Y(
			d.baseline_y,
		)}h12"
	/>
	<path
		class="leader"
		d="M{X(d.outer.width) - look.radius * stage.zoom * 0.3} {Y(0) + look.radius * stage.zoom * 0.3}L{right +
			26} {Y(0) - 22}h30"
	/>
	{#if d.too_wide_px}
		<path class="over" d="M{X(Math.min(d.container_px, d.outer.width))} {Y(0) - 18}V{bottom + 18}" />
	{/if}
	{#if d.too_high_px}
		<path class="over" d="M{X(0) - 12} {bottom}H{right + 12}" />
	{/if}
</svg>

<div class="labels">
	<p class="at" style:left="{(X(0) + right) / 2}px" style:top="{Y(0) - 42}px">
		{#if fixed}
			<Figure
				label="width"
				value={d.outer.width}
				least={16}
				most={1200}
				marked={desk.marked === 'look.size.width'}
				onfocus={() => desk.mark('look.size.width')}
				onset={(value) => desk.set('look.size.width', value)}
			/>
			px wide
		{:else}
			<b class="figure">{px(d.outer.width)}</b> px wide, {look.size.kind === 'full'
				? 'all there is'
				: `of ${px(d.container_px)}`}
		{/if}
	</p>
	<p class="at" style:left="{stage.edge - 58}px" style:top="{(Y(0) + bottom) / 2}px">
		{#if fixed}
			<Figure
				label="height"
				value={d.outer.height}
				least={16}
				marked={desk.marked === 'look.size.height'}
				onfocus={() => desk.mark('look.size.height')}
				onset={(value) => desk.set('look.size.height', value)}
			/>
		{:else}
			<b class="figure">{px(d.outer.height)}</b>
		{/if}
	</p>
	{#each ['top', 'bottom'] as side (side)}
		{@const high = pad[side as 'top']}
		<p
			class="at"
			style:left="{X(d.outer.width / 2)}px"
			style:top="{side === 'top'
				? Math.max(Y(high / 2), Y(0) + 10)
				: Math.min(Y(d.outer.height - high / 2), bottom - 10)}px"
		>
			<span class="plate">
				<Figure
					label="padding {side === 'top' ? 'above' : 'below'}"
					value={high}
					marked={desk.marked === `look.padding.${side}`}
					onfocus={() => desk.mark(`look.padding.${side}`)}
					onset={(value) => desk.set(`look.padding.${side}`, value)}
				/>
			</span>
		</p>
	{/each}
	{#each pieces as piece, n (piece.name)}
		<div class="at low" style:left="{centres[n]}px" style:top="{chain + 16}px">
			{#if piece.name === 'words'}
				<b class="figure">{px(d.words.width)}</b>
			{:else}
				{@const path =
					{
						'padding left': 'look.padding.left',
						'padding right': 'look.padding.right',
						icon: 'icon.size_px',
						gap: 'icon.gap_px',
					}[piece.name] ?? ''}
				<Figure
					label={piece.name}
					value={{ 'padding left': pad.left, 'padding right': pad.right, icon: icon.size_px, gap: icon.gap_px }[
						piece.name
					] ?? 0}
					least={piece.name === 'icon' ? 8 : 0}
					most={piece.name === 'icon' ? 96 : piece.name === 'gap' ? 64 : 400}
					marked={desk.marked === path}
					onfocus={() => desk.mark(path)}
					onset={(value) => desk.set(path, value)}
				/>
			{/if}
			<span class="name">{piece.name.replace(' left', '').replace(' right', '')}</span>
		</div>
	{/each}
	<p class="at side" style:left="{right + 32}px" style:top="{(Y(d.cap_top_y) + Y(d.baseline_y)) / 2}px">
		cap <span class="figure">{px(d.baseline_y - d.cap_top_y)}</span>
	</p>
	<p class="at side" style:left="{right + 30}px" style:top="{Y(0) - 34}px">
		r
		<Figure
			label="corner radius"
			value={look.radius}
			marked={desk.marked === 'look.radius'}
			onfocus={() => desk.mark('look.radius')}
			onset={(value) => desk.set('look.radius', value)}
		/>
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
	.dim {
		stroke: var(--color-ink);
		stroke-width: 1.25;
	}
	.leader {
		stroke: var(--color-soft);
	}
	.over {
		stroke: var(--color-must);
		stroke-width: 3;
		stroke-dasharray: 7 4;
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
