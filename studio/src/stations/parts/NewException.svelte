<script lang="ts">
	import { client, data } from '$lib/api/client';
	import type { Moment, Placement } from '$lib/api/types';
	import { said } from '$lib/pure/format';
	import { patchAt } from '$lib/pure/patch';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Sheet from '$lib/ui/Sheet.svelte';

	type Props = {
		moment: Moment;
		placement: Placement;
		/** The text to begin from. */
		text: string;
		onclose: () => void;
		/** Called with the new exception's id. */
		onmade: (id: string) => void;
	};
	let { moment, placement, text, onclose, onmade }: Props = $props();
	const workshop = useWorkshop();
	const reaches = $derived([
		...(workshop.info?.categories ?? []).map((name) => ({ value: `c:${name}`, label: `all ${name}` })),
		...(workshop.info?.products ?? []).map((p) => ({ value: `p:${p.sku}`, label: p.name })),
	]);
	let chosen = $state('');
	let onlyHere = $state(true);
	let name = $state('');
	let note = $state('');
	// svelte-ignore state_referenced_locally
	let says = $state(text);
	const ready = $derived(Boolean(chosen && name.trim() && note.trim() && says.trim()));

	async function make(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		const value = chosen.slice(2);
		const isProduct = chosen.startsWith('p:');
		const body = {
			name: name.trim(),
			note: note.trim(),
			reach: {
				products: isProduct ? [value] : [],
				categories: isProduct ? [] : [value],
				situations: [],
				placements: onlyHere ? [placement] : [],
			},
			layer: patchAt(`wording.${moment}.${workshop.language}`, says.trim()),
		};
		const done = await workshop.act((headers) =>
			data(client.POST('/api/stores/{store}/exceptions', { params: { path: workshop.path }, headers, body })),
		);
		if (!done) return;
		const all = await data(client.GET('/api/stores/{store}/exceptions', { params: { path: workshop.path } }));
		onmade(all.at(-1)?.id ?? '');
	}
</script>

<Sheet open title="Say it differently" {onclose}>
	<form onsubmit={make} class="mt-3">
		<p class="text-md">
			When it is {said(moment)}, for
			<Pick
				label="Reach"
				value={chosen}
				options={[{ value: '', label: 'choose…' }, ...reaches]}
				onpick={(v) => (chosen = v)}
			/>
			say
		</p>
		<input class="field mt-2 w-full text-md" aria-label="Text" maxlength="200" bind:value={says} />
		<label class="mt-3 flex items-center gap-2"
			><input type="checkbox" bind:checked={onlyHere} /> only on the {said(placement)}</label
		>
		<label class="mt-4 block font-semibold" for="exception-name">Name</label>
		<input id="exception-name" class="field mt-1 w-full" maxlength="80" bind:value={name} />
		<label class="mt-3 block font-semibold" for="exception-note">What it is for</label>
		<input id="exception-note" class="field mt-1 w-full" maxlength="400" bind:value={note} />
		{#if workshop.problem}<p role="alert" class="mt-3 text-must">▲ {workshop.problem.message}</p>{/if}
		<p class="mt-5 flex gap-3">
			<Press main type="submit" disabled={!ready}>Make the exception</Press>
			<Press onpress={onclose}>Leave it</Press>
		</p>
	</form>
</Sheet>
