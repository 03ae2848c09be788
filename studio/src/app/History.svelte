<script lang="ts">
	import { createInfiniteQuery } from '@tanstack/svelte-query';
	import { moment } from '$lib/pure/format';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Sheet from '$lib/ui/Sheet.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';

	type Props = { open: boolean; onclose: () => void };
	let { open, onclose }: Props = $props();
	const workshop = useWorkshop();
	const history = createInfiniteQuery(() => ({ ...workshop.ask.history(), enabled: open }));
	const steps = $derived(history.data?.pages.flat() ?? []);
</script>

<Sheet {open} title="History" {onclose} wide>
	<p class="mt-1 text-soft">Undo and redo take back what is yours; what others have changed stays.</p>
	<p class="mt-3 flex gap-2">
		<Press small disabled={!workshop.draft?.undo_label} onpress={() => workshop.undo()}
			>Undo {workshop.draft?.undo_label}</Press
		>
		<Press small disabled={!workshop.draft?.redo_label} onpress={() => workshop.redo()}
			>Redo {workshop.draft?.redo_label}</Press
		>
	</p>
	{#if history.data}
		<table class="ledger mt-3">
			<tbody>
				{#each steps as step (step.n)}
					<tr class={step.is_undone ? 'text-soft line-through' : ''}>
						<td class="figure w-12 text-soft">{step.n}</td>
						<td>{step.label}</td>
						<td class="whitespace-nowrap text-soft">{step.is_own ? 'you' : step.author || 'the shop'}</td>
						<td class="figure whitespace-nowrap text-soft">{moment(step.made_at)}</td>
					</tr>
				{/each}
			</tbody>
		</table>
		{#if history.hasNextPage}
			<p class="mt-3">
				<Press small disabled={history.isFetchingNextPage} onpress={() => void history.fetchNextPage()}
					>Show older changes</Press
				>
			</p>
		{/if}
	{:else}
		<Waiting what="Loading the history" error={history.error} onretry={() => history.refetch()} />
	{/if}
	<p class="mt-5"><Press main onpress={onclose}>Close</Press></p>
</Sheet>
