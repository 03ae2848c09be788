<script lang="ts">
	import type { CompiledButton, DrawView, LooksView } from '$lib/api/types';
	import type { Bringing } from '$lib/state/bringing.svelte';
	import type { Desk } from '$lib/state/desk.svelte';
	import { deleteLook, keepLook, useLook } from '$lib/state/kit';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Empty from '$lib/ui/Empty.svelte';
	import FilePick from '$lib/ui/FilePick.svelte';
	import Press from '$lib/ui/Press.svelte';
	import TrueButton from '$lib/ui/TrueButton.svelte';

	/** Where a look can come from: those that were saved, starting points, and texts of other tools. */
	type Props = { bringing: Bringing; desk: Desk; view: DrawView; kit: LooksView };
	let { bringing, desk, view, kit }: Props = $props();
	const workshop = useWorkshop();
	let name = $state('');
	let pasted = $state('');
	const use = (look: string) => useLook(workshop, view.editing.layer, look);
	async function keep(): Promise<void> {
		if (await keepLook(workshop, desk, name)) name = '';
	}
</script>

{#snippet shown(button: CompiledButton)}
	{@const wide = button.quantity || button.second}
	<span class="mini" style:zoom={wide ? 0.58 : 0.72}>
		<TrueButton
			{button}
			moment="ready"
			text={view.shown.text}
			rtl={view.seen.rtl}
			room={wide ? 350 : 180}
			second="Buy now"
		/>
	</span>
{/snippet}

<h3 class="mt-3 mb-2">Saved looks</h3>
{#each kit.looks as look (look.id)}
	<div class="flex items-center gap-4 border-b border-hair py-2">
		{@render shown(look.button)}
		<b class="w-40">{look.name}</b>
		<span class="flex-1 text-soft">{look.used_by.length ? `used by ${look.used_by.join(', ')}` : 'not used yet'}</span>
		{#if view.editing.uses === look.id}
			<Press small onpress={() => use('')}>Stop using</Press>
		{:else if !view.editing.layer.startsWith('look:')}
			<Press small onpress={() => use(look.id)} label="Use {look.name}">Use</Press>
		{/if}
		<Press
			small
			onpress={() => bringing.bring({ kind: 'look', value: look.id, selector: '' })}
			label="Copy from {look.name}">Copy</Press
		>
		<Press small onpress={() => deleteLook(workshop, look.id)} label="Delete {look.name}">Delete</Press>
	</div>
{:else}
	<Empty>No saved looks yet. A saved look can be used by several placements and changed in one place.</Empty>
{/each}
<form
	class="mt-3 flex items-center gap-2"
	onsubmit={(event) => {
		event.preventDefault();
		void keep();
	}}
>
	<input
		class="field"
		aria-label="Name of the look"
		placeholder="name of this button’s look"
		maxlength="60"
		bind:value={name}
		{...workshop.told('name')}
	/>
	<Press small type="submit" disabled={!name.trim()}>Save look</Press>
</form>
<h3 class="mt-5 mb-2">Starting points</h3>
<ul class="starts">
	{#each kit.starts as start (start.key)}
		<li>
			<button class="start" onclick={() => bringing.bring({ kind: 'start', value: start.key, selector: '' })}>
				<span class="stand">{@render shown(start.button)}</span>
				<b>{start.name}</b><span class="text-sm text-soft">{start.says}</span>
			</button>
		</li>
	{/each}
</ul>
<h3 class="mt-5 mb-2">From an existing button’s CSS, or from design tokens</h3>
<form
	class="flex items-start gap-2"
	onsubmit={(event) => {
		event.preventDefault();
		void bringing.read(pasted);
	}}
>
	<textarea
		class="field h-20 w-full font-mono text-sm"
		aria-label="CSS or tokens"
		placeholder=".add-to-basket &#123; background: … &#125;"
		bind:value={pasted}></textarea>
	<span class="grid gap-2 whitespace-nowrap">
		<Press small type="submit" disabled={!pasted.trim()}>Read it</Press>
		<FilePick
			inline
			label="A stylesheet or design tokens"
			accept=".css,.json,.tokens,text/css,application/json"
			onpick={async (file) => bringing.read(await file.text())}>a file</FilePick
		>
	</span>
</form>

<style>
	.mini {
		display: block;
		overflow: hidden;
		padding: 4px 0;
	}
	.starts {
		display: grid;
		grid-template-columns: repeat(4, 1fr);
		gap: 8px;
	}
	.start {
		display: grid;
		align-content: end;
		width: 100%;
		height: 100%;
		padding: 8px;
		text-align: left;
		border: 1px solid var(--color-hair);
	}
	.start:hover {
		border-color: var(--color-ink);
	}
	.stand {
		display: grid;
		place-items: center start;
		min-height: 52px;
		margin-bottom: 6px;
	}
</style>
