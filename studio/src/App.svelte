<script lang="ts">
	import { QueryClientProvider } from '@tanstack/svelte-query';
	import Waiting from '$lib/ui/Waiting.svelte';
	import { provideWorkshop, Workshop } from '$lib/state/workshop.svelte';
	import Shell from './app/Shell.svelte';
	import SignIn from './app/SignIn.svelte';

	const workshop = provideWorkshop(new Workshop());
	let opening = $state(workshop.open());
</script>

<QueryClientProvider client={workshop.queries}>
	{#await opening}
		<Waiting what="Loading the studio" />
	{:then}
		{#if workshop.session.current && workshop.info}
			<Shell />
		{:else}
			<SignIn />
		{/if}
	{:catch error}
		<Waiting what="" {error} onretry={() => (opening = workshop.open())} />
	{/await}
</QueryClientProvider>
