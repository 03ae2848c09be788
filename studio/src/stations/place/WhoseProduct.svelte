<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import type { DrawView } from '$lib/api/types';
	import type { Desk } from '$lib/state/desk.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import { yesOrNo } from '$lib/pure/picks';
	import Pick from '$lib/ui/Pick.svelte';
	import PagesMeant from './PagesMeant.svelte';
	import ProductPick from '../../shared/ProductPick.svelte';

	/** Whether something that hangs at the window stands for the page's own product, or for one on every page. */
	type Props = { desk: Desk; view: DrawView };
	let { desk, view }: Props = $props();
	const workshop = useWorkshop();
	const fixed = $derived(view.document.placement.product ?? '');
	const asked = createQuery(() => ({ ...workshop.ask.products(fixed), enabled: fixed !== '' }));
	const name = $derived(asked.data?.products.find(({ sku }) => sku === fixed)?.name ?? fixed);
	/** An exception is for products of the page, so that it cannot say which one that is. */
	const isPlaces = $derived(view.editing.layer.startsWith('place:'));
	const set = (product: string) => void desk.set('placement.product', product);
</script>

{#if isPlaces || fixed}
	<p>
		It stands for
		{#if isPlaces}<Pick
				label="Stands for"
				{...yesOrNo(fixed !== '', ['always the same product', 'the page’s own product'], (always) =>
					set(always ? view.seen.product.sku : ''),
				)}
			/>{:else}always the same product{/if}{#if fixed}, <ProductPick sku={fixed} {name} onpick={set} />, as that one’s
			own page tells it. It hangs on <PagesMeant
				pages={view.document.placement.pages ?? {}}
				onset={(patch) =>
					void desk.setAll(
						Object.fromEntries(Object.entries(patch).map(([name, value]) => [`placement.pages.${name}`, value])),
					)}
			/>{/if}.
	</p>
{/if}

<style>
	p {
		line-height: 1.85;
		font-size: 14.5px;
	}
</style>
