<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import type { ExceptionView, FieldSet } from '$lib/api/types';
	import { capital, date, many, said } from '$lib/pure/format';
	import { patchAt } from '$lib/pure/patch';
	import { ReachReading } from '$lib/state/reach_reading.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Empty from '$lib/ui/Empty.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Sheet from '$lib/ui/Sheet.svelte';
	import TrueButton from '$lib/ui/TrueButton.svelte';
	import ReachField from './ReachField.svelte';
	import TokenField from './TokenField.svelte';

	type Props = { rule: ExceptionView; onclose: () => void };
	let { rule, onclose }: Props = $props();
	const workshop = useWorkshop();
	const effects = createQuery(() => workshop.ask.effects(rule.id));
	const reading = new ReachReading(workshop, () => rule.reach_words);
	let typed = $state<Record<string, string>>({});
	const first = $derived((effects.data?.changes ?? []).slice(0, 8));

	async function keepReach(): Promise<void> {
		if (await workshop.changeException(rule.id, { reach_words: reading.words })) reading.reset();
	}
	async function keepText(field: FieldSet): Promise<void> {
		const text = typed[field.path];
		if (text === undefined || text === field.value) return;
		if (await workshop.change(`exception:${rule.id}`, patchAt(field.path, text.trim() || null)))
			delete typed[field.path];
	}
	async function remove(): Promise<void> {
		if (await workshop.removeException(rule.id)) onclose();
	}
	function keepIf(name: 'name' | 'note', event: Event): void {
		const value = (event.currentTarget as HTMLInputElement).value.trim();
		if (value !== rule[name]) void workshop.changeException(rule.id, { [name]: value });
	}
</script>

<Sheet open title={rule.name} {onclose} wide>
	<p class="text-soft">
		{rule.author}, {date(rule.made_at)}
		{#if rule.inactive}· <b class="text-look">◇ {rule.inactive}</b>{:else}· it counts today{/if}
		{#if rule.gone.length}· not in the catalogue: <span class="figure">{rule.gone.join(', ')}</span>{/if}
	</p>
	<div class="columns mt-3">
		<div>
			<label class="block font-semibold" for="exception-reach">For</label>
			<ReachField id="exception-reach" {reading} />
			{#if reading.isChanged}
				<p class="mt-2 flex gap-2">
					<Press small main disabled={!reading.read} onpress={keepReach}
						>Reach {reading.read ? many(reading.read.products, 'product') : '…'} from now on</Press
					>
					<Press small onpress={() => reading.reset()}>Cancel</Press>
				</p>
			{/if}
			<label class="mt-3 block font-semibold" for="rule-name">Name</label>
			<input
				id="rule-name"
				class="field mt-1 w-full"
				maxlength="80"
				value={rule.name}
				onchange={(event) => keepIf('name', event)}
				{...workshop.told('name')}
			/>
			<label class="mt-3 block font-semibold" for="rule-note">What it is for</label>
			<input
				id="rule-note"
				class="field mt-1 w-full"
				maxlength="400"
				value={rule.note}
				onchange={(event) => keepIf('note', event)}
				{...workshop.told('note')}
			/>
			<p class="mt-3 flex flex-wrap items-center gap-2">
				<label
					>From <input
						type="date"
						class="field"
						value={rule.starts_on ?? ''}
						onchange={(event) => workshop.changeException(rule.id, { starts_on: event.currentTarget.value || null })}
						{...workshop.told('starts_on')}
					/></label
				>
				<label
					>until <input
						type="date"
						class="field"
						value={rule.ends_on ?? ''}
						onchange={(event) => workshop.changeException(rule.id, { ends_on: event.currentTarget.value || null })}
						{...workshop.told('ends_on')}
					/></label
				>
			</p>
			<h3 class="mt-4 text-base">What it sets</h3>
			<ul class="divide-y divide-hair">
				{#each rule.fields as field (field.path)}
					<li class="flex items-center gap-2 py-2">
						<span class="w-44 shrink-0">{capital(field.field)}</span>
						{#if field.path.startsWith('wording.')}
							<span class="flex-1">
								<TokenField
									small
									label={field.field}
									value={typed[field.path] ?? String(field.value)}
									rtl={field.path.endsWith('.ar')}
									onchange={(text) => (typed[field.path] = text)}
									onkeep={() => keepText(field)}
								/>
							</span>
						{:else}
							<b class="flex-1">{field.value_words}</b>
						{/if}
						{#if field.dead}<span class="text-soft" title="A more particular exception is always closer"
								>overridden</span
							>{/if}
						<Press
							small
							label="Reset {field.field}"
							onpress={() => workshop.change(`exception:${rule.id}`, patchAt(field.path, null))}>Reset</Press
						>
					</li>
				{:else}
					<Empty tag="li">Nothing yet. Choose it in Draw or Words as where the edits go.</Empty>
				{/each}
			</ul>
		</div>
		<div>
			<h3 class="text-base">
				What it changes{#if effects.data}: {many(effects.data.products, 'product')}, {many(
						effects.data.changes.length,
						'kind',
					)} of button{/if}
			</h3>
			<ul class="divide-y divide-hair">
				{#each first as change, n (n)}
					<li class="py-2">
						<p>
							{capital(said(change.placement))}, {many(change.products, 'product')}
							{#if change.moments.length}<span class="text-soft">when {change.moments.map(said).join(', ')}</span>{/if}
						</p>
						<details class="text-soft">
							<summary class="cursor-pointer"
								>{change.names.slice(0, 2).join(', ')}{change.products > 2 ? '…' : ''}</summary
							>
							{change.names.join(', ')}{change.products > change.names.length
								? ` and ${change.products - change.names.length} more`
								: ''}
						</details>
						<p class="pair mt-1">
							<TrueButton {...change.before} room={210} /> <span class="figure text-soft" aria-label="becomes">→</span>
							<TrueButton {...change.after} room={210} />
						</p>
						<p class="text-soft">
							{change.fields
								.slice(0, 2)
								.map((f) => `${f.field}: ${f.before} → ${f.after}`)
								.join('; ')}
						</p>
					</li>
				{:else}
					<Empty tag="li">
						{effects.isPending ? 'Working it out…' : 'No button differs by it now.'}
					</Empty>
				{/each}
			</ul>
			{#if effects.data && effects.data.changes.length > first.length}
				<p class="text-soft">and {many(effects.data.changes.length - first.length, 'more kind')}</p>
			{/if}
		</div>
	</div>
	<p class="mt-5 flex gap-3">
		<Press main onpress={onclose}>Close</Press>
		<Press onpress={() => workshop.changeException(rule.id, { on: !rule.on })}>Switch it {rule.on ? 'off' : 'on'}</Press
		>
		<Press onpress={remove}>Remove this exception</Press>
	</p>
</Sheet>

<style>
	.columns {
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
		gap: 28px;
	}
	.pair {
		display: flex;
		align-items: center;
		gap: 12px;
		zoom: 0.72;
		overflow: hidden;
	}
	@media (max-width: 800px) {
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
