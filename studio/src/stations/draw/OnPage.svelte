<script lang="ts">
	import { onDestroy } from 'svelte';
	import { client, data } from '$lib/api/client';
	import type { DrawView } from '$lib/api/types';
	import type { Desk } from '$lib/state/desk.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';

	type Props = { view: DrawView; desk: Desk; width: number; height: number };
	let { view, desk, width, height }: Props = $props();
	const workshop = useWorkshop();
	const windows = [
		{ name: 'phone', wide: 375, high: 812 },
		{ name: 'tablet', wide: 768, high: 1024 },
		{ name: 'desktop', wide: 1280, high: 800 },
	];
	const gap = 20;
	const scale = $derived((width - 48 - 2 * gap) / windows.reduce((sum, one) => sum + one.wide, 0));
	const origin = $derived(workshop.info?.store.origin ?? '');
	const page = $derived(workshop.info?.store.surfaces[view.placement]?.page_path || view.product.url);
	const address = $derived(
		`${origin}${page}?lang=${view.language}&up-draft=${encodeURIComponent(workshop.info?.preview ?? '')}`,
	);
	let frames = $state<HTMLIFrameElement[]>([]);
	/** How long the last edit took to stand on all pages, in milliseconds. */
	let took = $state<number | null>(null);
	let sentAt = 0;
	let drawn = 0;
	let timed = 0;
	let asked = 0;

	async function send(): Promise<void> {
		const mine = ++asked;
		const began = desk.editedAt;
		const params = { path: workshop.path };
		const body = { layer: view.layer, patch: desk.trying ?? {} };
		const asking = desk.trying
			? data(client.POST('/api/stores/{store}/draft/manifest', { params, body, parseAs: 'json' }))
			: data(client.GET('/api/stores/{store}/draft/manifest', { params, parseAs: 'json' }));
		desk.standing = asking;
		const manifest = await asking;
		// Of several edits only the newest stands.
		if (mine !== asked) return;
		drawn = 0;
		sentAt = began;
		for (const frame of frames) frame?.contentWindow?.postMessage({ up: 'draft', manifest }, origin);
	}
	function hear(event: MessageEvent): void {
		const frame = frames.find((one) => one?.contentWindow === event.source);
		if (!frame || event.origin !== origin) return;
		if (event.data?.up === 'ready')
			frame.contentWindow?.postMessage({ up: 'draft', show: view.placement, product: view.product.sku }, origin);
		if (event.data?.up !== 'drawn' || ++drawn !== frames.length || sentAt === timed) return;
		// The draft that is sent again once the edit is kept changes nothing.
		timed = sentAt;
		took = Math.round(Number(event.data.at) - sentAt);
	}
	addEventListener('message', hear);
	onDestroy(() => removeEventListener('message', hear));

	let last: unknown = null;
	$effect(() => {
		const now = desk.trying ?? view.draft.version;
		// Once an edit that stands already is kept, the draft is what the pages show.
		const isKept = typeof last === 'object' && typeof now === 'number' && workshop.problem === null;
		if (last !== null && last !== now && !isKept) void send();
		last = now;
	});
</script>

<div class="pages" style:height="{height}px">
	{#each windows as one, n (one.name)}
		<figure>
			<figcaption><b>{one.name}</b> <span class="figure text-soft">{one.wide} px</span></figcaption>
			<div class="window" style:width="{one.wide * scale}px" style:height="{Math.min(height - 40, one.high * scale)}px">
				<iframe
					bind:this={frames[n]}
					title="The shop’s page on a {one.name}"
					src={address}
					width={one.wide}
					height={Math.min(one.high, (height - 40) / scale)}
					style:transform="scale({scale})"
				></iframe>
			</div>
		</figure>
	{/each}
	<p class="took text-soft" role="status">
		<span class="figure">{scale.toFixed(2)} : 1</span>
		{#if took !== null}· the last edit stood here after <span class="figure">{took}</span> ms{:else}· edits show here at
			once, before they are released{/if}
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
