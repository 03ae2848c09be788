<script lang="ts">
	import { Bringing } from '$lib/state/bringing.svelte';
	import type { Carried } from '$lib/state/clipboard.svelte';
	import type { Desk } from '$lib/state/desk.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Sheet from '$lib/ui/Sheet.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';
	import LookBrought from './LookBrought.svelte';
	import LooksList from './LooksList.svelte';
	import StylesheetPick from './StylesheetPick.svelte';

	type Props = {
		desk: Desk;
		/** What is brought already when the sheet opens: a copied look, for example. */
		from: Carried | null;
		onclose: () => void;
	};
	let { desk, from, onclose }: Props = $props();
	const view = $derived(desk.kept);
	const kit = $derived(desk.kit);
	// svelte-ignore state_referenced_locally
	const bringing = new Bringing(useWorkshop(), desk);
	const brought = $derived(bringing.brought);
	// svelte-ignore state_referenced_locally
	if (from) void bringing.bring(from);
</script>

<Sheet
	open
	title={brought
		? `Apply “${brought.title}” to ${view?.editing.title}`
		: bringing.stylesheet === null
			? 'Looks'
			: 'Which button of the stylesheet?'}
	{onclose}
	wide
>
	{#if brought && view}
		<LookBrought {bringing} {brought} {view} ontaken={onclose} />
	{:else if bringing.stylesheet !== null}
		<StylesheetPick
			css={bringing.stylesheet}
			chooses={bringing.cameBack}
			words={view?.shown.text || 'Add to basket'}
			onread={(reading) => bringing.bring({ kind: 'computed', value: JSON.stringify(reading), selector: '' })}
			onback={() => (bringing.stylesheet = null)}
		/>
	{:else if kit && view}
		<LooksList {bringing} {desk} {view} {kit} />
	{:else}
		<Waiting what="Loading the looks" error={desk.looks.error} onretry={() => desk.looks.refetch()} />
	{/if}
	{#if bringing.attempt.wrong}<p role="alert" class="mt-3 text-must">{bringing.attempt.wrong}</p>{/if}
</Sheet>
