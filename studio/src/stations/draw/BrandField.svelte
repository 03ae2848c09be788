<script lang="ts">
	import type { Desk } from '$lib/state/desk.svelte';
	import { setBrand } from '$lib/state/kit';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Chip from '$lib/ui/Chip.svelte';
	import Colour from '$lib/ui/Colour.svelte';
	import Float from '$lib/ui/Float.svelte';

	type Props = { desk: Desk; known: readonly string[] };
	let { desk, known }: Props = $props();
	const workshop = useWorkshop();
	const seeds = $derived((desk.kit?.ramps ?? []).map(({ name, colour }) => ({ name, colour })));

	const keep = (next: { name: string; colour: string }[]) => setBrand(workshop, next);
	const change = (n: number, to: Partial<{ name: string; colour: string }>) =>
		keep(seeds.map((seed, m) => (m === n ? { ...seed, ...to } : seed)));
</script>

<Float label="Brand colours" wide>
	{#snippet trigger()}
		{#each seeds as seed, n (n)}<Chip of={seed.colour} />{/each}brand{/snippet}
	<p class="mb-2 text-md font-semibold">The brand’s colours</p>
	{#each desk.kit?.ramps ?? [] as ramp, n (n)}
		<div class="border-t border-hair py-2">
			<p class="mb-1 flex items-baseline gap-3">
				<input
					class="value w-32"
					aria-label="Name of colour {n + 1}"
					maxlength="30"
					value={ramp.name}
					onchange={(event) => event.currentTarget.value.trim() && change(n, { name: event.currentTarget.value })}
				/>
				<Colour
					label="Brand colour {ramp.name}"
					value={ramp.colour}
					{known}
					onset={(colour) => change(n, { colour })}
				/>
				<button
					class="value ml-auto"
					aria-label="Remove {ramp.name}"
					onclick={() => keep(seeds.filter((_, m) => m !== n))}>remove</button
				>
			</p>
			<ul class="flex" aria-label="Shades of {ramp.name}">
				{#each ramp.shades as shade (shade.step)}
					<li class="shade" title={shade.colour}>
						<span class="tone" style:background={shade.colour}></span>
						<span class="step">{shade.step}{shade.is_seed ? '|' : ''}</span>
					</li>
				{/each}
			</ul>
		</div>
	{:else}
		<p class="text-soft">From one to three colours make ramps that every colour field offers.</p>
	{/each}
	{#if seeds.length < 3}
		<p class="mt-2">
			<button
				class="value"
				onclick={() =>
					keep([...seeds, { name: `colour ${seeds.length + 1}`, colour: known[seeds.length] ?? '#22313f' }])}
			>
				one {seeds.length ? 'more ' : ''}colour
			</button>
		</p>
	{/if}
</Float>

<style>
	.shade {
		flex: 1;
		display: grid;
		justify-items: center;
	}
	.tone {
		width: 100%;
		height: 26px;
	}
	.step {
		font: 11px/1.4 var(--font-mono);
		color: var(--color-ink);
	}
</style>
