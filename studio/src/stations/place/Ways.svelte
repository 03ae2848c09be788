<script lang="ts">
	import { waysOf, type Edges } from '$lib/pure/ways';
	import type { AlongThePage } from '$lib/state/along.svelte';

	/** Leaders from the finding that is looked at: to its stretch of the lanes, and to the window that shows it. */
	type Props = { at: AlongThePage; station?: HTMLElement };
	let { at, station }: Props = $props();
	let ways = $state.raw<string[]>([]);

	function edges(selector: string): Edges | null {
		return station?.querySelector(selector)?.getBoundingClientRect() ?? null;
	}

	function draw(): void {
		const finding = at.pointedBy?.getBoundingClientRect();
		const [below, windows] = [edges('.below'), edges('.windows')];
		if (!finding || !below || !windows) return void (ways = []);
		ways = waysOf({
			finding,
			stretch: edges('rect.pointed'),
			seen: edges('.window.chosen'),
			above: below.top - 6,
			under: windows.bottom + 5,
		});
	}

	$effect(() => {
		// The stretch is marked in the same turn.
		if (at.pointed.length || at.pointedBy) requestAnimationFrame(draw);
		else ways = [];
	});
</script>

<svelte:window onresize={draw} onscroll={draw} />

{#if ways.length}
	<svg aria-hidden="true">
		{#each ways as way (way)}
			<path d={way} />
		{/each}
	</svg>
{/if}

<style>
	svg {
		position: fixed;
		inset: 0;
		width: 100vw;
		height: 100vh;
		z-index: 20;
		pointer-events: none;
	}
	path {
		fill: none;
		stroke: var(--color-ink);
		stroke-width: 1.5;
	}
</style>
