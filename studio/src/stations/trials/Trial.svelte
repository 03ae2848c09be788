<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import type { TrialView } from '$lib/api/types';
	import { capital, count, date, listed, said } from '$lib/pure/format';
	import { Trying } from '$lib/state/trying.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import Press from '$lib/ui/Press.svelte';
	import TrueButton from '$lib/ui/TrueButton.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';
	import { param } from '$lib/state/way';
	import Intervals from './Intervals.svelte';
	import PlanOfTrial from './PlanOfTrial.svelte';
	import Progress from './Progress.svelte';
	import VersionB from './VersionB.svelte';

	const workshop = useWorkshop();
	const { context } = workshop;
	const number = $derived(Number(param('number')));
	const trial = createQuery(() => ({ ...workshop.ask.trial(number), refetchInterval: 5_000 }));
	const view = $derived(trial.data);
	const base = createQuery(() => ({
		...workshop.ask.drawing({ path: { ...workshop.path, placement: view?.placement ?? 'product_page' }, query: {} }),
		enabled: view?.trial.state === 'drawn',
	}));

	const STATES = { hover: 'hovered', focus: 'focused', pressed: 'pressed' } as const;
	const acts = new Trying(workshop, () => number);
	let daysAgo = $state(0);
	const room = $derived(
		Math.min(300, ...Object.values(workshop.info?.store.surfaces[view?.placement ?? 'product_page']?.widths_px ?? {})),
	);
	const where = $derived(
		view
			? [view.placement, ...(view.trial.reach.categories ?? []), ...(view.trial.reach.products ?? [])]
					.map(said)
					.join(', ')
			: '',
	);
	/** So many exceptions are named. */
	const MOST = 6;
	/** Releases that changed its buttons while it ran. */
	const mixed = $derived(view?.trial.mixed_by ?? []);
	/** Ending it has been pressed once: that cannot be taken back. */
	let isEnding = $state(false);
	const canKeep = $derived(Boolean(view?.readout?.reading) && view?.readout?.verdict.outcome !== 'do_not_read');
	const link = (letter: string) => `${view?.product_url}?up-show=${number}.${letter}`;
</script>

{#snippet versions(one: TrialView)}
	<div class="mt-4 flex flex-wrap items-start gap-x-10 gap-y-4">
		{#each [{ letter: 'A', shown: one.a }, { letter: 'B', shown: one.b }] as { letter, shown } (letter)}
			<div class="flex items-start gap-3">
				<b class={['text-lg', letter === 'B' && 'text-b']}>{letter}</b>
				<div>
					<TrueButton {...shown} {room} look={one.state === 'rest' ? undefined : one.state} />
					<p class="mt-1"><a href={link(letter)} target="_blank" rel="noopener">See {letter} in the shop</a></p>
				</div>
			</div>
		{/each}
	</div>
	<p class="mt-2 text-soft">
		{#if one.differs}
			On {one.product}, {said(one.a.moment)}{one.state === 'rest' ? '' : `, ${STATES[one.state]}`}.
		{:else if one.fields.length}
			On no product of this trial can a difference be seen.
		{/if}
	</p>
	<ul class="mt-2">
		{#each one.fields as field, n (n)}
			<li>
				{capital(field.field)}: <span class="text-soft">{field.before} →</span> <b class="text-b">{field.after}</b>
			</li>
		{:else}
			<li class="text-soft">B is still the same as A.</li>
		{/each}
	</ul>
{/snippet}

{#if view}
	<div class="trial">
		<section class="px-6 pt-5 pb-8" aria-label="Trial">
			<p class="text-soft">
				<a href={context.href('/trials')}>Trials</a> · {view.trial.number} · {where}
				{#if view.trial.state === 'running'}· running since {date(view.trial.started_at ?? '')}{/if}
				{#if view.trial.state === 'closed'}· closed {date(view.trial.closed_at ?? '')}{/if}
			</p>
			{#if view.trial.state === 'drawn'}
				<h1 class="text-2xl leading-tight">{view.trial.question}</h1>
				{@render versions(view)}
				<h2 class="mt-6 mb-1 text-md">What B changes</h2>
				{#if base.data}
					<VersionB {view} base={base.data.document} onpatch={(patch) => acts.change({ patch })} />
				{/if}
				<h2 class="mt-6 mb-1 text-md">What decides</h2>
				<p class="text-md">
					Shoppers are dealt half and half. What counts is whether they
					<Pick
						label="Measure"
						value={view.trial.decides}
						options={[
							{ value: 'added', label: 'add it to the basket' },
							{ value: 'ordered', label: 'order it' },
						]}
						onpick={(value) => acts.change({ decides: value as 'added' | 'ordered' })}
					/>
					within <b class="figure">{view.trial.window_days}</b> days. The smallest difference worth having is
					<Figure
						label="smallest difference"
						unit="%"
						value={Math.round(view.trial.relative_difference * 1000) / 10}
						least={1}
						most={200}
						onset={(value) => acts.change({ relative_difference: value / 100 })}
					/>
					% of what A does.
				</p>
				<div class="mt-3"><PlanOfTrial {view} /></div>
			{:else if view.readout}
				<h1 class="mt-1 text-2xl leading-tight" data-outcome={view.readout.verdict.outcome}>
					{#if view.trial.state === 'closed'}
						{view.trial.kept} was kept on {date(view.trial.closed_at ?? '')}.
					{:else}
						{view.readout.verdict.sentence}
					{/if}
				</h1>
				{#if view.trial.state === 'closed'}
					<p class="mt-1 text-md">The numbers then: “{view.readout.verdict.sentence}”</p>
				{/if}
				<p class="mt-1 text-md text-soft">{view.trial.question}</p>
				{#if mixed.length}
					<p class="mt-3 max-w-xl text-md">
						<b class="text-look">◇ Not one comparison.</b>
						{mixed.length === 1 ? `Release ${mixed[0]}` : `Releases ${listed(mixed.map(String))}`}
						changed buttons of this trial while it ran: the numbers of A and of B mix what was before and after. To be sure,
						ask the question again with today’s buttons.
					</p>
				{/if}
				{@render versions(view)}
				<Progress {view} />
				{#if view.readout.reading}
					<Intervals {view} />
				{:else}
					<p class="mt-6 max-w-xl text-md">
						The rates stay covered until {count(view.readout.progress.planned)} shoppers have had their time. Whoever looks
						early and stops at a lucky moment is wrong far more often than 1 time in 20.
					</p>
				{/if}
			{/if}
		</section>
		<aside class="border-l border-hair px-6 pt-5" aria-label="What to do">
			{#if view.trial.state === 'drawn'}
				<Press
					main
					disabled={!view.planned.plan || !view.fields.length || workshop.saving}
					onpress={() => acts.start(daysAgo)}>Start the trial</Press
				>
				<p class="mt-3 text-soft">Once it has started, B, the measure and the plan are frozen.</p>
				{#if workshop.info?.store.is_practice}
					<p class="mt-5 border-t border-hair pt-4 text-md">
						On the practice store’s own clock it starts
						<Figure
							label="days ago"
							unit="days"
							value={daysAgo}
							least={0}
							most={120}
							onset={(value) => (daysAgo = Math.round(value))}
						/>
						days ago.
					</p>
					<p class="mt-1 text-soft">
						The plan takes the pace of the days before. Then
						<a href="{workshop.info.store.origin}/shoppers" target="_blank" rel="noopener">send practice shoppers</a>
						through the days since.
					</p>
				{/if}
			{:else if view.trial.state === 'running'}
				{#if isEnding}
					<p class="text-md" role="alert">
						End trial {number} and keep A? Shoppers get A alone from now on. Its numbers are kept as they are; it cannot run
						on.
					</p>
					<p class="mt-3 flex flex-wrap gap-2">
						<Press main disabled={workshop.saving} onpress={() => acts.close()}>End it, keep A</Press>
						<Press onpress={() => (isEnding = false)}>Cancel</Press>
					</p>
				{:else}
					<p class="flex flex-wrap gap-2">
						<Press main disabled={!canKeep || workshop.saving} onpress={() => acts.keepB()}
							>Keep B, into the draft</Press
						>
						<Press onpress={() => (isEnding = true)}>{canKeep ? 'Keep A' : 'Stop, stay with A'}</Press>
					</p>
				{/if}
				{#if !canKeep}
					<p class="mt-3 text-soft">B can be kept once the trial may be read.</p>
				{:else if view.elsewhere.length}
					<h2 class="mt-5 text-md">Where something else will show</h2>
					<p class="mt-1 text-soft">In the trial B stood above every exception. Kept, it stands under these:</p>
					<ul class="mt-2">
						{#each view.elsewhere.slice(0, MOST) as rule (rule.id)}
							<li class="mt-1">
								“{rule.exception}” keeps its own {listed(rule.fields)} on
								{rule.products === 1 ? rule.example : `${count(rule.products)} products, as ${rule.example}`}.
							</li>
						{/each}
						{#if view.elsewhere.length > MOST}<li class="mt-1">and {view.elsewhere.length - MOST} more.</li>{/if}
					</ul>
				{/if}
			{:else}
				{#if view.trial.kept === 'B'}
					<p class="text-md">
						Its change was put into the draft. <a href={context.href('/release')}>To the release</a>
					</p>
				{:else}
					<p class="text-md">Shoppers go on getting today’s button.</p>
				{/if}
			{/if}
			{#if view.readout}
				<h2 class="mt-7 text-md">Who</h2>
				<table class="ledger">
					<thead
						><tr
							><th><span class="sr-only">Event</span></th><th class="figure">A</th><th class="figure text-b">B</th></tr
						></thead
					>
					<tbody>
						{#each ['entered', 'timed_up', 'clicked', 'added', 'ordered'] as kind (kind)}
							{#if view.counted.A?.[kind] !== undefined}
								<tr>
									<th>{{ entered: 'came in', timed_up: 'counted', clicked: 'pressed' }[kind] ?? kind}</th>
									<td class="figure">{count(view.counted.A[kind])}</td>
									<td class="figure">{count(view.counted.B?.[kind] ?? 0)}</td>
								</tr>
							{/if}
						{/each}
					</tbody>
				</table>
				<h2 class="mt-7 text-md">How far to trust it</h2>
				{#if view.readout.split}
					<p class="mt-2">
						<b class={view.readout.split.holds ? '' : 'text-must'}>
							{view.readout.split.holds ? 'The split holds.' : '▲ The split is broken.'}
						</b>
						<span class="text-soft">
							Half and half: {view.readout.split.observed.map(count).join(' and ')}, p
							<span class="figure">{view.readout.split.p_value.toPrecision(2)}</span>; alarm under 0.001.
						</span>
					</p>
				{/if}
				<p class="mt-2">
					<b>Looked at once.</b>
					<span class="text-soft">
						Planned for {count(view.trial.plan?.total ?? 0)} shoppers before the start; the first {count(
							view.trial.plan?.total ?? 0,
						)}
						are what is read, however late one looks.
					</span>
				</p>
			{/if}
		</aside>
	</div>
{:else}
	<Waiting what="Loading the trial" error={trial.error} onretry={() => trial.refetch()} />
{/if}

<style>
	.trial {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 380px;
		min-height: calc(100vh - 67px);
	}
	@media (max-width: 1000px) {
		.trial {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
