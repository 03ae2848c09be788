<script lang="ts">
	import type { DrawView } from '$lib/api/types';
	import type { Desk } from '$lib/state/desk.svelte';
	import { ShopPages } from '$lib/state/shop_pages.svelte';
	import { DEVICES, WINDOW_HEIGHTS_PX, WINDOWS_PX } from '$lib/pure/facts';
	import { useWorkshop } from '$lib/state/workshop.svelte';

	type Props = { view: DrawView; desk: Desk; width: number; height: number };
	let { view, desk, width, height }: Props = $props();
	const workshop = useWorkshop();
	const windows = DEVICES.map((name) => ({ name, wide: WINDOWS_PX[name], high: WINDOW_HEIGHTS_PX[name] }));
	const gap = 20;
	const scale = $derived((width - 48 - 2 * gap) / windows.reduce((sum, pageWindow) => sum + pageWindow.wide, 0));
	// svelte-ignore state_referenced_locally
	const pages = new ShopPages(workshop, desk, () => view);
</script>

<div class="pages" style:height="{height}px">
	{#each windows as window (window.name)}
		<figure>
			<figcaption><b>{window.name}</b> <span class="figure text-soft">{window.wide} px</span></figcaption>
			<div
				class="window"
				style:width="{window.wide * scale}px"
				style:height="{Math.min(height - 40, window.high * scale)}px"
			>
				<iframe
					bind:this={pages.pages[window.name].frame}
					title="The shop’s page on a {window.name}"
					src={pages.address}
					width={window.wide}
					height={Math.min(window.high, (height - 40) / scale)}
					style:transform="scale({scale})"
				></iframe>
			</div>
		</figure>
	{/each}
	<p class="took text-soft" role="status">
		<span class="figure">{scale.toFixed(2)} : 1</span>
		{#if pages.took !== null}· the last edit stood here after <span class="figure">{pages.took}</span> ms{:else}· edits
			show here at once, before they are released{/if}
	</p>
</div>

<style>
	.pages {
		position: relative;
		display: flex;
		gap: 20px;
		align-items: flex-start;
		padding: 8px 24px 0;
	}
	figure {
		margin: 0;
	}
	figcaption {
		margin-bottom: 4px;
	}
	.window {
		overflow: hidden;
		border: 1px solid var(--color-ink);
		background: var(--color-leaf);
	}
	iframe {
		border: 0;
		transform-origin: 0 0;
	}
	.took {
		position: absolute;
		right: 24px;
		top: 8px;
	}
</style>
