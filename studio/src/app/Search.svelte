<script lang="ts">
	import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
	import { Command } from 'bits-ui';
	import { readable, useActions } from '$lib/state/actions.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Empty from '$lib/ui/Empty.svelte';
	import Sheet from '$lib/ui/Sheet.svelte';

	type Props = { open: boolean; onclose: () => void };
	let { open, onclose }: Props = $props();
	const workshop = useWorkshop();
	const actions = useActions();
	let text = $state('');
	const matches = createQuery(() => ({
		...workshop.ask.search(text),
		enabled: open && text.trim() !== '',
		placeholderData: keepPreviousData,
	}));
	const words = $derived(text.toLowerCase().split(/\s+/).filter(Boolean));
	/** What was found for other letters stays in sight while the studio searches, as far as it fits these: Enter takes it. */
	const fitting = $derived(
		(words.length ? (matches.data ?? []) : []).filter(
			({ id, title, says }) =>
				!matches.isPlaceholderData || words.every((word) => `${id} ${title} ${says}`.toLowerCase().includes(word)),
		),
	);
	const lines = $derived([
		...fitting.map((match) => ({
			kind: match.kind as string,
			title: match.title,
			says: match.says,
			run: () => {
				if (match.kind === 'product') workshop.context.go('/draw/product_page', { product: match.id, moment: '' });
				else if (match.kind === 'exception') workshop.opened.exception = match.id;
				else workshop.context.go('/');
			},
		})),
		...actions.available
			.filter((action) => words.every((word) => action.title.toLowerCase().includes(word)))
			.map((action) => ({
				kind: 'command',
				title: action.title,
				says: action.keys?.map(readable).join(' or ') ?? '',
				run: action.run,
			})),
	]);

	function choose(line: { run: () => void }): void {
		close();
		line.run();
	}
	function close(): void {
		text = '';
		onclose();
	}
</script>

<Sheet {open} title="Search" onclose={close}>
	<!-- The studio searches; the list only shows what it answers. -->
	<Command.Root
		shouldFilter={false}
		vimBindings={false}
		label="Search for a product, an exception, a finding or a command"
	>
		<Command.Input class="field mt-2 w-full border-2 text-lg" autocomplete="off" bind:value={text} />
		<Command.List class="mt-2 max-h-[56vh] overflow-auto" aria-label="Results">
			<Command.Viewport>
				{#each lines as line, n (`${line.kind}/${line.title}/${n}`)}
					<Command.Item
						value="{n}/{line.kind}/{line.title}"
						onSelect={() => choose(line)}
						class="flex w-full cursor-pointer items-baseline gap-3 px-2 py-1 text-left data-selected:bg-marker"
					>
						<span class="figure w-20 shrink-0 text-xs text-soft">{line.kind}</span>
						<b class="shrink-0">{line.title}</b>
						<span class="truncate text-soft">{line.says}</span>
					</Command.Item>
				{:else}
					<Empty>
						{matches.isFetching ? 'Searching…' : (matches.error?.message ?? 'Nothing is called that.')}
					</Empty>
				{/each}
			</Command.Viewport>
		</Command.List>
	</Command.Root>
</Sheet>
