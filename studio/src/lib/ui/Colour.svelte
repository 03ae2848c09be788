<script lang="ts">
	import { hexColour } from '$lib/pure/colour';
	import { Popover } from 'bits-ui';

	type Props = {
		label: string;
		value: string;
		/** Colours that the store's buttons use already. */
		known: readonly string[];
		onset: (value: string) => void;
		onfocus?: () => void;
	};
	let { label, value, known, onset, onfocus }: Props = $props();
	let open = $state(false);
	let typed = $state<string | null>(null);
	const wrong = $derived(typed !== null && hexColour(typed) === null);

	function set(colour: string | null): void {
		if (!colour) return;
		typed = null;
		if (colour !== value) onset(colour);
	}
</script>

<span class="inline-flex items-baseline">
	<Popover.Root bind:open>
		<Popover.Trigger class="value" aria-label="{label}: {value}" {onfocus}>
			<span class="chip" style:background={value}></span><span class="font-mono font-medium">{value}</span>
		</Popover.Trigger>
		<Popover.Portal>
			<Popover.Content sideOffset={6} class="z-40 w-64 border border-ink bg-leaf p-3 shadow-float" aria-label={label}>
				<p class="mb-2 font-semibold">{label}</p>
				<form
					class="flex items-center gap-2"
					onsubmit={(event) => {
						event.preventDefault();
						set(hexColour(typed ?? value));
						if (!wrong) open = false;
					}}
				>
					<input
						type="color"
						class="h-8 w-10 border border-hair"
						aria-label="Choose {label} by eye"
						{value}
						onchange={(event) => set(event.currentTarget.value)}
					/>
					<input
						class="w-28 border border-ink bg-leaf px-2 py-1 font-mono"
						aria-label="{label} as hex"
						aria-invalid={wrong}
						value={typed ?? value}
						oninput={(event) => (typed = event.currentTarget.value)}
					/>
				</form>
				{#if wrong}<p role="alert" class="mt-1 text-sm text-must">Write six hex digits, as #3a2a12.</p>{/if}
				<ul class="mt-3 flex flex-wrap gap-1" aria-label="Colours in use">
					{#each known as colour (colour)}
						<li>
							<button
								class="swatch"
								style:background={colour}
								aria-label={colour}
								title={colour}
								onclick={() => set(colour)}
							></button>
						</li>
					{/each}
				</ul>
			</Popover.Content>
		</Popover.Portal>
	</Popover.Root>
</span>

<style>
	.chip {
		display: inline-block;
		width: 0.8em;
		height: 0.8em;
		margin-right: 0.35em;
		border: 1px solid var(--color-hair);
	}
	.swatch {
		width: 24px;
		height: 24px;
		border: 1px solid var(--color-soft);
	}
</style>
