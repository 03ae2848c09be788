<script lang="ts">
	import type { Placement } from '$lib/api/types';
	import { said } from '$lib/pure/format';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Field from '$lib/ui/Field.svelte';

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

	function keep(changes: { more_origins?: string[]; page_paths?: Record<string, string> }): Promise<boolean> {
		const before = { more_origins: [...more], page_paths: paths };
		return workshop.setAddresses({ ...before, ...changes }, before);
	}
</script>

<p class="mt-1 leading-8">
	The shop is at <span class="figure">{store?.origin}</span>, also at <Field
		mono
		label="Further addresses of the shop, with commas"
		value={more.join(', ')}
		usual="no other address"
		onset={(text) => keep({ more_origins: text.split(/[\s,]+/).filter(Boolean) })}
	/>{#each pages as place (place)}; {said(place)}s are seen at <Field
			mono
			label="Page with {said(place)}s"
			value={paths[place] ?? ''}
			usual="the product’s page"
			onset={(path) => keep({ page_paths: { ...paths, [place]: path } })}
		/>{/each}.
</p>
