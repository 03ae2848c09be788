<script lang="ts">
	import { client, data, Problem } from '$lib/api/client';
	import type { Placement } from '$lib/api/types';
	import { said } from '$lib/pure/format';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Inline from '$lib/ui/Inline.svelte';

	const workshop = useWorkshop();
	const store = $derived(workshop.info?.store);
	const more = $derived(store?.more_origins ?? []);
	/** Placements that lie on one page of the shop; a product's own page is told by the catalogue, a bar by every page. */
	const pages = $derived(
		(workshop.info?.marked ?? []).filter((place: Placement) => !['product_page', 'sticky_bar'].includes(place)),
	);
	const paths = $derived(
		Object.fromEntries(Object.entries(store?.surfaces ?? {}).map(([place, { page_path }]) => [place, page_path ?? ''])),
	);

	/** Registers addresses: visits of the server and signals of shoppers are allowed from them. */
	async function keep(told: { more_origins?: string[]; page_paths?: Record<string, string> }): Promise<void> {
		workshop.problem = null;
		const before = { more_origins: [...more], page_paths: paths };
		const body = { addresses: { ...before, ...told }, instead_of: before };
		try {
			await data(client.PUT('/api/stores/{store}/addresses', { params: { path: workshop.path }, body }));
			await workshop.reloadStore();
		} catch (error) {
			if (!(error instanceof Problem)) throw error;
			workshop.problem = error;
		}
	}
</script>

<p class="mt-1 leading-8">
	The shop is at <span class="figure">{store?.origin}</span>, also at <Inline
		label="Further addresses of the shop, with commas"
		value={more.join(', ')}
		empty="no other address"
		onset={(text) => keep({ more_origins: text.split(/[\s,]+/).filter(Boolean) })}
	/>{#each pages as place (place)}; {said(place)}s are seen at <Inline
			label="Page with {said(place)}s"
			value={paths[place] ?? ''}
			empty="the product’s page"
			onset={(path) => keep({ page_paths: { ...paths, [place]: path } })}
		/>{/each}.
</p>
