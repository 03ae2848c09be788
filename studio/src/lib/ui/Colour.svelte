<script lang="ts">
	import Chip from './Chip.svelte';
	import ColourPanel, { type Ramp } from './ColourPanel.svelte';
	import Float from './Float.svelte';

	type Props = {
		label: string;
		/** A colour set by hand; without one the rule's `ruled` colour holds. */
		value: string | null | undefined;
		ruled?: string;
		/** Colours that the store's buttons use already. */
		known: readonly string[];
		/** The brand's shades. */
		ramps?: readonly Ramp[];
		/** It may let the page show through. */
		seeThrough?: boolean;
		onset: (value: string) => void;
		/** Leaves the colour to the rule again; only where there is one. */
		onrule?: () => void;
		onfocus?: () => void;
	};
	let { label, value, ruled, known, ramps, seeThrough, onset, onrule, onfocus }: Props = $props();
	let open = $state(false);
	const byHand = $derived(value && value !== 'rule' ? value : null);
	const shown = $derived(byHand ?? ruled ?? '#000000');
</script>

<Float label="{label}: {byHand ?? `${shown}, by rule`}" bind:open {onfocus}>
	{#snippet trigger()}
		<Chip of={shown} /><span class="font-mono font-medium">{byHand ?? 'by rule'}</span>
	{/snippet}
	<p class="mb-2 font-semibold">{label}</p>
	<ColourPanel {label} {value} {ruled} {known} {ramps} {seeThrough} {onset} {onrule} ondone={() => (open = false)} />
</Float>
