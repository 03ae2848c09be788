<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { client, data } from '$lib/api/client';
	import { many } from '$lib/pure/format';
	import { useWorkshop } from '$lib/state/workshop.svelte';

	const workshop = useWorkshop();
	const exceptions = createQuery(() => ({
		queryKey: ['exceptions', workshop.store, workshop.draft?.version],
		queryFn: () => data(client.GET('/api/stores/{store}/exceptions', { params: { path: workshop.path } })),
	}));
</script>

{#if exceptions.data?.length}
	<h2 class="mt-6 mb-1 text-md">Exceptions</h2>
	<table class="ledger max-w-4xl">
		<tbody>
			{#each exceptions.data as one (one.id)}
				<tr>
					<th class="w-52"><a href="/words" class="no-underline">{one.name}</a></th>
					<td>
						{one.reach_words}
						<p class="text-soft">{one.note}</p>
					</td>
					<td class="text-right whitespace-nowrap text-soft">{many(one.products, 'product')}</td>
				</tr>
			{/each}
		</tbody>
	</table>
{/if}
