<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import type { Tile } from '$lib/api/types';
	import type { PointingAt } from '$lib/state/pointing.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Press from '$lib/ui/Press.svelte';
	import ProductPick from '../../shared/ProductPick.svelte';

	/** One product of a row: which it is, where it stands among the others, and what of its picture stays in sight. */
	type Props = {
		tile: Tile;
		at: number;
		of: number;
		onchange: (tile: Tile) => void;
		onmove: (by: number) => void;
		onremove: () => void;
		picturesAt: PointingAt;
	};
	let { picturesAt, tile, at, of, onchange, onmove, onremove }: Props = $props();
	const workshop = useWorkshop();
	const asked = createQuery(() => workshop.ask.products(tile.sku));
	const product = $derived(asked.data?.products.find(({ sku }) => sku === tile.sku));
	const name = $derived(product?.name ?? tile.sku);
	const picture = $derived(picturesAt.thumbs[product?.picture ?? '']);
	$effect(() => {
		if (product?.picture) picturesAt.showThumb(product.picture);
	});
	const across = $derived(tile.across ?? 50);
	const down = $derived(tile.down ?? 50);
	const STEP = 5;
	const within = (value: number) => Math.round(Math.max(0, Math.min(100, value)));

	function aim(event: MouseEvent): void {
		// Pressed by the keyboard it has no spot.
		if (!event.detail) return;
		const { left, top, width, height } = (event.currentTarget as HTMLElement).getBoundingClientRect();
		onchange({
			...tile,
			across: within(((event.clientX - left) / width) * 100),
			down: within(((event.clientY - top) / height) * 100),
		});
	}

	function key(event: KeyboardEvent): void {
		const ways: Record<string, [number, number]> = {
			ArrowLeft: [-STEP, 0],
			ArrowRight: [STEP, 0],
			ArrowUp: [0, -STEP],
			ArrowDown: [0, STEP],
		};
		const way = ways[event.key];
		if (!way) return;
		event.preventDefault();
		onchange({ ...tile, across: within(across + way[0]), down: within(down + way[1]) });
	}
</script>

<li>
	{#if picture}
		<button
			class="aim"
			aria-label="Focal point of {name}: {across}% across, {down}% down. Arrow keys move it."
			title="What stays in sight when the picture is cropped: press the spot"
			onclick={aim}
			onkeydown={key}
		>
			<img src={picture} alt="" />
			<i style:left="{across}%" style:top="{down}%"></i>
		</button>
	{:else}
		<span class="text-look">◇ {asked.isFetching || picture === undefined ? 'looking' : 'no picture'}</span>
	{/if}
	<div class="min-w-0">
		<ProductPick sku={tile.sku} {name} onpick={(sku) => onchange({ sku, path: '/', across: 50, down: 50 })} />
		{#if asked.data && !product}
			<p class="text-must">▲ The catalogue has no {tile.sku} any more.</p>
		{:else if product && product.stock <= 0}
			<p class="text-look">◇ Sold out now: its button says so.</p>
		{/if}
		<p class="mt-1 flex gap-1">
			<Press small disabled={at === 0} onpress={() => onmove(-1)} label="{name} earlier">‹</Press>
			<Press small disabled={at === of - 1} onpress={() => onmove(1)} label="{name} later">›</Press>
			<Press small onpress={onremove} label="Remove {name}">Remove</Press>
		</p>
	</div>
</li>

<style>
	li {
		display: grid;
		grid-template-columns: 72px minmax(0, 1fr);
		gap: 12px;
		padding: 6px 0;
	}
	.aim {
		position: relative;
		width: 72px;
		align-self: start;
		background: var(--color-leaf);
		border: 1px solid var(--color-hair);
		cursor: crosshair;
	}
	.aim img {
		display: block;
		width: 100%;
	}
	/* A cross that is seen on light and on dark. */
	i {
		position: absolute;
		width: 11px;
		height: 11px;
		margin: -6px 0 0 -6px;
		border: 2px solid var(--color-ink);
		outline: 1px solid var(--color-leaf);
		background: var(--color-marker);
		transform: rotate(45deg);
	}
</style>
