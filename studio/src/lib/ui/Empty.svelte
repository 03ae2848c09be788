<script lang="ts">
	import type { Snippet } from 'svelte';

	type Props = {
		/** In a list it is a line of the list. */
		tag?: 'li' | 'p';
		/** Says what is not there, and what would bring it. */
		children: Snippet;
	};
	let { tag = 'p', children }: Props = $props();
</script>

<svelte:element this={tag} class="py-2 text-soft" data-empty>{@render children()}</svelte:element>
