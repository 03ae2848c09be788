<script lang="ts">
	import type { DrawView } from '$lib/api/types';
	import type { Ground } from '$lib/pure/length';
	import { valueAt } from '$lib/pure/patch';
	import type { Desk } from '$lib/state/desk.svelte';
	import Field from '$lib/ui/Field.svelte';
	import DeskFigure from './DeskFigure.svelte';
	import DeskPick from './DeskPick.svelte';
	import IconField from './IconField.svelte';

	type Props = { view: DrawView; desk: Desk; ground: Ground };
	let { view, desk, ground }: Props = $props();
	const { icon, look } = $derived(view.document);
	const wordless = $derived(
		(icon.kind !== 'none' && icon.side === 'alone') || (look.fill.kind === 'picture' && look.fill.instead),
	);
	const spoken = $derived(`spoken.${view.seen.language}`);
</script>

{#if icon.kind !== 'none'}The{/if}
<IconField {desk} />{#if icon.kind !== 'none'}&#32; icon stands
	<DeskPick
		{desk}
		label="Side"
		path="icon.side"
		options={[
			['before', 'before the words'],
			['after', 'after the words'],
			['above', 'above the words'],
			['alone', 'alone'],
		]}
	/>, <DeskFigure {desk} {ground} label="icon size" path="icon.size_px" least={8} most={96} /> px tall{#if icon.side !== 'alone'},
		<DeskFigure {desk} {ground} label="icon gap" path="icon.gap_px" least={0} most={64} /> px apart{/if}.{:else}.{/if}
{#if wordless}
	Screen readers call it
	<Field
		label="Name for screen readers"
		usual={view.shown.text}
		value={String(valueAt(view.document, spoken) ?? '')}
		onset={(name) => desk.set(spoken, name || null)}
	/>.
{/if}
{#if icon.kind !== 'none'}
	Centred by <DeskPick
		{desk}
		label="Icon centring"
		path="icon.centring"
		options={[
			['box', 'its square'],
			['mass', 'its mass'],
		]}
	/>; in right-to-left languages
	<DeskPick
		{desk}
		label="From right to left"
		path="icon.mirror"
		options={[
			[true, 'mirrored'],
			[false, 'not mirrored'],
		]}
	/>.
{/if}
