<script lang="ts">
	import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
	import { Combobox } from 'bits-ui';
	import { tick } from 'svelte';
	import { count } from '$lib/pure/format';
	import { useWorkshop } from '$lib/state/workshop.svelte';

	type Props = { sku: string; name: string; onpick: (sku: string) => void };
	let { sku, name, onpick }: Props = $props();
	const workshop = useWorkshop();
	let isOpen = $state(false);
	let typed = $state('');
	const matches = createQuery(() => ({
		...workshop.ask.products(typed),
		enabled: isOpen,
		placeholderData: keepPreviousData,
	}));
	const products = $derived(matches.data?.products ?? []);
	const more = $derived((matches.data?.total ?? 0) - products.length);

	/** The list marks its first line when something is typed; of lines that arrive later it has to be told. */
	function highlightFirst(input: HTMLInputElement): void {
		void products;
		void tick().then(() => isOpen && input.dispatchEvent(new Event('input', { bubbles: true })));
	}
</script>

<Combobox.Root
	type="single"
	value={sku}
	allowDeselect={false}
	bind:open={
		() => isOpen,
		(open) => {
			isOpen = open;
			typed = '';
		}
	}
	onValueChange={(picked) => picked && picked !== sku && onpick(picked)}
>
	<Combobox.Input
		class="value product"
		aria-label="Product: {name}"
		autocomplete="off"
		maxlength={120}
		placeholder={name}
		oninput={(event) => (typed = event.currentTarget.value)}
		onclick={() => (isOpen = true)}
	>
		{#snippet child({ props })}
			<input
				{...props}
				style:--letters={Math.min(34, Math.max(8, name.length))}
				value={isOpen ? typed : name}
				{@attach highlightFirst}
			/>
		{/snippet}
	</Combobox.Input>
	<!-- Within the page’s main part, so that it belongs to a landmark. -->
	<Combobox.Portal to="#content">
		<Combobox.Content
			sideOffset={4}
			collisionPadding={12}
			class="z-40 max-h-80 w-96 overflow-auto border border-ink bg-leaf py-1 shadow-float"
			aria-label="Products"
		>
			<Combobox.Viewport>
				{#each products as product (product.sku)}
					<Combobox.Item
						value={product.sku}
						label={product.name}
						class="flex cursor-pointer items-baseline gap-2 px-3 py-1 outline-none data-highlighted:bg-marker"
					>
						<span class="w-3 shrink-0 font-mono" aria-hidden="true">{product.sku === sku ? '|' : ''}</span>
						<span class="min-w-0 flex-1">{product.name}</span>
						<span class="figure shrink-0 text-xs text-soft">{product.sku}</span>
					</Combobox.Item>
				{:else}
					<p class="px-3 py-1 text-soft">
						{matches.isFetching ? 'Searching…' : (matches.error?.message ?? 'No product is called that.')}
					</p>
				{/each}
			</Combobox.Viewport>
			{#if more > 0}
				<p class="border-t border-hair px-3 pt-1 text-soft">
					and <span class="figure">{count(more)}</span> more: type a part of the name, the code or the category
				</p>
			{/if}
		</Combobox.Content>
	</Combobox.Portal>
</Combobox.Root>

<style>
	:global(.product) {
		width: calc(var(--letters) * 1ch);
		max-width: 34ch;
	}
	@supports (field-sizing: content) {
		:global(.product) {
			field-sizing: content;
			width: auto;
			min-width: 8ch;
		}
	}
</style>
