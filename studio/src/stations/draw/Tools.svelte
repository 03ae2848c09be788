<script lang="ts">
	import { Toolbar } from 'bits-ui';
	import type { DrawingTools } from '$lib/state/drawing_tools.svelte';

	type Props = { tools: DrawingTools; zoom: number };
	let { tools, zoom }: Props = $props();
	const helps = { grid: 'pixel grid', callouts: 'callout lines', linked: 'linked sides' } as const;
	type Help = keyof typeof helps;
	const on = $derived((Object.keys(helps) as Help[]).filter((help) => tools[help]));

	function switchHelps(chosen: string[]): void {
		for (const help of Object.keys(helps) as Help[]) tools[help] = chosen.includes(help);
	}
</script>

<Toolbar.Root class="drawing-tools" aria-label="Drawing tools">
	<Toolbar.Button class="value" onclick={() => (tools.onPage = !tools.onPage)}
		>{tools.onPage ? 'back to the drawing' : 'on the page'}</Toolbar.Button
	>
	{#if !tools.onPage}
		<span class="flex items-baseline gap-1">
			<Toolbar.Button class="value" aria-label="Smaller" onclick={() => tools.smaller()}>−</Toolbar.Button>
			<span class="figure whitespace-nowrap">{zoom.toFixed(1)} : 1</span>
			<Toolbar.Button class="value" aria-label="Larger" onclick={() => tools.larger()}>+</Toolbar.Button>
		</span>
		<Toolbar.Group
			type="multiple"
			class="flex items-baseline gap-4"
			aria-label="Helps"
			bind:value={() => on, (chosen) => switchHelps(chosen)}
		>
			{#each Object.entries(helps) as [help, says] (help)}
				<Toolbar.GroupItem value={help} class="value">{says}</Toolbar.GroupItem>
			{/each}
		</Toolbar.Group>
		<span class="text-soft">Drag a dimension or its name, type into it, or step it with ↑ ↓.</span>
	{/if}
</Toolbar.Root>

<style>
	:global(.drawing-tools) {
		grid-column: 1 / -1;
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 4px 20px;
		padding: 4px 24px 6px;
		border-top: 1px solid var(--color-hair);
	}
</style>
