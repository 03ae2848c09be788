<script lang="ts">
	import { many } from '$lib/pure/format';
	import type { ReachReading } from '$lib/state/reach_reading.svelte';
	import Press from '$lib/ui/Press.svelte';

	type Props = { reading: ReachReading; id?: string };
	let { reading, id = 'reach-words' }: Props = $props();
	const wrong = $derived(reading.wrong);
	const read = $derived(reading.read);
</script>

<input
	{id}
	class="field mt-1 w-full text-md"
	maxlength="4000"
	autocomplete="off"
	spellcheck="false"
	aria-invalid={wrong !== null}
	aria-describedby="{id}-means"
	bind:value={reading.words}
/>
<p id="{id}-means" class="mt-1 text-soft" aria-live="polite">
	{#if wrong}
		<span class="text-must">▲ {wrong.says}</span>
	{:else if read}
		{read.words}: <b class="text-ink">{many(read.products, 'product')}</b>{#if read.products && read.products < 7}, {read.examples.join(
				', ',
			)}{/if}
	{:else}
		Reading…
	{/if}
</p>
{#if wrong?.near.length}
	<p class="mt-1 flex flex-wrap gap-2">
		{#each wrong.near as near, n (n)}<Press small onpress={() => reading.mend(near)}>{near}</Press>{/each}
	</p>
{/if}
