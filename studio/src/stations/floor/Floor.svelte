<script lang="ts">
	import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
	import type { Cell, FindingsView, Placement } from '$lib/api/types';
	import { capital, count, many, percent, said } from '$lib/pure/format';
	import { addActions } from '$lib/state/actions.svelte';
	import { DEVICES } from '$lib/pure/facts';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Findings from '$lib/ui/Findings.svelte';
	import { markCut } from '$lib/ui/markCut';
	import Marks from '$lib/ui/Marks.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import TrueButton from '$lib/ui/TrueButton.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';
	import type { Changes } from '$lib/state/context.svelte';
	import Exceptions from '../../shared/exceptions/Exceptions.svelte';
	import TakeCatalogue from './TakeCatalogue.svelte';

	const workshop = useWorkshop();
	const { context } = workshop;
	const device = $derived(context.device || 'desktop');
	const query = $derived({ device, language: workshop.shownLanguage });
	const floor = createQuery(() => ({ ...workshop.ask.floor(query), placeholderData: keepPreviousData }));
	/** How many of the worst findings are shown. */
	let most = $state(12);
	const findings = createQuery(() => ({
		...workshop.ask.findings({ ...query, most }),
		// While more of them arrive, those that are here stay; those of another draft do not.
		placeholderData: (before: FindingsView | undefined, by: { queryKey: readonly unknown[] } | undefined) =>
			by?.queryKey[2] === workshop.at.stamp ? before : undefined,
	}));
	const progress = createQuery(() => ({
		...workshop.ask.findingsProgress(),
		enabled: findings.isPending,
		refetchInterval: 400,
	}));
	const columns: Record<string, string> = {
		plain: 'plain',
		choice: 'needs a choice',
		set: 'a set',
		pre_order: 'pre-order',
		sold_out: 'sold out',
		in_basket: 'once in the basket',
	};
	const counts = $derived({
		must: findings.data?.must_fix ?? 0,
		look: findings.data?.look_again ?? 0,
		note: findings.data?.notes ?? 0,
	});
	const total = $derived(counts.must + counts.look + counts.note);
	const hasProducts = $derived(Boolean(workshop.info?.product_count));

	function weight(placement: Placement, cell: Cell) {
		return findings.data?.cells.find((cells) => cells.placement === placement && cells.column === cell.column);
	}
	/** What a button of the plan shows: its address at another station leads to the same. */
	function shownIn(placement: Placement, { button, product }: Cell): Changes {
		return { placement, product: product?.sku ?? '', device, moment: button?.moment ?? '' };
	}
	/** The button of the plan that has the keyboard. */
	let focused = $state.raw<{ placement: Placement; cell: Cell } | null>(null);
	addActions('On a button of the Floor', [
		{
			title: 'Why the button says what it says',
			keys: ['w'],
			when: () => Boolean(focused?.cell.button),
			run: () => {
				if (!focused?.cell.button) return;
				workshop.opened.trace = {
					placement: focused.placement,
					field: `wording.${focused.cell.button.moment}.${workshop.shownLanguage}`,
					product: focused.cell.product?.sku,
					...query,
				};
			},
		},
		{
			title: 'Edit the words of the button',
			keys: ['e'],
			when: () => Boolean(focused?.cell.button),
			run: () => focused && context.go('/words', shownIn(focused.placement, focused.cell)),
		},
	]);
</script>

{#if floor.data}
	<div class="floor">
		<section class="px-6 pt-3 pb-8" aria-label="Plan of the purchase buttons">
			<h1 class="mb-2 text-md font-normal">
				Every purchase button as seen on a
				<Pick
					label="Device"
					value={device}
					options={DEVICES.map((name) => ({ value: name, label: name }))}
					onpick={(to) => context.look({ device: to })}
				/>, in
				<Pick
					label="Language"
					value={workshop.shownLanguage}
					options={workshop.languageOptions}
					onpick={(language) => context.look({ language })}
				/>, signals of the last <b>{floor.data.days} days</b>, drawn <span class="figure">3:5</span>
			</h1>
			{#if hasProducts}
				<div class="plan">
					{#each floor.data.rows as row (row.placement)}
						{@const everywhere = findings.data?.rows.find((wholeRow) => wholeRow.placement === row.placement)}
						<div class="row">
							<div class="pr-2">
								<h2 class="text-md">
									<a href={context.href(`/draw/${row.placement}`)} class="no-underline"
										>{capital(said(row.placement))}</a
									>
								</h2>
								<p class="text-sm text-soft">{many(row.pages, row.stands_on)}</p>
								{#if everywhere?.must_fix}<p class="text-sm font-semibold text-must">
										▲ {everywhere.must_fix} in all of them
									</p>{/if}
								{#if everywhere?.look_again}<p class="text-sm font-semibold text-look">
										◇ {everywhere.look_again} in all of them
									</p>{/if}
							</div>
							{#each row.cells as cell (cell.column)}
								{@const weights = weight(row.placement, cell)}
								<div class="cell">
									<p class="text-sm text-soft">
										{#if cell.button && cell.stands}<a
												href={context.href('/words', shownIn(row.placement, cell))}
												class="target text-soft no-underline hover:underline"
												aria-label="Words: {said(row.placement)}, {columns[cell.column]}">{columns[cell.column]}</a
											>{:else}{columns[cell.column]}{/if}
										{#if weights?.must_fix}<b class="text-must" title="{weights.must_fix} to fix">▲</b>
										{:else if weights?.look_again}<b class="text-look" title="{weights.look_again} to look at again"
												>◇</b
											>{/if}
										{#each cell.trials as number (number)}
											<a
												href={context.href(`/trials/${number}`)}
												class="target font-semibold whitespace-nowrap text-b no-underline"
												aria-label="Trial {number}">A | B</a
											>
										{/each}
									</p>
									{#if cell.button && cell.stands}
										<a
											class="stand"
											href={context.href('/draw', shownIn(row.placement, cell))}
											aria-label="Draw: {cell.button.text}"
											aria-keyshortcuts="w e"
											onfocus={() => (focused = { placement: row.placement, cell })}
											onblur={() => (focused = null)}
											{@attach markCut}
										>
											<TrueButton {...cell.button} least={Math.min(row.room_px, 130)} />
										</a>
									{:else}
										<svg
											class="none"
											viewBox="0 0 44 16"
											width="44"
											height="16"
											role="img"
											aria-label={cell.button ? 'No button is shown here' : 'No product needs this'}
										>
											<path d="M2 15 14 2M12 15 24 2M22 15 34 2" />
										</svg>
									{/if}
									<p class="foot">
										{#if cell.shown}
											<span class="figure">{percent(cell.clicked / cell.shown)}</span>
											<span class="text-soft">of {count(cell.shown)}</span>
										{:else if cell.products}<span class="text-soft">{many(cell.products, 'product')}</span>{/if}
										{#if cell.exceptions.length}
											<Marks
												exceptions={cell.exceptions}
												of={cell.products}
												where="{said(row.placement)}, {columns[cell.column]}"
												onopen={(id) => (workshop.opened.exception = id)}
											/>
										{/if}
									</p>
								</div>
							{/each}
							<div class="text-right">
								{#if row.shown}
									<p class="figure text-lg">{percent(row.clicked / row.shown)}</p>
									<p class="text-sm text-soft">clicks of</p>
									<p class="text-sm text-soft"><span class="figure">{count(row.shown)}</span> views</p>
								{:else}
									<p class="text-sm text-soft">no signals yet</p>
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
		<aside class="border-l border-hair px-5 pt-4" aria-label="Findings and trials">
			<h2 class="text-md">
				Findings
				{#if counts.must}<span class="figure text-must">▲ {counts.must}</span>{/if}
				{#if counts.look}<span class="figure text-look">◇ {counts.look}</span>{/if}
				{#if counts.note}<span class="figure text-soft">– {counts.note}</span>{/if}
			</h2>
			{#if findings.data}
				<Findings
					findings={findings.data.findings}
					withPlace
					{total}
					onmore={() => (most += 40)}
					onfix={(fix) => workshop.fix(fix)}
				/>
				{#if !total}
					<p class="mt-2 text-soft">
						Nothing. Words can be read, fit where they stand, and a finger can hit every button.
					</p>
				{/if}
			{:else if hasProducts}
				<Waiting
					what="Checking every kind of button"
					done={progress.data?.done}
					of={progress.data?.of}
					error={findings.error}
					onretry={() => findings.refetch()}
				/>
			{/if}
			{#each floor.data.running as trial (trial.number)}
				<p class="mt-4 border-t border-hair pt-3 text-md">
					<a href={context.href(`/trials/${trial.number}`)} class="font-bold text-b">A | B running</a>
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
	<Waiting what="Loading the floor" error={floor.error} onretry={() => floor.refetch()} />
{/if}

<style>
	.floor {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 290px;
		min-height: calc(100vh - 67px);
	}
	.row {
		display: grid;
		/* Wide enough for the words of each column beside a scrollbar that takes room. */
		grid-template-columns:
			108px minmax(0, 1.1fr) minmax(0, 1fr) minmax(0, 1fr) minmax(0, 1.15fr) minmax(0, 1.05fr) minmax(0, 1.6fr)
			66px;
		gap: 8px;
		border-top: 1px solid var(--color-hair);
		padding: 8px 0 6px;
		min-height: 88px;
		line-height: 1.3;
	}
	.row:last-child {
		border-bottom: 1px solid var(--color-hair);
	}
	.stand {
		display: inline-block;
		max-width: 100%;
		min-width: 40px;
		min-height: 40px;
		overflow: hidden;
		zoom: 0.6;
	}
	.stand:hover,
	.stand:focus-visible {
		overflow: visible;
		mask-image: none;
		position: relative;
		z-index: 2;
	}
	.stand:focus-visible {
		zoom: 1;
	}
	.foot {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0 6px;
		margin-top: 1px;
		font-size: 11px;
	}
	.none {
		display: block;
		margin: 6px 0;
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
			min-width: 960px;
		}
	}
</style>
