<script lang="ts" generics="V extends string">
	import { Select } from 'bits-ui';

	type Option = { value: V; label: string };
	type Props = {
		label: string;
		value: V;
		options: readonly Option[];
		onpick: (value: V) => void;
		onfocus?: () => void;
	};
	let { label, value, options, onpick, onfocus }: Props = $props();
	const shown = $derived(options.find((option) => option.value === value)?.label ?? value);
	/** The list takes the name of any key for the beginning of an option: Tab would pick "tablet". */
	function pass(event: KeyboardEvent): void {
		if (['Tab', 'Shift', 'Control', 'Alt', 'Meta'].includes(event.key)) event.stopPropagation();
	}
</script>

<span class="inline-flex items-baseline" role="presentation" onkeydowncapture={pass}>
	<Select.Root
		type="single"
		{value}
		items={[...options]}
		onValueChange={(picked) => picked !== value && onpick(picked as V)}
	>
		<Select.Trigger aria-label="{label}: {shown}" class="value" {onfocus}>{shown}</Select.Trigger>
		<Select.Portal>
			<Select.Content sideOffset={4} class="z-40 max-h-80 overflow-auto border border-ink bg-leaf py-1 shadow-float">
				<Select.Viewport>
					{#each options as option (option.value)}
						<Select.Item
							value={option.value}
							label={option.label}
							class="flex cursor-pointer items-center gap-2 px-3 py-1 outline-none data-highlighted:bg-marker"
						>
							{#snippet children({ selected })}
								<span class="w-3 font-mono">{selected ? '|' : ''}</span>{option.label}
							{/snippet}
						</Select.Item>
					{/each}
				</Select.Viewport>
			</Select.Content>
		</Select.Portal>
	</Select.Root>
</span>
