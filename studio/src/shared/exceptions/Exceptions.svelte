<script lang="ts">
	import { capital, many } from '$lib/pure/format';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import { useExceptions } from '$lib/state/exceptions.svelte';
	import type { ExceptionView } from '$lib/api/types';
	import Press from '$lib/ui/Press.svelte';
	import VirtualRows from '$lib/ui/VirtualRows.svelte';

	const workshop = useWorkshop();
	const exceptions = useExceptions(workshop);
	const sets = (names: readonly string[]) => {
		const kinds = [...new Set(names.map((name) => (name.startsWith('words') ? 'words' : name)))];
		return kinds.slice(0, 3).join(', ') + (kinds.length > 3 ? ` and ${kinds.length - 3} more` : '');
	};
</script>

{#snippet row(rule: ExceptionView)}
	<th class="w-52"
		><button
			class="text-left font-semibold underline underline-offset-3"
			onclick={() => (workshop.opened.exception = rule.id)}>{rule.name}</button
		></th
	>
	<td>
		{capital(rule.reach_words)}
		<p class="text-soft">{rule.note}</p>
	</td>
	<td class="text-soft">{sets(rule.fields.map((f) => f.field))}</td>
	<td class="text-right whitespace-nowrap text-soft">
		{#if rule.inactive}◇ {rule.inactive}{:else}{many(rule.products, 'product')}{/if}
	</td>
{/snippet}

<div class="mt-6 mb-1 flex items-baseline gap-4">
	<h2 class="text-md">Exceptions</h2>
	<Press small onpress={() => (workshop.opened.newException = { placement: 'product_page' })}>New exception…</Press>
</div>
<table class="ledger max-w-5xl" aria-rowcount={exceptions.data?.length}>
	<tbody>
		{#if exceptions.data?.length}
			<VirtualRows
				items={exceptions.data}
				key={(rule) => rule.id}
				tag="tr"
				about={58}
				rowClass={(rule) => (rule.inactive ? 'text-soft' : undefined)}
				{row}
			/>
		{:else}
			<tr>
				<td class="text-soft">
					{#if exceptions.isPending}Loading the exceptions…
					{:else if exceptions.isError}
						<span class="text-must">▲ The exceptions could not be loaded: {exceptions.error.message}</span>
						<Press small onpress={() => exceptions.refetch()}>Try again</Press>
					{:else}No exceptions. What the baseline and the placements say holds for every product.{/if}
				</td>
			</tr>
		{/if}
	</tbody>
</table>
