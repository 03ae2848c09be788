<script lang="ts">
	import type { DrawView } from '$lib/api/types';
	import { leadColour } from '$lib/pure/fill';
	import { valueAt } from '$lib/pure/patch';
	import type { Desk } from '$lib/state/desk.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Colour from '$lib/ui/Colour.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import Field from '$lib/ui/Field.svelte';

	type Props = { view: DrawView; desk: Desk; known: readonly string[] };
	let { view, desk, known }: Props = $props();
	const workshop = useWorkshop();
	type BoxNames = NonNullable<DrawView['around']['box_names']>;
	const ENGLISH: BoxNames = { quantity: 'Quantity', fewer: 'Fewer', more: 'More' };
	const quantity = $derived(view.document.quantity);
	const second = $derived(view.document.second);
	const boxed = { kind: 'box', layout: 'plain', least: 1, most: 99, step: 1, start: 1, width_px: 64 };
	const at = (path: string) => valueAt(view.document, path);

	function stand(kind: string): void {
		if (kind === 'none') {
			void desk.set('second', { kind });
			return;
		}
		if (second.kind !== 'none') {
			// It stays as it is drawn; what it says was about the other.
			void desk.set('second.kind', kind);
			return;
		}
		const { look } = view.document;
		const { padding } = view.shown.drawing;
		// As high as the first one: its own border takes from the padding.
		const less = Math.max(0, padding.top + view.shown.drawing.border.top - 2);
		void desk.set('second', {
			kind,
			side: 'beside',
			first: false,
			share: false,
			gap_px: 8,
			wording: { [workshop.language]: kind === 'closer' ? 'Look closer' : 'Buy now' },
			fill: { kind: 'none' },
			border: { kind: 'line', width_px: 2, style: 'solid' },
			radius: look.radius,
			padding: { top: less, bottom: less, left: 16, right: 16 },
			size_px: look.type.size_px,
			weight: look.type.weight,
		});
	}
	const allNames = $derived(quantity.kind === 'box' ? (quantity.names ?? {}) : {});
	const names = $derived(allNames[view.seen.language]);
	function call(part: keyof BoxNames, text: string): void {
		const whole = { ...(names ?? view.around.box_names ?? ENGLISH), [part]: text };
		const others = Object.entries(allNames).filter(([language]) => language !== view.seen.language);
		// An emptied name falls back to the usual ones.
		void desk.set('quantity.names', Object.fromEntries(text ? [...others, [view.seen.language, whole]] : others));
	}
</script>

{#snippet pieces(label: string, path: string, most: number)}
	<Figure
		{label}
		unit="pieces"
		value={Number(at(path))}
		least={1}
		{most}
		marked={desk.marked === path}
		onfocus={() => desk.mark(path)}
		onset={(value: number) => desk.set(path, Math.round(value))}
	/>
{/snippet}

{#snippet name(part: keyof BoxNames, label: string)}
	<Field
		{label}
		most={60}
		usual={(view.around.box_names ?? ENGLISH)[part]}
		value={names?.[part] ?? ''}
		onfocus={() => desk.mark('quantity.names')}
		onset={(text) => call(part, text)}
	/>
{/snippet}

<Pick
	label="Quantity box"
	value={quantity.kind}
	options={[
		{ value: 'none', label: 'No quantity box' },
		{ value: 'box', label: 'A quantity box' },
	]}
	onfocus={() => desk.mark('quantity')}
	onpick={(kind) => desk.set('quantity', kind === 'box' ? boxed : { kind })}
/>
{#if quantity.kind === 'box'}
	<Pick
		label="Keys of the box"
		value={quantity.layout ?? 'plain'}
		options={[
			{ value: 'plain', label: 'without keys' },
			{ value: 'sides', label: 'with − and + at its sides' },
			{ value: 'stacked', label: 'with both keys at its end' },
		]}
		onfocus={() => desk.mark('quantity.layout')}
		onpick={(layout) => desk.set('quantity.layout', layout)}
	/>,
	<Figure
		label="box width"
		value={Number(at('quantity.width_px'))}
		least={32}
		most={200}
		onfocus={() => desk.mark('quantity.width_px')}
		onset={(to: number) => desk.set('quantity.width_px', to)}
	/> px, before it takes {@render pieces('least', 'quantity.least', 9999)} to {@render pieces(
		'most',
		'quantity.most',
		9999,
	)} in steps of
	{@render pieces('step', 'quantity.step', 999)}, {@render pieces('at first', 'quantity.start', 9999)} at first. Screen readers
	call it {@render name('quantity', 'Name of the quantity box')}{#if quantity.layout !== 'plain'}, its keys
		{@render name('fewer', 'Name of the minus key')} and {@render name('more', 'Name of the plus key')}{/if}.
{:else}
	stands before it.
{/if}
<Pick
	label="Second button"
	value={second.kind}
	options={[
		{ value: 'none', label: 'No second button' },
		{ value: 'checkout', label: 'A second button to the checkout' },
		{ value: 'closer', label: 'A second button for a closer look' },
	]}
	onfocus={() => desk.mark('second')}
	onpick={stand}
/>
{#if second.kind !== 'none'}
	stands
	<Pick
		label="Where the second stands"
		value={second.side === 'under' ? 'under' : second.first ? 'before' : 'after'}
		options={[
			{ value: 'after', label: 'after it' },
			{ value: 'before', label: 'before it' },
			{ value: 'under', label: 'under it' },
		]}
		onfocus={() => desk.mark('second.side')}
		onpick={(to) => desk.setAll({ 'second.side': to === 'under' ? to : 'beside', 'second.first': to === 'before' })}
	/>, <Figure
		label="between the two"
		value={second.gap_px}
		most={64}
		onfocus={() => desk.mark('second.gap_px')}
		onset={(to: number) => desk.set('second.gap_px', to)}
	/> px away, says
	<Field
		label="Words of the second button"
		value={second.wording[view.seen.language] ?? ''}
		onset={(text) => text && desk.set('second.wording', { ...second.wording, [view.seen.language]: text })}
	/>
	in
	<Colour
		label="Second button's fill"
		value={leadColour(second.fill) ?? null}
		ruled={view.around.page_colour}
		{known}
		ramps={desk.kit?.ramps}
		seeThrough
		onset={(colour) => desk.set('second.fill', { kind: 'solid', colour })}
		onrule={() => desk.set('second.fill', { kind: 'none' })}
	/>
	with
	<Colour
		label="Second button's words"
		value={second.text_colour}
		ruled="#1b1b1b"
		{known}
		ramps={desk.kit?.ramps}
		seeThrough
		onset={(colour) => desk.set('second.text_colour', colour)}
		onrule={() => desk.set('second.text_colour', null)}
	/>, <Figure
		label="second type size"
		value={second.size_px}
		least={8}
		most={72}
		onfocus={() => desk.mark('second.size_px')}
		onset={(to: number) => desk.set('second.size_px', to)}
	/> px.
	{#if (at('look.size') as { kind: string }).kind === 'full' && second.side === 'beside'}
		<button class="value" onclick={() => desk.set('second.share', !second.share)}
			>{second.share ? 'Both equally wide' : 'It is as wide as its words'}</button
		>.
	{/if}
	<button class="value" onclick={() => desk.matchBeside()}>Match the first</button>.
{:else}
	stands beside it.
{/if}
