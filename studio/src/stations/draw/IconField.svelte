<script lang="ts">
	import { ToggleGroup } from 'bits-ui';
	import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
	import type { Icon, ReadIcon } from '$lib/api/types';
	import { Attempt } from '$lib/state/attempt.svelte';
	import type { Desk } from '$lib/state/desk.svelte';
	import { readIcon } from '$lib/state/kit';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Empty from '$lib/ui/Empty.svelte';
	import FilePick from '$lib/ui/FilePick.svelte';
	import Float from '$lib/ui/Float.svelte';

	type Props = { desk: Desk };
	const NONE: Icon = { kind: 'none' };
	let { desk }: Props = $props();
	const workshop = useWorkshop();
	const icon = $derived(desk.view?.document.icon ?? NONE);
	let open = $state(false);
	let asked = $state('');
	let pasted = $state('');
	/** An icon that is not all that its file draws: it is looked at beside it before it is taken. */
	let brought = $state.raw<{ read: ReadIcon; svg: string } | null>(null);
	const attempt = new Attempt();
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
		const points = icons.data?.find((icon) => icon.name === name)?.points ?? false;
		void desk.set('icon', { ...place, kind: 'shipped', name, mirror: points });
		open = false;
	}
	async function bring(svg: string, name: string): Promise<void> {
		const read = await attempt.run(() => readIcon(workshop, svg, name));
		if (!read) return;
		pasted = '';
		if (read.left_out.length) brought = { read, svg };
		else await takeOwn(read);
	}
	async function takeOwn(read: ReadIcon): Promise<void> {
		brought = null;
		await desk.set('icon', { ...read.icon, ...place });
	}
	/** A picture in which nothing runs and which fetches nothing. */
	const pictureOf = (svg: string) => {
		const whole = /xmlns\s*=/.test(svg) ? svg : svg.replace('<svg', '<svg xmlns="http://www.w3.org/2000/svg"');
		return `data:image/svg+xml,${encodeURIComponent(whole)}`;
	};
	async function file(chosen: File): Promise<void> {
		await bring(await chosen.text(), chosen.name.replace(/\.svg$/i, ''));
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
		<Empty>
			{icons.isPending ? 'Searching…' : 'Nothing fits these words. Try another, or upload an SVG of your own.'}
		</Empty>
	{/if}
	<p class="mt-3 border-t border-hair pt-3">
		{#if icon.kind !== 'none'}<button class="value mr-4" onclick={() => desk.set('icon', { kind: 'none' })}
				>no icon</button
			>{/if}
		<FilePick inline label="An SVG of your own" accept=".svg,image/svg+xml" onpick={file}>an SVG of your own</FilePick>
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
	{#if attempt.wrong}<p role="alert" class="mt-2 text-must">{attempt.wrong}</p>{/if}
	{#if brought}
		{@const own = brought.read.icon}
		<div class="mt-3 border-t border-hair pt-3" role="status">
			<p class="mb-2">Not all of the file can be an icon of one colour. The file, and what is taken of it:</p>
			<p class="flex gap-6">
				<img class="picture" src={pictureOf(brought.svg)} alt="The file as it is" />
				<svg class="picture" viewBox="0 0 {own.width} {own.height}" role="img" aria-label="The icon as it is taken">
					{#each own.shapes as shape, n (n)}<path d={shape.d} fill-rule={shape.rule} />{/each}
				</svg>
			</p>
			<ul class="my-2 text-sm text-soft">
				{#each brought.read.left_out as line, n (n)}<li>– {line}</li>{/each}
			</ul>
			<button class="value" onclick={() => brought && takeOwn(brought.read)}>take it like this</button>
			<button class="value ml-4" onclick={() => (brought = null)}>leave it</button>
		</div>
	{/if}
</Float>

<style>
	.picture {
		width: 96px;
		height: 96px;
		object-fit: contain;
		background: var(--color-paper);
		fill: currentColor;
	}
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
