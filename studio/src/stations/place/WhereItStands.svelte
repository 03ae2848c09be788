<script lang="ts">
	import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
	import type { Device, PlacesView, Placement } from '$lib/api/types';
	import { count, many } from '$lib/pure/format';
	import { addActions } from '$lib/state/actions.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Press from '$lib/ui/Press.svelte';

	/** For how many products a placement stands, what hides it for the others, and the pages one after the other. */
	type Page = PlacesView['pages'][number];
	type Props = { placement: Placement; device: Device; language: string; path: string; onstep: (page: Page) => void };
	let { placement, device, language, path, onstep }: Props = $props();
	const workshop = useWorkshop();
	const asked = createQuery(() => ({
		...workshop.ask.standing(placement, device, language),
		placeholderData: keepPreviousData,
	}));
	const look = $derived(asked.data);
	const pages = $derived(look?.pages ?? []);
	const at = $derived(pages.findIndex((page) => page.path === path));

	function step(by: number): void {
		const next = pages[at < 0 ? (by > 0 ? 0 : pages.length - 1) : (at + by + pages.length) % pages.length];
		if (next) onstep(next);
	}
	addActions('In Place', [
		{ title: 'The next page where it stands', keys: [']'], run: () => step(1) },
		{ title: 'The page before where it stands', keys: ['['], run: () => step(-1) },
	]);
</script>

{#if look}
	<p class="text-soft" data-where>
		For new shoppers on a {device} it stands for <b class="figure">{count(look.stands)}</b> of
		<span class="figure">{many(look.of, 'product')}</span>{#each look.hidden as by, n (by.id)}{n ? ', ' : '; '}{by.id
				? `“${by.name}” takes it from`
				: 'it is switched off for'}
			<span class="figure">{count(by.products)}</span>{/each}.
		{#if pages.length > 1}
			<Press small onpress={() => step(-1)} label="The page before where it stands">‹</Press>
			<span class="figure">{at < 0 ? '–' : at + 1}</span> of <span class="figure">{many(pages.length, 'page')}</span>
			<Press small onpress={() => step(1)} label="The next page where it stands">›</Press>
		{/if}
	</p>
{/if}
