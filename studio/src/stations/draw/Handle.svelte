<script lang="ts">
	import type { Hold } from '$lib/pure/holds';
	import type { Hand } from '$lib/state/hand.svelte';

	type Props = {
		/** The dimension's name, which is dragged. */
		says: string;
		/** What is dragged, as its figure is called. */
		grip: string;
		hold: Hold;
		hand: Hand;
	};
	let { says, grip, hold, hand }: Props = $props();
</script>

<span class={['handle', hold.axis]} data-grip="{grip} name" role="presentation" {@attach hand.drags(hold)}>{says}</span>

<style>
	.handle {
		font-size: 12px;
		color: var(--color-soft);
		cursor: ew-resize;
		touch-action: none;
		user-select: none;
	}
	.handle.y {
		cursor: ns-resize;
	}
	.handle:hover {
		background: var(--color-marker);
		color: var(--color-ink);
	}
</style>
