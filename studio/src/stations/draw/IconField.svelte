<script lang="ts">
	import { ToggleGroup } from 'bits-ui';
	import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
	import { client, data, Problem } from '$lib/api/client';
	import type { Icon } from '$lib/api/types';
	import type { Desk } from '$lib/state/desk.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Float from '$lib/ui/Float.svelte';

	type Props = { desk: Desk };
	const NONE: Icon = { kind: 'none' };
	let { desk }: Props = $props();
	const workshop = useWorkshop();
	const icon = $derived(desk.view?.document.icon ?? NONE);
	let open = $state(false);
	let asked = $state('');
	let pasted = $state('');
	let told = $state<readonly string[]>([]);
	let wrong = $state('');
	const icons = createQuery(() => ({
		...workshop.ask.icons(asked),
		enabled: open,
		placeholderData: keepPreviousData,
	}));
	const place = $derived(
		icon.kind === 'none'
			? { side: 'before', size_px: 18, gap_px: 8 }
			: { side: icon.side, size_px: icon.size_px, gap_px: icon.gap_px },
	);

	function take(name: string): void {
		const points = icons.data?.find((one) => one.name === name)?.points ?? false;
		void desk.set('icon', { ...place, kind: 'shipped', name, mirror: points });
		open = false;
	}
	async function bring(svg: string, name: string): Promise<void> {
		wrong = '';
		try {
			const read = await data(
				client.POST('/api/stores/{store}/icons', { params: { path: workshop.path }, body: { svg, name } }),
			);
			told = read.left_out;
			await desk.set('icon', { ...read.icon, ...place });
			pasted = '';
		} catch (error) {
			wrong = error instanceof Problem ? error.message : String(error);
		}
	}
	async function file(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
		const chosen = event.currentTarget.files?.[0];
		if (chosen) await bring(await chosen.text(), chosen.name.replace(/\.svg$/i, ''));
	}
</script>

<Float label="Icon: {icon.kind === 'none' ? 'no icon' : icon.name}" bind:open wide onfocus={() => desk.mark('icon')}>
	{#snippet trigger()}{icon.kind === 'none' ? 'no icon' : icon.name}{/snippet}
	<label class="block font-semibold">
		What should a shopper understand?
		<!-- svelte-ignore a11y_autofocus -->
		<input class="field mt-1 w-full font-normal" placeholder="fast, gift, reserve, ask…" bind:value={asked} autofocus />
	</label>
	{#if icons.data?.length}
		<!-- Other icons are another group: the one that Tab stops at must be among them. -->
		{#key icons.data}
			<ToggleGroup.Root
				type="single"
				class="grid-icons"
				aria-label="Icons"
				bind:value={() => (icon.kind === 'none' ? '' : icon.name), (name) => name && take(name)}
			>
				{#each icons.data as { name, path } (name)}
					<ToggleGroup.Item value={name} class="glyph" aria-label={name} title={name}>
						<svg viewBox="0 0 256 256" aria-hidden="true"><path d={path} /></svg>
					</ToggleGroup.Item>
				{/each}
			</ToggleGroup.Root>
		{/key}
	{:else}
		<p class="py-3 text-soft">
			{icons.isPending ? 'Searching…' : 'Nothing fits these words. Try another, or upload an SVG of your own.'}
		</p>
	{/if}
	<p class="mt-3 border-t border-hair pt-3">
		{#if icon.kind !== 'none'}<button class="value mr-4" onclick={() => desk.set('icon', { kind: 'none' })}
				>no icon</button
			>{/if}
		<label class="value cursor-pointer focus-within:bg-marker">
			an SVG of your own<input class="sr-only" type="file" accept=".svg,image/svg+xml" onchange={file} />
		</label>
		or paste it:
	</p>
	<form
		class="mt-2 flex gap-2"
		onsubmit={(event) => {
			event.preventDefault();
			void bring(pasted, 'own icon');
		}}
	>
		<input class="field w-full font-mono" aria-label="SVG" placeholder="<svg …>" bind:value={pasted} />
		<button class="value whitespace-nowrap" disabled={!pasted.trim()}>take it</button>
	</form>
	{#if wrong}<p role="alert" class="mt-2 text-must">{wrong}</p>{/if}
	{#if told.length}<p class="mt-2 text-soft" role="status">Left out: {told.join('; ')}.</p>{/if}
</Float>

<style>
	:global(.grid-icons) {
		display: grid;
		grid-template-columns: repeat(10, 1fr);
		gap: 2px;
		max-height: 176px;
		overflow: auto;
		margin-top: 8px;
	}
	:global(.glyph) {
		display: grid;
		place-items: center;
		width: 36px;
		height: 34px;
	}
	:global(.glyph svg) {
		width: 22px;
		fill: currentColor;
	}
	:global(.glyph:hover) {
		background: var(--color-paper);
	}
	:global(.glyph[data-state='on']) {
		background: var(--color-marker);
	}
</style>
