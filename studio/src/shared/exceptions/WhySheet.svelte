<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { capital, said } from '$lib/pure/format';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Sheet from '$lib/ui/Sheet.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';
	import Why from './Why.svelte';

	const workshop = useWorkshop();
	const asked = $derived(workshop.opened.trace);
	const why = createQuery(() => ({
		...workshop.ask.trace(asked ?? { placement: 'product_page', field: '' }),
		enabled: asked !== null,
	}));
	function jump(layer: string): void {
		const at = asked;
		workshop.opened.trace = null;
		if (!at) return;
		const { placement, product, device, language } = at;
		const [kind, moment = ''] = at.field.split('.');
		const seen = { placement, product, device, language };
		if (kind === 'wording') workshop.context.go('/words', { ...seen, moment });
		else workshop.context.go('/draw', { ...seen, layer });
	}
</script>

<Sheet open={asked !== null} title="Why this value" onclose={() => (workshop.opened.trace = null)} wide>
	{#if why.data && asked}
		<p class="mt-1 text-md">
			{capital(why.data.field_words)} on the {said(asked.placement)}, for <b>{why.data.product.name}</b>, on a
			<b>{why.data.device}</b>, in <b>{workshop.languageOptions.find((o) => o.value === why.data?.language)?.label}</b>
		</p>
		<div class="mt-3"><Why lines={why.data.lines} onjump={jump} /></div>
		<p class="mt-5"><Press main onpress={() => (workshop.opened.trace = null)}>Close</Press></p>
	{:else}
		<Waiting what="Loading the reasons" error={why.error} onretry={() => why.refetch()} />
	{/if}
</Sheet>
