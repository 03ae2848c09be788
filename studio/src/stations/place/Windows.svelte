<script lang="ts">
	import type { Device } from '$lib/api/types';
	import { DEVICES, WINDOW_HEIGHTS_PX, WINDOWS_PX } from '$lib/pure/facts';
	import type { AlongThePage } from '$lib/state/along.svelte';
	import type { Desk } from '$lib/state/desk.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import FloatingGrip from './FloatingGrip.svelte';

	type Props = {
		at: AlongThePage;
		device: Device;
		desk: Desk;
		/** The placement that is edited. */
		standing?: string;
		/** The page's name; nothing before it is known. */
		name?: string;
		/** How high each window is drawn, in pixels; all are equally high, each at a scale of its own. */
		high: number;
	};
	let { at, device, desk, standing, name, high }: Props = $props();
	const { context } = useWorkshop();
</script>

<div class="windows">
	{#each DEVICES as seen (seen)}
		{@const scale = high / WINDOW_HEIGHTS_PX[seen]}
		<figure style:width="{WINDOWS_PX[seen] * scale}px">
			<figcaption>
				<button class="name" aria-pressed={seen === device} onclick={() => context.look({ device: seen })}
					>{seen}</button
				>
				<span class="figure text-sm text-soft"
					>{WINDOWS_PX[seen]} × {WINDOW_HEIGHTS_PX[seen]}<br />{scale.toFixed(2)} : 1</span
				>
			</figcaption>
			<div
				class="window"
				class:chosen={seen === device}
				style:width="{WINDOWS_PX[seen] * scale}px"
				style:height="{high}px"
			>
				{#if name !== undefined}
					{#key at.address}
						<iframe
							bind:this={at.pages[seen].frame}
							title="{name} on a {seen}"
							src={at.address}
							{@attach () => void at.opened(seen)}
							width={WINDOWS_PX[seen]}
							height={WINDOW_HEIGHTS_PX[seen]}
							style:transform="scale({scale})"
						></iframe>
					{/key}
				{/if}
				{#if standing === 'floating' && desk.view?.seen.placement === 'floating' && at.surveys[seen]?.floating}
					<FloatingGrip {desk} view={desk.view} device={seen} box={at.surveys[seen].floating} {scale} />
				{/if}
			</div>
		</figure>
	{/each}
</div>

<style>
	.windows {
		display: flex;
		gap: 20px;
		align-items: flex-start;
	}
	figure {
		margin: 0;
	}
	figcaption {
		display: flex;
		align-items: flex-start;
		line-height: 1.25;
		gap: 6px;
		margin-bottom: 4px;
		white-space: nowrap;
		overflow: hidden;
	}
	.name {
		font-weight: 650;
		border-bottom: 2px solid transparent;
	}
	.name[aria-pressed='true'] {
		border-color: var(--color-ink);
	}
	.window {
		position: relative;
		overflow: hidden;
		outline: 1px solid var(--color-hair);
		background: var(--color-leaf);
	}
	.window.chosen {
		outline: 2px solid var(--color-ink);
	}
	iframe {
		border: 0;
		transform-origin: 0 0;
	}
</style>
