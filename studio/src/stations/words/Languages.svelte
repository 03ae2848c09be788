<script lang="ts">
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Sheet from '$lib/ui/Sheet.svelte';

	const workshop = useWorkshop();
	let open = $state(false);
	let code = $state('');
	const spoken = $derived(workshop.info?.spoken ?? []);
	const more = $derived(spoken.map((language) => language.language).filter((other) => other !== workshop.language));
	const names = new Intl.DisplayNames(['en'], { type: 'language' });
	const means = $derived.by(() => {
		try {
			return /^[a-z]{2}(-[A-Z]{2})?$/.test(code) ? names.of(code) : undefined;
		} catch {
			return undefined;
		}
	});

	async function add(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (means && (await workshop.speak([...more, code]))) code = '';
	}
</script>

<Press small onpress={() => (open = true)}>Languages…</Press>

<Sheet {open} title="Languages of the buttons" onclose={() => (open = false)}>
	<table class="ledger mt-3">
		<tbody>
			{#each spoken as language (language.language)}
				<tr>
					<th>{language.name}</th>
					<td class="figure">{language.language}</td>
					<td class="text-soft">{language.texts} of {language.of} texts{language.rtl ? ', right to left' : ''}</td>
					<td class="text-right">
						{#if language.language === workshop.language}<span class="text-soft">the store’s first</span>
						{:else}<Press small onpress={() => workshop.speak(more.filter((other) => other !== language.language))}
								>Speak it no more</Press
							>{/if}
					</td>
				</tr>
			{/each}
		</tbody>
	</table>
	<form class="mt-4 flex items-end gap-3" onsubmit={add}>
		<label>Another one, as de or de-DE<br /><input class="field w-32" maxlength="5" bind:value={code} /></label>
		<Press type="submit" disabled={!means}>{means ? `Speak ${means}` : 'Speak it'}</Press>
	</form>
	<p class="mt-2 text-soft">Its texts begin empty: the store’s first language stands in, and a finding says so.</p>
	<p class="mt-5"><Press main onpress={() => (open = false)}>Close</Press></p>
</Sheet>
