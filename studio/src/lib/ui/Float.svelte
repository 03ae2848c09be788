<script lang="ts">
	import { Popover } from 'bits-ui';
	import type { Snippet } from 'svelte';

	type Props = {
		/** What stands in the sentence and opens what floats. */
		label: string;
		trigger: Snippet;
		children: Snippet;
		onfocus?: () => void;
		open?: boolean;
		/** For what needs two columns. */
		wide?: boolean;
	};
	let { label, trigger, children, onfocus, open = $bindable(false), wide = false }: Props = $props();
</script>

<span class="inline-flex items-baseline">
	<Popover.Root bind:open>
		<Popover.Trigger class="value" aria-label={label} {onfocus}>{@render trigger()}</Popover.Trigger>
		<Popover.Portal>
			<Popover.Content
				sideOffset={6}
				collisionPadding={12}
				class={[
					'z-40 max-h-[70vh] overflow-auto border border-ink bg-leaf p-4 shadow-float',
					wide ? 'w-[420px]' : 'w-72',
				]}
				role="dialog"
				aria-label={label}
			>
				{@render children()}
			</Popover.Content>
		</Popover.Portal>
	</Popover.Root>
</span>
