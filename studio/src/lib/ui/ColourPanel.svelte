<script lang="ts" module>
	export type Ramp = { name: string; shades: readonly { name: string; colour: string; is_seed: boolean }[] };
</script>

<script lang="ts">
	import { hexColour, opacityOf, withOpacity } from '$lib/pure/colour';
	import Figure from './Figure.svelte';

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
		/** Called when a colour has been entered. */
		ondone?: () => void;
	};
	let { label, value, ruled, known, ramps = [], seeThrough = false, onset, onrule, ondone }: Props = $props();
	let typed = $state<string | null>(null);
	const byHand = $derived(value && value !== 'rule' ? value : null);
	const shown = $derived(byHand ?? ruled ?? '#000000');
	const wrong = $derived(typed !== null && hexColour(typed, seeThrough) === null);

	function set(colour: string | null): void {
		if (!colour) return;
		typed = null;
		if (colour !== byHand) onset(colour);
	}
</script>

{#snippet swatch(colour: string, name: string, struck = false)}
	<li>
		<button
			class={['swatch', struck && 'struck']}
			style:background={colour}
			aria-label={name}
			title="{name}, {colour}"
			onclick={() => set(colour)}
		></button>
	</li>
{/snippet}

<form
	class="flex items-center gap-2"
	onsubmit={(event) => {
		event.preventDefault();
		set(hexColour(typed ?? shown, seeThrough));
		if (!wrong) ondone?.();
	}}
>
	<input
		type="color"
		class="h-8 w-10 border border-hair"
		aria-label="Choose {label} by eye"
		value={shown.slice(0, 7)}
		onchange={(event) => set(withOpacity(event.currentTarget.value, opacityOf(shown)))}
	/>
	<input
		class="w-28 border border-ink bg-leaf px-2 py-1 font-mono"
		aria-label="{label} as hex"
		aria-invalid={wrong}
		value={typed ?? shown}
		oninput={(event) => (typed = event.currentTarget.value)}
	/>
</form>
{#if seeThrough}
	<p class="mt-2">
		At <Figure
			label="{label} there"
			unit="%"
			value={opacityOf(shown)}
			most={100}
			onset={(percent: number) => set(withOpacity(shown, Math.round(percent)))}
		/> %{opacityOf(shown) < 100 ? ', the page shows through' : ''}.
	</p>
{/if}
{#if wrong}<p role="alert" class="mt-1 text-sm text-must">
		Write six hex digits, as #3a2a12{seeThrough ? '; with two more it lets the page show through' : ''}.
	</p>{/if}
{#if onrule}
	<p class="mt-2 text-sm text-soft">
		{#if byHand}
			<button class="value" onclick={onrule}>leave it to the rule</button>
		{:else}
			Derived by rule until you choose.
		{/if}
	</p>
{/if}
{#each ramps as ramp, n (n)}
	<ul class="mt-3 flex gap-0.5" aria-label="Shades of {ramp.name}">
		{#each ramp.shades as shade, n (n)}{@render swatch(shade.colour, shade.name, shade.is_seed)}{/each}
	</ul>
{/each}
<ul class="mt-3 flex flex-wrap gap-1" aria-label="Colours in use">
	{#each known as colour, n (n)}{@render swatch(colour, colour)}{/each}
</ul>

<style>
	.swatch {
		width: 25px;
		height: 25px;
		border: 1px solid var(--color-soft);
	}
	.swatch.struck {
		box-shadow: 0 4px 0 -1px var(--color-ink);
	}
</style>
