<script lang="ts">
	import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
	import { count } from '$lib/pure/format';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Combobox from '$lib/ui/Combobox.svelte';

	type Props = { sku: string; name: string; onpick: (sku: string) => void };
	let { sku, name, onpick }: Props = $props();
	const workshop = useWorkshop();
	let open = $state(false);
	let typed = $state('');
	const matches = createQuery(() => ({
		...workshop.ask.products(typed),
		enabled: open,
		placeholderData: keepPreviousData,
	}));
	const products = $derived(matches.data?.products ?? []);
	const choices = $derived(products.map((product) => ({ value: product.sku, label: product.name, says: product.sku })));
	const more = $derived((matches.data?.total ?? 0) - products.length);
</script>

<Combobox
	label="Product: {name}"
	list="Products"
	value={sku}
	{name}
	{choices}
	bind:open
	bind:typed
	{onpick}
	empty={matches.isFetching ? 'Searching…' : (matches.error?.message ?? 'No product is called that.')}
>
	{#snippet below()}
		{#if more > 0}
			<p class="border-t border-hair px-3 pt-1 text-soft">
				and <span class="figure">{count(more)}</span> more: type a part of the name, the code or the category
			</p>
		{/if}
	{/snippet}
</Combobox>
