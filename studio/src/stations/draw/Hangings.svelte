<script lang="ts">
	import type { CompiledButton, DrawView } from '$lib/api/types';
	import { capital, said } from '$lib/pure/format';
	import { DEVICES } from '$lib/pure/facts';
	import type { Changes } from '$lib/state/context.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import { markCut } from '$lib/ui/markCut';
	import Pick from '$lib/ui/Pick.svelte';
	import ProductPick from '../../shared/ProductPick.svelte';
	import TrueButton from '$lib/ui/TrueButton.svelte';

	type Props = {
		view: DrawView;
		/** Begins an exception from what is seen. */
		onnarrow: () => void;
	};
	let { view, onnarrow }: Props = $props();
	const workshop = useWorkshop();
	const NEW = 'new';
	/** Something stands beside it. */
	const isRow = (button: CompiledButton) => Boolean(button.quantity || button.second);
	/** A placement that stands for chosen products shows one of those; the others keep the one that was asked for. */
	const wished = $derived(workshop.context.product || view.seen.product.sku);
	/** Beside many others each is drawn smaller. */
	const scale = $derived(view.hanging.length > 5 ? 0.62 : 0.72);
	/** Looks at another button; what takes its edits is its own narrowest layer. */
	function see(changes: Changes): void {
		workshop.context.look({ ...changes, layer: '' });
	}
</script>

<nav class="hangings" aria-label="Placements">
	{#each view.hanging as hung (hung.placement)}
		<a
			href={workshop.context.href(`/draw/${hung.placement}`, { product: wished })}
			class="hung"
			aria-current={hung.placement === view.seen.placement ? 'page' : undefined}
		>
			<span class="mb-2 flex items-center justify-between gap-2">
				<b class="name">{capital(said(hung.placement))}</b>
				{#if hung.must_fix}<b class="figure text-must">▲ {hung.must_fix}</b>
				{:else if hung.look_again}<b class="figure text-look">◇ {hung.look_again}</b>{/if}
			</span>
			<span class="mini" {@attach markCut} style:zoom={isRow(hung.shown.button) ? 0.5 : scale}
				><TrueButton {...hung.shown} room={isRow(hung.shown.button) ? 380 : 190} /></span
			>
		</a>
	{/each}
	<p class="seen text-md">
		seen by
		{#if view.seen.of.length}
			<Pick
				label="Product"
				value={view.seen.product.sku}
				options={view.seen.of.map(({ sku, name }) => ({ value: sku, label: name }))}
				onpick={(sku) => see({ product: sku })}
			/>
		{:else}
			<ProductPick sku={view.seen.product.sku} name={view.seen.product.name} onpick={(sku) => see({ product: sku })} />
		{/if}<br />
		on a
		<Pick
			label="Device"
			value={view.seen.device}
			options={DEVICES.map((device) => ({ value: device, label: device }))}
			onpick={(device) => see({ device })}
		/>, in
		<Pick
			label="Language"
			value={view.seen.language}
			options={workshop.languageOptions}
			onpick={(language) => see({ language })}
		/><br />
		edits go to
		<Pick
			label="Edits go to"
			value={view.editing.layer}
			options={[
				...view.editing.layers.map((layer) => ({ value: layer.layer, label: layer.title })),
				{ value: NEW, label: 'only…' },
			]}
			onpick={(to) => (to === NEW ? onnarrow() : workshop.context.look({ layer: to }))}
		/>
	</p>
</nav>

<style>
	.hangings {
		display: flex;
		align-items: stretch;
		padding: 8px 24px 0;
	}
	.hung {
		flex: 0 1 172px;
		min-width: 0;
		padding: 8px 12px 10px;
		border-top: 5px solid transparent;
		text-decoration: none;
	}
	.hung[aria-current] {
		border-color: var(--color-ink);
		background: var(--color-leaf);
	}
	.hung[aria-current] .name {
		background: var(--color-marker);
		padding: 0 6px;
	}
	.mini {
		display: block;
		overflow: hidden;
	}
	.name {
		white-space: nowrap;
	}
	.seen {
		flex: none;
		margin-left: auto;
		align-self: center;
		text-align: right;
		line-height: 1.9;
	}
	@media (max-width: 1000px) {
		.hangings {
			flex-wrap: wrap;
		}
	}
</style>
