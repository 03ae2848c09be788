<script lang="ts">
	import { client, data, Problem } from '$lib/api/client';
	import type { ReachRead } from '$lib/api/types';
	import { many } from '$lib/pure/format';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Press from '$lib/ui/Press.svelte';

	type Props = {
		/** The reach as a designer says it. */
		value: string;
		/** Called with the words, and with what they mean once that is known; null while they mean nothing. */
		onread: (words: string, reach: ReachRead | null) => void;
		id?: string;
	};
	let { value, onread, id = 'reach-words' }: Props = $props();
	const workshop = useWorkshop();
	let read = $state.raw<ReachRead | null>(null);
	let wrong = $state.raw<{ says: string; near: readonly string[]; at: string } | null>(null);
	let asking = 0;

	$effect(() => {
		const words = value;
		const mine = ++asking;
		const timer = setTimeout(() => void ask(words, mine), 160);
		return () => clearTimeout(timer);
	});
	async function ask(words: string, mine: number): Promise<void> {
		try {
			const params = { path: workshop.path };
			const found = await data(client.POST('/api/stores/{store}/reach', { params, body: { text: words } }));
			if (mine !== asking) return;
			read = found;
			wrong = null;
		} catch (error) {
			if (mine !== asking) return;
			read = null;
			const facts = error instanceof Problem ? error.facts : {};
			wrong = {
				says: error instanceof Error ? error.message : String(error),
				near: (facts.near as string[] | undefined) ?? [],
				at: String(facts.at ?? ''),
			};
		}
		onread(words, read);
	}
	function take(near: string): void {
		const at = wrong?.at ?? '';
		const from = at ? value.toLowerCase().lastIndexOf(at.toLowerCase()) : -1;
		onread(from < 0 ? near : value.slice(0, from) + near + value.slice(from + at.length), null);
	}
</script>

<input
	{id}
	class="field mt-1 w-full text-md"
	maxlength="4000"
	autocomplete="off"
	spellcheck="false"
	aria-invalid={wrong !== null}
	aria-describedby="{id}-means"
	{value}
	oninput={(event) => onread(event.currentTarget.value, null)}
/>
<p id="{id}-means" class="mt-1 text-soft" aria-live="polite">
	{#if wrong}
		<span class="text-must">▲ {wrong.says}</span>
	{:else if read}
		{read.words}: <b class="text-ink">{many(read.products, 'product')}</b>{#if read.products && read.products < 7}, {read.examples.join(
				', ',
			)}{/if}
	{:else}
		reading…
	{/if}
</p>
{#if wrong?.near.length}
	<p class="mt-1 flex flex-wrap gap-2">
		{#each wrong.near as near (near)}<Press small onpress={() => take(near)}>{near}</Press>{/each}
	</p>
{/if}
