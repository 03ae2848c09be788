<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import type { Placement, Trial } from '$lib/api/types';
	import { capital, count, date, said } from '$lib/pure/format';
	import { drawTrial } from '$lib/state/trying.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';
	import Calendar from './Calendar.svelte';

	const workshop = useWorkshop();
	const { context } = workshop;
	const trials = createQuery(() => workshop.ask.trials());
	let question = $state('');
	let placement = $state<Placement>('product_page');
	let category = $state('');

	async function draw(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		const number = await drawTrial(workshop, question, placement, category);
		if (number) context.go(`/trials/${number}`);
	}
	function standing(trial: Trial): string {
		if (trial.state === 'drawn') return 'drawn, not started';
		if (trial.state === 'running') return `running since ${date(trial.started_at ?? '')}`;
		return `closed ${date(trial.closed_at ?? '')}, ${trial.kept} kept`;
	}
</script>

{#if trials.data}
	<div class="px-6 pt-5 pb-8">
		<h1 class="text-xl">{trials.data.length ? 'Trials' : 'No trial yet. Ask a question that a button can answer.'}</h1>
		<form class="my-4 border-y border-hair py-4" onsubmit={draw}>
			<p class="flex flex-wrap items-center gap-2 text-md">
				<label for="question">A new question:</label>
				<input
					id="question"
					class="field w-96"
					placeholder="Does a larger button sell more?"
					maxlength="200"
					required
					bind:value={question}
					{...workshop.told('question')}
				/>
				<span>about the button of the</span>
				<Pick
					label="Placement"
					value={placement}
					options={[
						{ value: 'product_page', label: 'product page' },
						{ value: 'listing_card', label: 'listing card' },
					]}
					onpick={(value) => (placement = value as Placement)}
				/>
				<span>of</span>
				<Pick
					label="Products"
					value={category}
					options={[
						{ value: '', label: 'all products' },
						...(workshop.info?.categories ?? []).map((name) => ({ value: name, label: name })),
					]}
					onpick={(value) => (category = value)}
				/>
				<Press main type="submit" disabled={!question.trim()}>Draw version B</Press>
			</p>
		</form>
		{#if trials.data.length}
			<Calendar trials={trials.data} />
			<table class="ledger mt-6">
				<thead>
					<tr>
						<th class="w-10">No.</th><th>Question</th><th>Where</th><th>Decides</th><th class="text-right"
							>Shoppers planned</th
						><th>State</th>
					</tr>
				</thead>
				<tbody>
					{#each trials.data as trial (trial.number)}
						<tr>
							<td class="figure">{trial.number}</td>
							<td class="text-md"
								><a href={context.href(`/trials/${trial.number}`)} class="font-semibold">{trial.question}</a></td
							>
							<td>{capital(trial.reach.placements?.map(said).join(', ') ?? '')}</td>
							<td>{trial.decides}</td>
							<td class="figure">{trial.plan ? count(trial.plan.total) : '–'}</td>
							<td>{standing(trial)}</td>
						</tr>
					{/each}
				</tbody>
			</table>
		{/if}
		<p class="mt-6 text-soft">
			Nobody visits a practice store by itself:
			<a href="{workshop.info?.store.origin}/shoppers" target="_blank" rel="noopener"
				>send practice shoppers through it</a
			>.
		</p>
	</div>
{:else}
	<Waiting what="Loading the trials" error={trials.error} onretry={() => trials.refetch()} />
{/if}
