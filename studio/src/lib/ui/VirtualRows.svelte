<script lang="ts" generics="Item">
	import {
		defaultRangeExtractor,
		observeWindowOffset,
		observeWindowRect,
		Virtualizer,
		windowScroll,
	} from '@tanstack/virtual-core';
	import { onMount, type Snippet } from 'svelte';

	type Props = {
		items: readonly Item[];
		/** What tells one row from all others. */
		key: (item: Item, index: number) => string;
		/** What holds one row: `tr` in a table, `li` in a list. */
		tag: 'tr' | 'li' | 'article';
		/** How high a row is about, in pixels; each is measured once it is shown. */
		about: number;
		row: Snippet<[Item]>;
		rowClass?: (item: Item) => string | undefined;
		/** A row that stays, wherever the page is scrolled to: one that is being worked on. */
		keep?: (item: Item) => boolean;
		/** Rows of the same table that stand before these, as its head does. */
		rowsBefore?: number;
	};
	let { items, key, tag, about, row, rowClass, keep, rowsBefore = 0 }: Props = $props();
	/** Shorter lists are shown whole: they can be searched and printed by the browser. */
	const SHORT = 80;
	let begin = $state<HTMLElement>();
	const isLong = $derived(items.length > SHORT);
	/** The row that has the keyboard: it would lose it if it went. */
	let focused = $state(-1);
	const kept = $derived([keep ? items.findIndex(keep) : -1, focused].filter((n) => n >= 0 && n < items.length));
	/** Grows whenever other rows come into view, or one was measured. */
	let seen = $state(0);
	const core = new Virtualizer<Window, HTMLElement>({
		count: 0,
		estimateSize: () => about,
		overscan: 12,
		getScrollElement: () => window,
		observeElementRect: observeWindowRect,
		observeElementOffset: observeWindowOffset,
		scrollToFn: windowScroll,
		initialOffset: () => scrollY,
		onChange: () => seen++,
	});
	onMount(() => {
		core._willUpdate();
		return core._didMount();
	});

	/** The rows that are shown, each with the room left out before it, and the room left out at the end. */
	const range = $derived.by(() => {
		void seen;
		if (!isLong) return null;
		const from = begin ? begin.getBoundingClientRect().top + scrollY : 0;
		core.setOptions({
			...core.options,
			count: items.length,
			scrollMargin: from,
			getItemKey: (index) => key(items[index] as Item, index),
			rangeExtractor: (visible) => {
				const rows = new Set([...defaultRangeExtractor(visible), ...kept]);
				return [...rows].sort((a, b) => a - b);
			},
		});
		let at = from;
		const shown = core.getVirtualItems().map(({ index, start, end }) => {
			const gap = start - at;
			at = end;
			return { index, gap };
		});
		return { shown, after: from + core.getTotalSize() - at };
	});
	function measured(row: HTMLElement): () => void {
		core.measureElement(row);
		return () => core.measureElement(null);
	}
</script>

{#snippet gap(height: number)}
	<svelte:element this={tag} aria-hidden="true" style:height="{height}px" class="gap"></svelte:element>
{/snippet}

{#if range}
	<svelte:element this={tag} bind:this={begin} aria-hidden="true" class="gap"></svelte:element>
	{#each range.shown as { index, gap: height } (key(items[index] as Item, index))}
		{@const item = items[index] as Item}
		{#if height > 0}{@render gap(height)}{/if}
		<svelte:element
			this={tag}
			class={rowClass?.(item)}
			data-index={index}
			aria-rowindex={tag === 'tr' ? rowsBefore + index + 1 : undefined}
			onfocusin={() => (focused = index)}
			onfocusout={() => (focused = -1)}
			{@attach measured}
		>
			{@render row(item)}
		</svelte:element>
	{/each}
	{@render gap(range.after)}
{:else}
	{#each items as item, index (key(item, index))}
		<svelte:element this={tag} class={rowClass?.(item)}>{@render row(item)}</svelte:element>
	{/each}
{/if}

<style>
	.gap {
		border: 0 !important;
		padding: 0 !important;
		margin: 0 !important;
	}
</style>
