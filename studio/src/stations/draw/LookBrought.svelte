<script lang="ts">
	import type { CarryView, DrawView } from '$lib/api/types';
	import { many } from '$lib/pure/format';
	import type { Bringing } from '$lib/state/bringing.svelte';
	import { setBrand } from '$lib/state/kit';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Chip from '$lib/ui/Chip.svelte';
	import Empty from '$lib/ui/Empty.svelte';
	import Press from '$lib/ui/Press.svelte';
	import TrueButton from '$lib/ui/TrueButton.svelte';
	import TokenValues from './TokenValues.svelte';

	/** A look that was brought: what of it is wished, and what it changes. */
	type Props = { bringing: Bringing; brought: CarryView; view: DrawView; ontaken: () => void };
	let { bringing, brought, view, ontaken }: Props = $props();
	const workshop = useWorkshop();
	async function take(): Promise<void> {
		if (await bringing.take()) ontaken();
	}
	function takeBrand(): void {
		void setBrand(
			workshop,
			brought.colours.slice(0, 3).map(({ name, colour }) => ({ name, colour })),
		);
	}
</script>

<div class="mt-3 grid grid-cols-[1fr_1fr] gap-6">
	<div>
		<h3 class="mb-2">What to apply</h3>
		<ul class="grid grid-cols-3 gap-1">
			{#each brought.parts as part (part)}
				<li>
					<label
						><input
							type="checkbox"
							checked={bringing.parts.includes(part)}
							onchange={(e) => bringing.choose(part, e.currentTarget.checked)}
						/>
						{part}</label
					>
				</li>
			{:else}
				<li class="col-span-3 text-soft">There is nothing of a button in it.</li>
			{/each}
		</ul>
		{#each brought.by_device as other (other.device)}
			<h3 class="mt-4 mb-1">On the {other.device} it differs</h3>
			<p class="text-sm text-soft">
				{other.changes.map((change) => `${change.field} ${change.after}`).join(', ')}
			</p>
			<label
				><input
					type="checkbox"
					checked={bringing.devices.includes(other.device)}
					onchange={(e) => bringing.chooseDevice(other.device, e.currentTarget.checked)}
				/>
				make an exception for the {other.device}</label
			>
		{/each}
		{#if brought.colours.length}
			<p class="mt-4">
				<button class="value" onclick={takeBrand}
					>Take its first {Math.min(3, brought.colours.length)} colours as the brand’s</button
				>
				{#each brought.colours.slice(0, 3) as colour, n (n)}<Chip of={colour.colour} />{/each}
			</p>
		{/if}
		{#if brought.values.length}
			<TokenValues
				values={brought.values}
				laid={bringing.source?.laid ?? {}}
				onlay={(fields) => bringing.lay(fields)}
			/>
		{/if}
		{#if brought.left_out.length}
			<h3 class="mt-4 mb-1">Not taken: {many(brought.left_out.length, 'line')}</h3>
			<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
			<ul class="max-h-64 overflow-auto text-sm text-soft" aria-label="Left out" tabindex="0">
				{#each brought.left_out as line, n (n)}<li>– {line}</li>{/each}
			</ul>
		{/if}
	</div>
	<div>
		<h3 class="mb-2">Now, and with it</h3>
		<div class="grid justify-items-start gap-4 overflow-hidden bg-paper p-4">
			<TrueButton
				button={view.shown.button}
				moment={view.shown.moment}
				text={view.shown.text}
				rtl={view.seen.rtl}
				room={400}
				second="Buy now"
			/>
			{#if brought.after}
				<TrueButton
					button={brought.after.shown.button}
					moment={view.shown.moment}
					text={view.shown.text}
					rtl={view.seen.rtl}
					room={400}
					second="Buy now"
				/>
			{/if}
		</div>
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<ul class="mt-3 max-h-56 overflow-auto text-sm" aria-label="What changes" tabindex="0">
			{#each brought.changes as change (change.path)}
				<li class="flex gap-2 border-b border-hair py-1">
					<span class="w-44">{change.field}</span><span class="figure text-soft">{change.before}</span> →
					<b class="figure">{change.after}</b>
				</li>
			{:else}
				<Empty tag="li">Nothing would change.</Empty>
			{/each}
		</ul>
	</div>
</div>
<p class="mt-5 flex gap-3">
	<Press main onpress={take} disabled={!bringing.parts.length || !brought.changes.length}
		>Apply {many(brought.changes.length, 'value')}</Press
	>
	<Press onpress={() => bringing.back()}>Back</Press>
</p>
