<script lang="ts">
	import type { Reading } from '$lib/pure/css/frame';
	import { many } from '$lib/pure/format';
	import { Stylesheet } from '$lib/state/stylesheet.svelte';
	import Press from '$lib/ui/Press.svelte';

	type Props = {
		css: string;
		/** What the buttons of the stylesheet say, so that they can be told from one another. */
		words: string;
		/** The button is chosen, even where there is only one. */
		chooses: boolean;
		/** Called with what the browser makes of the button that is meant. */
		onread: (reading: Reading) => void;
		onback: () => void;
	};
	let { css, words, chooses, onread, onback }: Props = $props();
	// svelte-ignore state_referenced_locally
	const sheet = new Stylesheet(css, words, (button) => void (chooses || read(button.markup, button.name)));
	let markup = $state('');
	const standing = $derived(sheet.standing);

	async function read(of: string, name = ''): Promise<void> {
		const look = await sheet.read(of, name);
		if (look) onread(look);
	}
</script>

<p class="mt-3">
	{#if standing === null}
		Laying the stylesheet’s buttons out…
	{:else if standing.length}
		It has {many(standing.length, 'rule')} that look like a button’s. Press the one you mean.
	{:else}
		No rule in it looks like a button’s. Write the button as your page does, below.
	{/if}
</p>
<div class="mt-2 max-h-96 overflow-auto border border-hair bg-leaf">
	<div class="relative [&>iframe]:block" {@attach sheet.layOut}>
		{#each standing ?? [] as one, n (n)}
			<button
				class="choice"
				style:left="{one.box.x - 6}px"
				style:top="{one.box.y - 6}px"
				style:width="{one.box.width + 12}px"
				style:height="{one.box.height + 12}px"
				aria-label="Take {one.name}"
				onclick={() => read(one.markup, one.name)}
			>
				<span>{one.name}</span>
			</button>
		{/each}
	</div>
</div>
<form
	class="mt-3 flex items-start gap-2"
	onsubmit={(event) => {
		event.preventDefault();
		void read(markup);
	}}
>
	<textarea
		class="field h-16 w-full font-mono text-sm"
		aria-label="The button as your page writes it"
		placeholder="&lt;div class='card'>&lt;button class='btn btn-primary'>Add to basket&lt;/button>&lt;/div>"
		bind:value={markup}></textarea>
	<span class="grid gap-2 whitespace-nowrap">
		<Press small type="submit" disabled={!markup.trim()}>Read this one</Press>
		<Press small onpress={onback}>Back</Press>
	</span>
</form>
<p class="mt-1 text-sm text-soft">
	With its own markup, in what it stands in, all of its classes count. No script of it runs and nothing is fetched.
</p>
{#if sheet.wrong}<p role="alert" class="mt-2 text-must">{sheet.wrong}</p>{/if}

<style>
	.choice {
		position: absolute;
		border: 1px dashed transparent;
		cursor: pointer;
	}
	.choice span {
		position: absolute;
		top: calc(100% + 1px);
		left: 6px;
		font: 12px var(--font-mono);
		white-space: nowrap;
		color: var(--color-soft);
	}
	.choice:hover,
	.choice:focus-visible {
		border-color: var(--color-ink);
	}
</style>
