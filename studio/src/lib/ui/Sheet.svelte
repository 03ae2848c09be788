<script lang="ts">
	import { Dialog } from 'bits-ui';
	import type { Snippet } from 'svelte';
	import ProblemLine from './ProblemLine.svelte';
	import { sheets } from './sheets.svelte';

	type Props = {
		open: boolean;
		title: string;
		onclose: () => void;
		children: Snippet;
		/** For what needs two columns. */
		wide?: boolean;
	};
	let { open, title, onclose, children, wide = false }: Props = $props();
</script>

<Dialog.Root {open} onOpenChange={(now) => !now && onclose()}>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-30 bg-ink/30" />
		<Dialog.Content class={['floating-sheet border border-ink bg-leaf p-6 shadow-float', wide && 'wide']}>
			<Dialog.Title class="text-lg font-bold">{title}</Dialog.Title>
			<div {@attach sheets.count}>
				<ProblemLine class="sheet-problem" />
				{@render children()}
			</div>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>

<style>
	:global(.floating-sheet) {
		position: fixed;
		/* Held at its upper edge: one that grows or shrinks as answers come must not move under the pointer. */
		top: 9vh;
		left: 50%;
		z-index: 31;
		width: min(560px, 92vw);
		max-height: 86vh;
		overflow: auto;
		transform: translateX(-50%);
	}
	:global(.floating-sheet .sheet-problem) {
		position: sticky;
		top: -24px;
		z-index: 1;
		margin-top: 12px;
		border-width: 1px;
		padding: 8px 12px;
	}
	:global(.floating-sheet.wide) {
		width: min(980px, 94vw);
	}
</style>
