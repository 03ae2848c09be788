<script lang="ts">
	import type { DrawView } from '$lib/api/types';
	import type { Desk } from '$lib/state/desk.svelte';
	import Colour from '$lib/ui/Colour.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import SheetDrawn from './SheetDrawn.svelte';
	import Field from '$lib/ui/Field.svelte';

	type Props = { view: DrawView; desk: Desk; known: readonly string[] };
	let { view, desk, known }: Props = $props();
	const sheet = $derived(view.document.sheet);
	const shows = $derived(view.document.afterwards.kind === 'show' ? view.document.afterwards : null);
	const language = $derived(view.seen.language);
	const CHOOSING = [
		{ value: 'page', label: 'on the product’s own page' },
		{ value: 'card', label: 'on a sheet over its card' },
		{ value: 'middle', label: 'on a sheet in the middle' },
	] as const;
	type Says = { heading?: string; to_basket?: string; to_checkout?: string; go_on?: string };
	const own = $derived<Says>(shows?.says?.[language] ?? {});
	/** Says one of the basket's words in the language that is seen; an emptied one is the usual again. */
	function say(name: keyof Says, text: string): void {
		const others = Object.entries(shows?.says ?? {}).filter(([known]) => known !== language);
		const whole = { ...own, [name]: text };
		const says = Object.fromEntries(Object.values(whole).some(Boolean) ? [...others, [language, whole]] : others);
		void desk.set('afterwards', { ...shows, says });
	}
	type Part = keyof NonNullable<typeof sheet>;
</script>

{#snippet px(label: string, part: Part, least: number, most: number)}
	<Figure
		{label}
		value={Number(sheet?.[part])}
		{least}
		{most}
		marked={desk.marked === `sheet.${part}`}
		onfocus={() => desk.mark(`sheet.${part}`)}
		onset={(to: number) => desk.set(`sheet.${part}`, part === 'motion_ms' ? Math.round(to) : to)}
	/>
{/snippet}

{#snippet colour(label: string, part: Part, seeThrough = false)}
	<Colour
		{label}
		value={String(sheet?.[part])}
		{known}
		ramps={desk.kit?.ramps}
		{seeThrough}
		onset={(to) => desk.set(`sheet.${part}`, to)}
	/>
{/snippet}

{#snippet words(label: string, name: keyof Says)}
	<Field {label} most={60} usual="the usual words" value={own[name] ?? ''} onset={(text) => say(name, text)} />
{/snippet}

{#if shows}
	<Pick
		label="Where the basket is shown"
		value={shows.where ?? 'side'}
		options={[
			{ value: 'side', label: 'at the side' },
			{ value: 'middle', label: 'in the middle' },
		]}
		onpick={(where) => desk.set('afterwards', { ...shows, where })}
	/>, under the heading {@render words('Heading of the basket', 'heading')}, with
	{@render words('Way to the basket', 'to_basket')}, {@render words('Way to the checkout', 'to_checkout')} and
	{@render words('Way back to the goods', 'go_on')}. {#if shows.free_from}Delivery is free from <Figure
			label="Delivery is free from"
			unit={view.seen.product.currency}
			value={shows.free_from}
			least={0.01}
			most={1_000_000}
			onset={(free_from: number) => desk.set('afterwards', { ...shows, free_from })}
		/>
		{view.seen.product.currency}, and the basket says how much is missing;
		<button class="value" onclick={() => desk.set('afterwards', { ...shows, free_from: null })}
			>say nothing of it</button
		>.{:else}Of free delivery it says nothing; <button
			class="value"
			onclick={() => desk.set('afterwards', { ...shows, free_from: 50 })}>say from when</button
		>.{/if}
{/if}
What needs a choice in a list is chosen
<Pick
	label="Choosing in a list"
	value={view.document.choosing ?? 'page'}
	options={CHOOSING}
	onfocus={() => desk.mark('choosing')}
	onpick={(where) => desk.set('choosing', where)}
/>.
{#if view.sheets.length && sheet}
	What opens is {@render px('sheet width', 'width_px', 280, 720)} px wide with {@render px(
		'sheet padding',
		'padding_px',
		8,
		64,
	)} px around, corners of {@render px('sheet corners', 'radius_px', 0, 48)} px, an edge of {@render px(
		'sheet edge',
		'edge_px',
		0,
		8,
	)} px{#if sheet.edge_px}
		in {@render colour('Colour of the sheet’s edge', 'edge_colour')}{/if}, words of {@render px(
		'sheet type size',
		'size_px',
		12,
		24,
	)} px in {@render colour('Sheet’s ink', 'ink')} on {@render colour('Sheet’s ground', 'ground')}, over a page shaded
	with {@render colour('Shade behind the sheet', 'shade', true)}. It comes in {@render px(
		'sheet motion',
		'motion_ms',
		0,
		800,
	)} ms, on phones from the lower edge.
	<span class="mt-3 flex flex-wrap items-start gap-4">
		{#each view.sheets as shown (shown.kind)}<SheetDrawn
				{shown}
				button={view.shown.button}
				rtl={view.seen.rtl}
			/>{/each}
	</span>
{/if}
