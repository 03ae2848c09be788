<script lang="ts">
	import type { Placement, PointedPlace, SelectorChoice } from '$lib/api/types';
	import { px } from '$lib/pure/format';
	import { yesOrNo } from '$lib/pure/picks';
	import { tellingSaid } from '$lib/pure/places';
	import type { PointingAt } from '$lib/state/pointing.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import PagesMeant from './PagesMeant.svelte';
	import RowSentences from './RowSentences.svelte';
	import Field from '$lib/ui/Field.svelte';

	type Props = { at: PointingAt; kinds: readonly { value: Placement; label: string }[] };
	let { at, kinds }: Props = $props();
	const workshop = useWorkshop();
	const place = $derived(at.place!);
	/** Tiles bring their products, and so may a strip; a place that was opened again may have none to begin with. */
	const firstRow = $derived(place.row ?? at.made?.row ?? null);
	const usableKinds = $derived(kinds.filter(({ value }) => value !== 'tile' || firstRow));
	const choices = $derived(at.made?.choices ?? []);
	const chosen = $derived(choices.find(({ found }) => found.selector === place.selector));
	const allWheres = [
		{ value: 'instead', label: 'instead of' },
		{ value: 'before', label: 'before' },
		{ value: 'after', label: 'after' },
		{ value: 'inside', label: 'inside, at the end of' },
	] as const;
	/** What lies on a picture or brings its own hides nothing of the page. */
	const LIES_BESIDE: readonly Placement[] = ['over_picture', 'tile'];
	const wheres = $derived(
		allWheres.filter(({ value }) => value !== 'instead' || !LIES_BESIDE.includes(place.placement)),
	);
	const selectors = $derived(
		choices.map(({ found, survey }) => ({
			value: found.selector,
			label: `${survey.weight === 'broken' ? '▲ ' : ''}${found.selector} · ${foundSaid(found)}`,
		})),
	);
	function foundSaid({ count, each, weak }: SelectorChoice['found']): string {
		const many = each ? `one in each, ${count}` : count === 1 ? 'just this one' : `${count} of them`;
		return weak?.length ? `${many}; ${weak.join(', ')}` : many;
	}
	function change(patch: Partial<PointedPlace>): void {
		void at.set({ ...place, ...patch });
	}
	function pages(patch: Partial<NonNullable<PointedPlace['pages']>>): void {
		change({ pages: { ...place.pages, ...patch } });
	}
	const names = (text: string) =>
		text
			.split(',')
			.map((name) => name.trim())
			.filter(Boolean);
	const widths = $derived(Object.entries(place.widths_px ?? {}));
</script>

<h1 class="text-xl">
	{#if at.at?.words}“{at.at.words}”{:else if at.made}{at.made.element}{:else}A place{/if}
</h1>
<div class="sentences">
	<p>
		{place.row ? 'The row of' : 'The button of'}
		<Pick
			label="What the place is for"
			value={place.placement}
			options={usableKinds}
			onpick={(placement) =>
				change({
					placement,
					where: LIES_BESIDE.includes(placement) && place.where === 'instead' ? 'after' : place.where,
					row: placement === 'tile' ? firstRow : placement === 'strip' ? place.row : null,
				})}
		/> stands <Pick label="Where" value={place.where} options={wheres} onpick={(where) => change({ where })} />
		{#if selectors.length > 1}
			<Pick
				label="Selector"
				value={place.selector}
				options={selectors}
				onpick={(selector) => {
					const choice = choices.find(({ found }) => found.selector === selector);
					if (choice) void at.choose(choice);
				}}
			/>
		{:else}what the selector finds.{/if}
	</p>
	<p>
		The selector is <Field
			mono
			label="Selector by hand"
			value={place.selector}
			onset={(selector) => selector && change({ selector })}
		/>
	</p>
	{#if chosen?.found.weak?.length}
		<p class="text-look">◇ {chosen.found.weak.join('; ')}.</p>
	{/if}
	<p>
		It is looked for on <PagesMeant pages={place.pages ?? {}} onset={pages} />
	</p>
	<p>
		for <Field
			mono
			label="Categories, with commas"
			value={(place.pages?.categories ?? []).join(', ')}
			usual="every category"
			onset={(text) => pages({ categories: names(text) })}
		/> and <Field
			mono
			label="Products by their codes, with commas"
			value={(place.pages?.products ?? []).join(', ')}
			usual="every product"
			onset={(text) => pages({ products: names(text) })}
		/>, but not for <Field
			mono
			label="Products that are not meant, by their codes"
			value={(place.pages?.not_products ?? []).join(', ')}
			usual="none"
			onset={(text) => pages({ not_products: names(text) })}
		/>.
	</p>
	{#if place.placement === 'strip' && firstRow}
		<p>
			Its products are <Pick
				label="Whose products it shows"
				{...yesOrNo(!!place.row, ['brought by us', 'the page’s own'], (brings) =>
					change({ row: brings ? { ...firstRow, seen: true } : null }),
				)}
			/>.
		</p>
	{/if}
	{#if place.row}
		<RowSentences {at} row={place.row} language={workshop.shownLanguage} onchange={(row) => change({ row })} />
	{/if}
	<p class="text-soft">
		{#if !place.row}Its product is told {tellingSaid(place.telling)}.{/if}
		{#if widths.length}
			It may be
			{#each widths as [device, width], n (device)}{n ? ', ' : ''}<span class="figure text-ink">{px(width)}</span> on a {device}{/each}
			wide.
		{/if}
		{#if place.where !== 'instead'}
			What stands after it moves down once when it comes, and the shop’s own button stays.
		{/if}
	</p>
	{#if workshop.info && !workshop.info.store.surfaces[place.placement]}
		<p class="text-soft">
			The shop has had no {place.placement.replace('_', ' ')} until now; the draft draws one from here on.
		</p>
	{/if}
</div>

<style>
	.sentences {
		margin-top: 8px;
	}
	.sentences p {
		line-height: 2;
	}
	.sentences :global(.value) {
		max-width: 100%;
	}
</style>
