<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { client, data } from '$lib/api/client';
	import type { Cell, Placement } from '$lib/api/types';
	import { capital, count, many, percent, said } from '$lib/pure/format';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Findings from '$lib/ui/Findings.svelte';
	import TrueButton from '$lib/ui/TrueButton.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';
	import Exceptions from './parts/Exceptions.svelte';
	import TakeCatalogue from './parts/TakeCatalogue.svelte';

	const workshop = useWorkshop();
	const floor = createQuery(() => ({
		queryKey: ['floor', workshop.store],
		queryFn: () => data(client.GET('/api/stores/{store}/floor', { params: { path: workshop.path } })),
	}));
	$effect(() => {
		if (floor.data) workshop.sees(floor.data.draft);
	});
	const columns: Record<string, string> = {
		plain: 'plain',
		choice: 'needs a choice',
		sold_out: 'sold out',
		in_basket: 'once in the basket',
	};
	const counts = $derived({
		must: floor.data?.findings.filter((f) => f.weight === 'must_fix').length ?? 0,
		look: floor.data?.findings.filter((f) => f.weight === 'look_again').length ?? 0,
		note: floor.data?.findings.filter((f) => f.weight === 'note').length ?? 0,
	});
	const hasProducts = $derived(Boolean(workshop.info?.products.length));

	function drawHref(placement: Placement, cell: Cell): string {
		return `/draw/${placement}?product=${encodeURIComponent(cell.product?.sku ?? '')}`;
	}
	function room(placement: Placement): number {
		return Math.min(...Object.values(workshop.info?.store.surfaces[placement]?.widths_px ?? { any: 200 }), 186);
	}
</script>

{#if floor.data}
	<div class="floor">
		<section class="px-6 pt-4" aria-label="Plan of the purchase buttons">
			<h1 class="mb-3 text-md font-normal">
				Every purchase button of the shop, in <b>{workshop.language}</b>, with signals of the last
				<b>{floor.data.days} days</b>, drawn at <span class="figure">4:5</span>
			</h1>
			{#if hasProducts}
				<div class="plan">
					{#each floor.data.rows as row (row.placement)}
						<div class="row">
							<div class="pr-4">
								<h2 class="text-md">
									<a href="/draw/{row.placement}" class="no-underline">{capital(said(row.placement))}</a>
								</h2>
								<p class="text-soft">{many(row.pages, row.placement === 'product_page' ? 'page' : 'list')}</p>
							</div>
							{#each row.cells as cell (cell.column)}
								<div class="cell">
									<p class="mb-2 text-sm text-soft">
										{columns[cell.column]}
										{#if cell.must_fix}<b class="text-must" title="{cell.must_fix} to fix">▲</b>
										{:else if cell.look_again}<b class="text-look" title="{cell.look_again} to look at again">◇</b>{/if}
										{#if cell.exceptions.length}
											<a href="/words" class="figure text-ink no-underline" title={cell.exceptions.join(', ')}
												>+{cell.exceptions.length}<span class="sr-only">
													exceptions: {cell.exceptions.join(', ')}</span
												></a
											>
										{/if}
										{#each cell.trials as number (number)}
											<a href="/trials/{number}" class="font-semibold text-b no-underline" aria-label="Trial {number}"
												>A | B</a
											>
										{/each}
									</p>
									{#if cell.shown}
										<a class="stand" href={drawHref(row.placement, cell)} aria-label="Draw: {cell.shown.text}">
											<TrueButton {...cell.shown} least={room(row.placement)} />
										</a>
										<p class="mt-1 text-xs text-soft">
											{many(cell.products, 'product')}{cell.shown.button.wide ? ', full width' : ''}
										</p>
									{:else}
										<svg
											class="none"
											viewBox="0 0 44 16"
											width="44"
											height="16"
											role="img"
											aria-label="No product needs this"
										>
											<path d="M2 15 14 2M12 15 24 2M22 15 34 2" />
										</svg>
									{/if}
								</div>
							{/each}
							<div class="text-right">
								{#if row.shown}
									<p class="figure text-lg">{percent(row.clicked / row.shown)}</p>
									<p class="text-soft">pressed, of</p>
									<p class="figure text-soft">{count(row.shown)} shown</p>
								{:else}
									<p class="text-soft">no signals yet</p>
								{/if}
							</div>
						</div>
					{/each}
				</div>
				<Exceptions />
				{#each Object.entries(floor.data.refused) as [reason, n] (reason)}
					<p class="mt-3 text-soft">{many(n, 'signal')} refused: {said(reason)}</p>
				{/each}
			{/if}
			<TakeCatalogue />
		</section>
		<aside class="border-l border-hair px-6 pt-4" aria-label="Findings and trials">
			<h2 class="text-md">
				Findings
				{#if counts.must}<span class="figure text-must">▲ {counts.must}</span>{/if}
				{#if counts.look}<span class="figure text-look">◇ {counts.look}</span>{/if}
				{#if counts.note}<span class="figure text-soft">– {counts.note}</span>{/if}
			</h2>
			<Findings findings={floor.data.findings} withPlace onmend={(mend) => workshop.change(mend.layer, mend.patch)} />
			{#if !floor.data.findings.length}
				<p class="mt-2 text-soft">
					Nothing. Words can be read, fit where they stand, and a finger can hit every button.
				</p>
			{/if}
			{#each floor.data.running as trial (trial.number)}
				<p class="mt-4 border-t border-hair pt-3 text-md">
					<a href="/trials/{trial.number}" class="font-bold text-b">A | B running</a>
					{trial.question}
					{#if trial.day > trial.days}
						<span class="text-soft">The days that were planned are over: see whether it can be read.</span>
					{:else}
						<span class="text-soft"
							>Day <span class="figure">{trial.day}</span> of <span class="figure">{trial.days}</span>.</span
						>
					{/if}
				</p>
			{/each}
		</aside>
	</div>
{:else}
	<Waiting what="Laying out the floor" error={floor.error} onretry={() => floor.refetch()} />
{/if}

<style>
	.floor {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 310px;
		min-height: calc(100vh - 67px);
	}
	.row {
		display: grid;
		grid-template-columns: 124px repeat(3, minmax(0, 1fr)) minmax(0, 1.4fr) 100px;
		gap: 8px;
		border-top: 1px solid var(--color-hair);
		padding: 24px 0;
		min-height: 156px;
	}
	.row:last-child {
		border-bottom: 1px solid var(--color-hair);
	}
	.stand {
		display: inline-block;
		max-width: 100%;
		overflow: hidden;
		zoom: 0.8;
	}
	.stand:focus-visible {
		zoom: 1;
		overflow: visible;
		position: relative;
		z-index: 2;
	}
	.none path {
		stroke: var(--color-soft);
	}
	@media (max-width: 1000px) {
		.floor {
			grid-template-columns: minmax(0, 1fr);
		}
		.plan {
			overflow-x: auto;
		}
		.row {
			min-width: 860px;
		}
	}
</style>
