<script lang="ts">
	import { keepFocus } from '$lib/ui/keep_focus';
	import type { Snippet } from 'svelte';

	type Props = {
		name: string;
		children: Snippet;
		/** Rare details, which open on demand. */
		rare?: Snippet;
		/** Whether one of them is set, so that they stand open. */
		told?: boolean;
	};
	let { name, children, rare, told = false }: Props = $props();
	let asked = $state(false);
	const open = $derived(asked || told);
	const id = $props.id();
</script>

<section class="part" aria-labelledby={id} {@attach keepFocus}>
	<h3 {id}>{name}</h3>
	<div class="sentences">
		{@render children()}
		{#if rare}
			{#if !told}
				<button
					class="value text-sm"
					aria-expanded={open}
					aria-label="{open ? 'Fewer' : 'More'} about {name.toLowerCase()}"
					onclick={() => (asked = !asked)}>{open ? 'less' : 'more…'}</button
				>
			{/if}
			{#if open}<p>{@render rare()}</p>{/if}
		{/if}
	</div>
</section>

<style>
	.part {
		display: grid;
		grid-template-columns: 72px minmax(0, 1fr);
		column-gap: 16px;
		padding-block: 6px;
		border-top: 1px solid var(--color-hair);
	}
	.part:first-child {
		border-top: 0;
	}
	h3 {
		font-size: 14px;
		font-weight: 600;
		line-height: 28px;
	}
	.sentences {
		line-height: 28px;
	}
</style>
