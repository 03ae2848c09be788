<script lang="ts">
	import type { Snippet } from 'svelte';

	type Props = {
		children: Snippet;
		onpress?: () => void;
		/** Solid ink for the main action of a screen; at most one of them. */
		main?: boolean;
		small?: boolean;
		disabled?: boolean;
		href?: string;
		/** Opens in a new tab. */
		away?: boolean;
		label?: string;
		type?: 'button' | 'submit';
	};
	let {
		children,
		onpress,
		main = false,
		small = false,
		disabled = false,
		href,
		away,
		label,
		type = 'button',
	}: Props = $props();
	const look = $derived([
		'inline-flex items-center gap-2 border no-underline disabled:border-hair disabled:bg-paper disabled:text-soft',
		main ? 'border-ink bg-ink font-semibold text-leaf hover:bg-soft' : 'border-ink bg-leaf font-medium hover:bg-paper',
		small ? 'px-2 py-0.5 text-sm' : 'px-4 py-2',
	]);
</script>

{#if href}
	<a {href} target={away ? '_blank' : undefined} rel={away ? 'noopener' : undefined} aria-label={label} class={look}>
		{@render children()}
	</a>
{:else}
	<button {type} {disabled} aria-label={label} onclick={onpress} class={look}>{@render children()}</button>
{/if}
