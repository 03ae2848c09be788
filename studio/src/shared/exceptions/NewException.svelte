<script lang="ts">
	import { said } from '$lib/pure/format';
	import { patchAt } from '$lib/pure/patch';
	import { quickReaches } from '$lib/pure/reach';
	import type { From } from '$lib/state/opened.svelte';
	import { ReachReading } from '$lib/state/reach_reading.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Sheet from '$lib/ui/Sheet.svelte';
	import ReachField from './ReachField.svelte';
	import TokenField from './TokenField.svelte';

	type Props = { from: From; onclose: () => void };
	let { from, onclose }: Props = $props();
	const workshop = useWorkshop();
	const quick = $derived(quickReaches(from, workshop.languageOptions));
	const reading = new ReachReading(workshop, () => quick[0]?.words ?? 'every product');
	let name = $state('');
	let note = $state('');
	let startsOn = $state('');
	let endsOn = $state('');
	// svelte-ignore state_referenced_locally
	let says = $state(from.text ?? '');
	const language = $derived(from.language ?? workshop.language);
	const ready = $derived(Boolean(reading.read && name.trim() && note.trim() && (!from.moment || says.trim())));

	async function make(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		const layer = from.moment ? patchAt(`wording.${from.moment}.${language}`, says.trim()) : (from.layer ?? {});
		const body = {
			name: name.trim(),
			note: note.trim(),
			reach_words: reading.words,
			layer,
			starts_on: startsOn || null,
			ends_on: endsOn || null,
		};
		const id = await workshop.addException(body);
		if (!id) return;
		from.onmade?.(id);
		onclose();
	}
</script>

<Sheet open title="New exception" {onclose}>
	<form onsubmit={make} class="mt-3">
		{#if from.moment}
			<p class="text-md">When it is <b>{said(from.moment)}</b>, say</p>
			<TokenField label="Text" value={says} onchange={(text) => (says = text)} rtl={language === 'ar'} />
		{:else if from.sets}
			<p class="text-md">With <b>{from.sets}</b>; other values follow once it is made.</p>
		{/if}
		<label class="mt-3 block font-semibold" for="reach-words">For</label>
		<ReachField {reading} />
		<p class="mt-2 flex flex-wrap gap-2">
			{#each quick as proposal, n (n)}
				<Press small onpress={() => (reading.words = proposal.words)}>{proposal.label}</Press>
			{/each}
		</p>
		<label class="mt-4 block font-semibold" for="exception-name">Name</label>
		<input id="exception-name" class="field mt-1 w-full" maxlength="80" bind:value={name} {...workshop.told('name')} />
		<label class="mt-3 block font-semibold" for="exception-note">What it is for</label>
		<input id="exception-note" class="field mt-1 w-full" maxlength="400" bind:value={note} {...workshop.told('note')} />
		<p class="mt-3 flex flex-wrap items-center gap-2">
			<label>From <input type="date" class="field" bind:value={startsOn} {...workshop.told('starts_on')} /></label>
			<label>until <input type="date" class="field" bind:value={endsOn} {...workshop.told('ends_on')} /></label>
			<span class="text-soft">or always</span>
		</p>
		<p class="mt-5 flex gap-3">
			<Press main type="submit" disabled={!ready}>Save exception</Press>
			<Press onpress={onclose}>Cancel</Press>
		</p>
	</form>
</Sheet>
