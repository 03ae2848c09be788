<script lang="ts" module>
	/** One line of the list: what it is called, and what else tells it apart. */
	export type Choice = { value: string; label: string; says?: string };
</script>

<script lang="ts">
	import { Combobox } from 'bits-ui';
	import { tick, type Snippet } from 'svelte';
	import Empty from './Empty.svelte';

	type Props = {
		/** What is chosen, as a screen reader says it. */
		label: string;
		/** What the list is of. */
		list: string;
		value: string;
		/** The name of what is chosen, shown while nothing is typed. */
		name: string;
		choices: readonly Choice[];
		open: boolean;
		typed: string;
		onpick: (value: string) => void;
		/** Said where no line is listed. */
		empty: string;
		/** Said below the list. */
		below?: Snippet;
	};
	let {
		label,
		list,
		value,
		name,
		choices,
		open = $bindable(),
		typed = $bindable(),
		onpick,
		empty,
		below,
	}: Props = $props();

	/** The list marks its first line when something is typed; of lines that arrive later it has to be told. */
	function highlightFirst(input: HTMLInputElement): void {
		void choices;
		void tick().then(() => open && input.dispatchEvent(new Event('input', { bubbles: true })));
	}
</script>

<Combobox.Root
	type="single"
	{value}
	allowDeselect={false}
	bind:open={
		() => open,
		(to) => {
			open = to;
			typed = '';
		}
	}
	onValueChange={(picked) => picked && picked !== value && onpick(picked)}
>
	<Combobox.Input
		class="value combobox"
		aria-label={label}
		autocomplete="off"
		maxlength={120}
		placeholder={name}
		oninput={(event) => (typed = event.currentTarget.value)}
		onclick={() => (open = true)}
	>
		{#snippet child({ props })}
			<input
				{...props}
				style:--letters={Math.min(34, Math.max(8, name.length))}
				value={open ? typed : name}
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
			aria-label={list}
		>
			<Combobox.Viewport>
				{#each choices as choice (choice.value)}
					<Combobox.Item
						value={choice.value}
						label={choice.label}
						class="flex cursor-pointer items-baseline gap-2 px-3 py-1 outline-none data-highlighted:bg-marker"
					>
						<span class="w-3 shrink-0 font-mono" aria-hidden="true">{choice.value === value ? '|' : ''}</span>
						<span class="min-w-0 flex-1">{choice.label}</span>
						<span class="figure shrink-0 text-xs text-soft">{choice.says}</span>
					</Combobox.Item>
				{:else}
					<div class="px-3"><Empty>{empty}</Empty></div>
				{/each}
			</Combobox.Viewport>
			{@render below?.()}
		</Combobox.Content>
	</Combobox.Portal>
</Combobox.Root>

<style>
	:global(.combobox) {
		width: calc(var(--letters) * 1ch);
		max-width: 34ch;
	}
	@supports (field-sizing: content) {
		:global(.combobox) {
			field-sizing: content;
			width: auto;
			min-width: 8ch;
		}
	}
</style>
