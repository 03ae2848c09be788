<script lang="ts">
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Sheet from '$lib/ui/Sheet.svelte';
	import Field from '$lib/ui/Field.svelte';

	type Props = { onclose: () => void };
	let { onclose }: Props = $props();
	const workshop = useWorkshop();
	let name = $state('');
	let origin = $state('');
	let says = $state('Add to basket');
	let language = $state(workshop.info?.store.language ?? 'en-GB');
	let currency = $state(workshop.info?.store.currency ?? 'EUR');
	let timezone = $state(Intl.DateTimeFormat().resolvedOptions().timeZone || 'Europe/London');
	let isMaking = $state(false);

	async function make(): Promise<void> {
		isMaking = true;
		await workshop.makeStore({ name, origin, language, currency, timezone, says });
		isMaking = false;
	}
</script>

<Sheet open title="A new store" {onclose}>
	<form
		onsubmit={(event) => {
			event.preventDefault();
			void make();
		}}
	>
		<p class="mt-3 text-md leading-9">
			The shop is called <Field
				mono
				label="Name of the shop"
				value={name}
				usual="its name"
				onset={(text) => (name = text)}
			/>
			and is at <Field
				mono
				label="Address of the shop"
				value={origin}
				usual="https://shop.example"
				onset={(text) => (origin = text)}
			/>. It speaks <Field mono label="Language" value={language} onset={(text) => (language = text)} />, sells in <Field
				mono
				label="Currency"
				value={currency}
				onset={(text) => (currency = text.toUpperCase())}
			/>
			and keeps the time of <Field mono label="Time zone" value={timezone} onset={(text) => (timezone = text)} />. Its
			buttons say <Field mono label="What the buttons say" value={says} onset={(text) => (says = text)} /> until you word
			them.
		</p>
		<p class="mt-2 text-soft">
			Then: put our line on its pages, read its catalogue, connect its basket, and point at the places where buttons
			stand. Shoppers see nothing of it before the first release.
		</p>
		<p class="mt-4 flex gap-3">
			<Press main type="submit" disabled={isMaking}>Make the store</Press>
			<Press onpress={onclose}>Cancel</Press>
		</p>
	</form>
</Sheet>
