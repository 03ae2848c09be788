<script lang="ts">
	import type { DrawView } from '$lib/api/types';
	import { STATES } from '$lib/pure/facts';
	import type { Ground } from '$lib/pure/length';
	import type { Desk } from '$lib/state/desk.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import AfterPress from './AfterPress.svelte';
	import BesideSentences from './BesideSentences.svelte';
	import DeskPick from './DeskPick.svelte';
	import FillSentences from './FillSentences.svelte';
	import IconSentences from './IconSentences.svelte';
	import Part from './Part.svelte';
	import SheetSentences from './SheetSentences.svelte';
	import SizeSentences from './SizeSentences.svelte';
	import StateSentence from './StateSentence.svelte';
	import TypeSentences from './TypeSentences.svelte';

	type Props = { view: DrawView; desk: Desk; ground: Ground };
	let { view, desk, ground }: Props = $props();
	const { context } = useWorkshop();
	/** Colours that the button or its page has already. */
	const known = $derived(
		[
			...new Set([
				...view.states.flatMap(({ fill, words }) => [fill ?? '', words]),
				view.around.ring,
				view.around.page_colour,
				'#ffffff',
			]),
		].filter(Boolean),
	);
</script>

<div class="text-md">
	<Part name="Size"><SizeSentences {view} {desk} {ground} /></Part>
	<FillSentences {view} {desk} {known} />
	<TypeSentences {view} {desk} {ground} {known} />
	<Part name="Icon"><IconSentences {view} {desk} {ground} /></Part>
	<Part name="States">
		{#each STATES as state (state)}
			{@const shown = view.states.find((drawn) => drawn.state === state)}
			{#if shown}<StateSentence {desk} look={view.document.look} {state} {shown} {known} />{/if}
		{/each}
	</Part>
	<Part name="Beside it">
		<BesideSentences {view} {desk} {known} />
		The button <DeskPick
			{desk}
			label="Standing"
			path="placement.shown"
			options={[
				[true, 'is shown'],
				[false, 'is not shown'],
			]}
		/>
		here{#if view.seen.placement === 'sticky_bar'}; <a class="underline" href={context.href('/place')}>Place</a> says when
			its bar comes, and what it holds{/if}. <AfterPress {view} {desk} />
		<SheetSentences {view} {desk} {known} />
	</Part>
</div>
