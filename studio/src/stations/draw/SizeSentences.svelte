<script lang="ts">
	import type { DrawView } from '$lib/api/types';
	import type { Ground } from '$lib/pure/length';
	import type { Desk } from '$lib/state/desk.svelte';
	import DeskFigure from './DeskFigure.svelte';
	import DeskPick from './DeskPick.svelte';

	type Props = { view: DrawView; desk: Desk; ground: Ground };
	let { view, desk, ground }: Props = $props();
	const size = $derived(view.document.look.size);

	function setSize(kind: string): void {
		const { needs_width_px, outer } = view.shown.drawing;
		const whole = { kind, width: Math.ceil(needs_width_px), height: Math.ceil(outer.height) };
		void desk.set('look.size', kind === 'fixed' ? whole : { kind });
	}
</script>

{#snippet length(label: string, path: string, least: number, most: number)}
	<DeskFigure {desk} {ground} {label} {path} {least} {most} keepsUnits />
{/snippet}

It is
<DeskPick
	{desk}
	label="Size"
	path="look.size.kind"
	options={[
		['natural', 'as wide as its words'],
		['full', 'as wide as its container'],
		['fixed', 'of a fixed size'],
	]}
	onpick={setSize}
/>{#if size.kind === 'fixed'}: {@render length('fixed width', 'look.size.width', 16, 1200)} wide,
	<DeskFigure {desk} {ground} label="fixed height" path="look.size.height" least={16} most={400} /> px high{/if}.
{#if size.kind === 'natural'}At least {@render length('least width', 'look.size.least', 0, 400)} px wide.{/if}
{#if size.kind !== 'fixed'}
	{#if size.least_height_px}
		It is at least <DeskFigure
			{desk}
			{ground}
			label="least height"
			path="look.size.least_height_px"
			least={0}
			most={400}
		/>
		px high.
	{:else}
		<button
			class="value"
			onclick={() => desk.set('look.size.least_height_px', Math.ceil(view.shown.drawing.outer.height))}
			>set a least height…</button
		>
	{/if}
	{#if size.most != null}At most {@render length('most width', 'look.size.most', 16, 1200)} px wide
		<button
			class="value"
			aria-label="No maximum width"
			onclick={() => desk.set('look.size', { ...size, most: undefined })}>×</button
		>{:else}<button
			class="value"
			onclick={() => desk.set('look.size.most', Math.max(16, Math.ceil(view.shown.drawing.outer.width)))}
			>set a maximum width…</button
		>{/if}
{/if}
