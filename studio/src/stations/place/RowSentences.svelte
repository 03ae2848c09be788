<script lang="ts">
	import type { Row, Tile } from '$lib/api/types';
	import { DEVICES } from '$lib/pure/facts';
	import { yesOrNo } from '$lib/pure/picks';
	import { spotWords } from '$lib/pure/spots';
	import type { PointingAt } from '$lib/state/pointing.svelte';
	import Empty from '$lib/ui/Empty.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import ProductPick from '../../shared/ProductPick.svelte';
	import TileLine from './TileLine.svelte';
	import Field from '$lib/ui/Field.svelte';

	/** What a place brings itself: products with their pictures, in a row. */
	type Props = { at: PointingAt; row: Row; language: string; onchange: (row: Row) => void };
	let { at: pointing, row, language, onchange }: Props = $props();
	const MOST = 12;
	const tiles = $derived(row.products ?? []);
	type Anchor = NonNullable<Row['anchor']>;
	const anchors = $derived([
		{ value: '', label: 'under the words' },
		...(['top_start', 'top', 'top_end', 'start', 'middle', 'end', 'bottom_start', 'bottom', 'bottom_end'] as const).map(
			(anchor) => ({ value: anchor, label: `on the picture, ${spotWords(anchor, false)}` }),
		),
	]);
	const prices = [
		{ value: 'with_tax', label: 'with its price' },
		{ value: 'without_tax', label: 'with its price without tax' },
		{ value: 'none', label: 'without a price' },
	] as const;
	const ratios = [
		{ value: '1', label: 'square' },
		{ value: '0.8', label: '4 wide by 5 high' },
		{ value: '0.75', label: '3 wide by 4 high' },
		{ value: '1.25', label: '5 wide by 4 high' },
		{ value: '1.5', label: '3 wide by 2 high' },
		{ value: '1.78', label: '16 wide by 9 high' },
	];
	const across = [1, 2, 3, 4].map((n) => ({ value: String(n), label: n === 1 ? 'one' : `${n} side by side` }));
	const ratioOptions = (ratio: number) =>
		ratios.some(({ value }) => Number(value) === ratio)
			? ratios
			: [...ratios, { value: String(ratio), label: `${ratio} : 1` }];
	const set = (patch: Partial<Row>) => onchange({ ...row, ...patch });
	const setTiles = (products: Tile[]) => set({ products });

	function move(at: number, by: number): void {
		const all = [...tiles];
		const [moved] = all.splice(at, 1);
		if (!moved) return;
		all.splice(at + by, 0, moved);
		setTiles(all);
	}

	function add(sku: string): void {
		if (tiles.some((tile) => tile.sku === sku)) return;
		// The page's address is the catalogue's.
		setTiles([...tiles, { sku, path: '/', across: 50, down: 50 }]);
	}
</script>

<section aria-label="What it brings">
	<p>
		It brings <Pick
			label="What the row brings"
			{...yesOrNo(row.seen ?? false, ['what the browser saw last', 'these products'], (seen) => set({ seen }))}
		/>{#if row.seen}, <Figure
				label="Most tiles"
				value={row.most ?? 4}
				least={1}
				most={MOST}
				unit="tiles"
				onset={(value: number) => set({ most: Math.round(value) })}
			/> at most, and these until it saw any{/if}:
	</p>
	<ul>
		{#each tiles as tile, at (tile.sku)}
			<TileLine
				{tile}
				{at}
				picturesAt={pointing}
				of={tiles.length}
				onchange={(changed) => setTiles(tiles.map((other) => (other === tile ? changed : other)))}
				onmove={(by) => move(at, by)}
				onremove={() => setTiles(tiles.filter((other) => other !== tile))}
			/>
		{:else}
			<Empty tag="li">
				{row.seen ? 'Until a browser saw a product, nothing stands here.' : 'No product yet.'}
			</Empty>
		{/each}
	</ul>
	{#if tiles.length < MOST}
		<p>Add <ProductPick sku="" name="a product" onpick={add} /></p>
	{/if}
	<p>
		{#each DEVICES as device, n (device)}{n ? '; ' : ''}<Pick
				label="Side by side on a {device}"
				value={String(row[device]?.across)}
				options={across}
				onpick={(value) => set({ [device]: { ...row[device], across: Number(value) } })}
			/>, <Pick
				label="Shape of the pictures on a {device}"
				value={String(row[device]?.ratio ?? 1)}
				options={ratioOptions(row[device]?.ratio ?? 1)}
				onpick={(value) => set({ [device]: { ...row[device], ratio: Number(value) } })}
			/> on a {device}{/each}, <Figure
			label="Gap between tiles"
			value={row.gap_px ?? 16}
			most={64}
			onset={(value: number) => set({ gap_px: value })}
		/> px apart, with corners of <Figure
			label="Corners of the pictures"
			value={row.radius_px ?? 0}
			most={64}
			onset={(value: number) => set({ radius_px: value })}
		/> px and <Pick
			label="Shadow of the pictures"
			{...yesOrNo(row.shadow ?? false, ['a shadow', 'no shadow'], (shadow) => set({ shadow }))}
		/>.
	</p>
	<p>
		Each stands <Pick
			label="Name of the product"
			{...yesOrNo(row.name ?? true, ['with its name', 'without its name'], (name) => set({ name }))}
		/> and <Pick
			label="Price of the product"
			value={row.price ?? 'with_tax'}
			options={prices}
			onpick={(price) => set({ price })}
		/>; its button stands <Pick
			label="Where the button stands"
			value={row.anchor ?? ''}
			options={anchors}
			onpick={(anchor) => set({ anchor: anchor as Anchor })}
		/>{#if row.anchor}, <Figure
				label="Distance from the picture's edges"
				value={row.inset_px ?? 10}
				most={64}
				onset={(value: number) => set({ inset_px: value })}
			/> px inside{/if}.
	</p>
	<p>
		Its heading in {language} is <Field
			mono
			label="Heading of the row"
			value={row.heading?.[language] ?? ''}
			usual="none"
			onset={(text) =>
				set({
					heading: Object.fromEntries(
						Object.entries({ ...row.heading, [language]: text }).filter(([, words]) => words),
					),
				})}
		/>.
	</p>
	<p class="text-soft">
		Name, price and picture are read from each product’s own page when the row comes near, so they are never old. A
		product whose page does not tell it is left out, and so is the one whose page it is.
		{#if row.seen}What a browser saw stays in that browser, without an id: for the visit, longer only where consent is
			given, and it is forgotten where that is refused.{/if}
	</p>
</section>

<style>
	section {
		margin-top: 4px;
	}
	ul {
		border-block: 1px solid var(--color-hair);
		padding-block: 4px;
	}
</style>
