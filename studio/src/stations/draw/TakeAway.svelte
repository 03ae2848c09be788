<script lang="ts">
	import { client, data } from '$lib/api/client';
	import type { Desk } from '$lib/state/desk.svelte';
	import Float from '$lib/ui/Float.svelte';

	type Props = { desk: Desk };
	let { desk }: Props = $props();
	const forms = [
		['text', 'sentences'],
		['css', 'CSS'],
		['tokens', 'design tokens'],
		['json', 'JSON'],
	] as const;
	let form = $state<(typeof forms)[number][0]>('text');
	let open = $state(false);
	let written = $state('');
	let told = $state('');
	$effect(() => {
		if (!open) return;
		const { path, query } = desk.params;
		void data(
			client.GET('/api/stores/{store}/draw/{placement}/written', {
				params: { path, query: { ...query, form } },
				parseAs: 'text',
			}),
		).then((text) => (written = String(text)));
	});
	async function copy(): Promise<void> {
		await navigator.clipboard.writeText(written);
		told = 'Copied.';
		setTimeout(() => (told = ''), 2000);
	}
	const file = $derived(`data:text/plain;charset=utf-8,${encodeURIComponent(written)}`);
	const ending = $derived({ text: 'txt', css: 'css', tokens: 'tokens.json', json: 'json' }[form]);
</script>

<Float label="Export as text, CSS, tokens or JSON" bind:open wide>
	{#snippet trigger()}export{/snippet}
	<p class="mb-2 flex gap-3" role="group" aria-label="Form">
		{#each forms as [key, says] (key)}
			<button class={['value', form === key && 'marked']} aria-pressed={form === key} onclick={() => (form = key)}
				>{says}</button
			>
		{/each}
	</p>
	<textarea class="field h-64 w-full font-mono text-sm" readonly aria-label="The look, written" value={written}
	></textarea>
	<p class="mt-2 flex items-center gap-4">
		<button class="value" onclick={copy}>copy</button>
		<a class="value" href={file} download="button.{ending}">as a file</a>
		<span role="status">{told}</span>
	</p>
</Float>
