<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { client, data } from '$lib/api/client';
	import { keyOf } from '$lib/api/keys';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Sheet from '$lib/ui/Sheet.svelte';
	import { navigate } from './router';

	type Command = { title: string; does: () => void };
	type Props = { open: boolean; onclose: () => void; commands: readonly Command[] };
	let { open, onclose, commands }: Props = $props();
	const workshop = useWorkshop();
	let text = $state('');
	let picked = $state(0);
	const found = createQuery(() => ({
		queryKey: keyOf.search(workshop.store, text, workshop.draft?.version),
		enabled: open && text.trim() !== '',
		placeholderData: (before) => before,
		queryFn: () => data(client.GET('/api/stores/{store}/search', { params: { path: workshop.path, query: { text } } })),
	}));
	const lines = $derived([
		...(text.trim() ? (found.data ?? []) : []).map((one) => ({
			kind: one.kind as string,
			title: one.title,
			says: one.says,
			does: () => {
				if (one.kind === 'product')
					void navigate('/draw/:placement', { params: { placement: 'product_page' }, search: { product: one.id } });
				else if (one.kind === 'exception') workshop.opened = one.id;
				else void navigate('/');
			},
		})),
		...commands
			.filter((one) =>
				text
					.toLowerCase()
					.split(/\s+/)
					.every((word) => one.title.toLowerCase().includes(word)),
			)
			.map((one) => ({ kind: 'command', title: one.title, says: '', does: one.does })),
	]);

	function go(n: number): void {
		const line = lines[n];
		if (!line) return;
		close();
		line.does();
	}
	function close(): void {
		text = '';
		picked = 0;
		onclose();
	}
	function onkeydown(event: KeyboardEvent): void {
		if (event.key === 'ArrowDown') picked = Math.min(picked + 1, lines.length - 1);
		else if (event.key === 'ArrowUp') picked = Math.max(picked - 1, 0);
		else if (event.key === 'Enter') go(picked);
		else return;
		event.preventDefault();
	}
</script>

<Sheet {open} title="Search" onclose={close}>
	<input
		class="field mt-2 w-full border-2 text-lg"
		aria-label="Search for a product, an exception, a finding or a command"
		role="combobox"
		aria-expanded="true"
		aria-controls="found"
		aria-activedescendant={lines.length ? `found-${picked}` : undefined}
		autocomplete="off"
		bind:value={text}
		oninput={() => (picked = 0)}
		{onkeydown}
	/>
	<ul id="found" class="mt-2" role="listbox" aria-label="Results">
		{#each lines as line, n (`${line.kind}/${line.title}/${n}`)}
			<li id="found-{n}" role="option" aria-selected={n === picked} class={n === picked ? 'bg-marker' : ''}>
				<button tabindex="-1" class="flex w-full items-baseline gap-3 px-2 py-1 text-left" onclick={() => go(n)}>
					<span class="figure w-20 shrink-0 text-xs text-soft">{line.kind}</span>
					<b class="shrink-0">{line.title}</b>
					<span class="truncate text-soft">{line.says}</span>
				</button>
			</li>
		{:else}
			<li class="px-2 py-2 text-soft">Nothing is called that.</li>
		{/each}
	</ul>
</Sheet>
