<script lang="ts">
	import type { Snippet } from 'svelte';
	import Press from './Press.svelte';

	type Props = {
		children: Snippet;
		/** What the file is, for those who hear it. */
		label: string;
		/** Kinds of files, as `accept` of an input has them. */
		accept: string;
		onpick: (file: File) => void;
		/** Within a sentence it looks as a value does. */
		inline?: boolean;
	};
	let { children, label, accept, onpick, inline = false }: Props = $props();
	let input: HTMLInputElement;
	function picked(): void {
		const file = input.files?.[0];
		// The same file can be picked again, once it was changed.
		input.value = '';
		if (file) onpick(file);
	}
</script>

{#if inline}
	<button type="button" class="value" onclick={() => input.click()}>{@render children()}</button>
{:else}
	<Press small onpress={() => input.click()}>{@render children()}</Press>
{/if}
<input bind:this={input} type="file" {accept} class="sr-only" tabindex="-1" aria-label={label} onchange={picked} />
