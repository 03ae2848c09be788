<script lang="ts">
	import { valueAt } from '$lib/pure/patch';
	import type { Desk } from '$lib/state/desk.svelte';
	import Pick from '$lib/ui/Pick.svelte';

	type Props = {
		desk: Desk;
		label: string;
		/** Where in the document the value is. */
		path: string;
		/** Values with their words; true and false are values, too. */
		options: readonly (readonly [string | boolean, string])[];
		/** Keeps what was picked, where that is more than one value. */
		onpick?: (value: string) => void;
	};
	let { desk, label, path, options, onpick }: Props = $props();
	const keep = (picked: string) => void desk.set(path, options.find(([value]) => String(value) === picked)?.[0]);
</script>

<Pick
	{label}
	value={String(valueAt(desk.view?.document, path) ?? '')}
	options={options.map(([value, words]) => ({ value: String(value), label: words }))}
	onfocus={() => desk.mark(path)}
	onpick={onpick ?? keep}
/>
