<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Pick from '$lib/ui/Pick.svelte';

	const workshop = useWorkshop();
	const own = $derived(workshop.session.current?.stores ?? []);
	const stores = createQuery(() => ({ ...workshop.ask.stores(), enabled: own.length > 1 }));
	const name = $derived(workshop.info?.store.name ?? '');
	/** Until the names have come, the one that is open stands alone. */
	const options = $derived(
		stores.data?.map(({ key, name }) => ({ value: key, label: name })) ?? [{ value: workshop.store, label: name }],
	);
</script>

<p class="text-md font-bold">
	{#if own.length > 1}
		<Pick label="Store" value={workshop.store} {options} onpick={(key) => workshop.switchStore(key)} />
	{:else}
		{name}
	{/if}
	<button class="target ms-2 text-sm font-normal underline" onclick={() => (workshop.opened.connection = true)}
		>connection</button
	>
	<button class="target ms-1 text-sm font-normal underline" onclick={() => (workshop.opened.newStore = true)}
		>new store</button
	>
</p>
