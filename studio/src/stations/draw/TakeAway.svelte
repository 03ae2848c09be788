<script lang="ts">
	import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
	import { ToggleGroup } from 'bits-ui';
	import type { Desk } from '$lib/state/desk.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Copy from '$lib/ui/Copy.svelte';
	import Float from '$lib/ui/Float.svelte';

	type Props = { desk: Desk };
	let { desk }: Props = $props();
	const workshop = useWorkshop();
	const forms = [
		['text', 'sentences'],
		['css', 'CSS'],
		['tokens', 'design tokens'],
		['json', 'JSON'],
	] as const;
	type Form = (typeof forms)[number][0];
	let form = $state<Form>('text');
	let open = $state(false);
	const written = createQuery(() => ({
		...workshop.ask.written(desk.params, form),
		enabled: open,
		placeholderData: keepPreviousData,
	}));
	const text = $derived(written.data ?? '');
	const file = $derived(`data:text/plain;charset=utf-8,${encodeURIComponent(text)}`);
	const ending = $derived({ text: 'txt', css: 'css', tokens: 'tokens.json', json: 'json' }[form]);
</script>

<Float label="Export as text, CSS, tokens or JSON" bind:open wide>
	{#snippet trigger()}export{/snippet}
	<ToggleGroup.Root
		type="single"
		bind:value={() => form, (to) => (form = (to || form) as Form)}
		class="mb-2 flex gap-3"
		aria-label="Form"
	>
		{#each forms as [key, says] (key)}<ToggleGroup.Item value={key} class="value">{says}</ToggleGroup.Item>{/each}
	</ToggleGroup.Root>
	<textarea class="field h-64 w-full font-mono text-sm" readonly aria-label="The look, written" value={text}></textarea>
	{#if written.error}<p role="alert" class="mt-2 text-must">{written.error.message}</p>{/if}
	<p class="mt-2 flex items-baseline gap-4">
		<Copy small {text} says="copy" />
		<a class="value" href={file} download="button.{ending}">as a file</a>
	</p>
</Float>
