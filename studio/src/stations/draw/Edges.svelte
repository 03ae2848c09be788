<script lang="ts">
	import { borderOf, SHADOW, thickness, type Drawn, type holdsOf } from '$lib/pure/holds';
	import type { Desk } from '$lib/state/desk.svelte';
	import type { Hand } from '$lib/state/hand.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Handle from './Handle.svelte';

	type Props = { desk: Desk; look: Drawn; hand: Hand; holds: ReturnType<typeof holdsOf> };
	let { desk, look, hand, holds }: Props = $props();
	const shadow = $derived(look.shadows.list[0]);
</script>

<Handle says="border" grip="border" hold={holds.border} {hand} />
<Figure
	label="border"
	value={thickness(look)}
	least={0}
	most={24}
	marked={desk.marked === 'look.border'}
	onfocus={() => desk.mark('look.border')}
	onset={(to: number) => desk.setAll(borderOf(look, to))}
/>
{#if shadow}
	<span class="name">shadow</span>
	{#each SHADOW as [key, says, least, most], n (key)}
		{@const hold = holds.shadow[n]}
		{#if hold}<Handle {says} grip="shadow {says}" {hold} {hand} />{/if}
		<Figure
			label="shadow {says}"
			value={shadow[key] ?? 0}
			{least}
			{most}
			marked={desk.marked === `look.shadows.list.0.${key}`}
			onfocus={() => desk.mark(`look.shadows.list.0.${key}`)}
			onset={(to: number) => desk.set(`look.shadows.list.0.${key}`, to)}
		/>
	{/each}
{/if}

<style>
	.name {
		font-size: 12px;
		color: var(--color-soft);
	}
</style>
