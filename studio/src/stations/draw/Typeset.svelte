<script lang="ts">
	import { LIMITS } from '$lib/pure/facts';
	import type { DrawView } from '$lib/api/types';
	import { px } from '$lib/pure/format';
	import type { holdsOf } from '$lib/pure/holds';
	import type { Desk } from '$lib/state/desk.svelte';
	import type { Hand } from '$lib/state/hand.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Handle from './Handle.svelte';

	type Props = { view: DrawView; desk: Desk; hand: Hand; holds: ReturnType<typeof holdsOf> };
	let { view, desk, hand, holds }: Props = $props();
	const d = $derived(view.shown.drawing);
	const type = $derived(view.document.look.type);
</script>

{#snippet figure(label: string, field: 'size_px' | 'line' | 'letter_spacing_px')}
	{@const limits = LIMITS[`look.type.${field}`]}
	<Figure
		{label}
		value={type[field]}
		least={limits[0]}
		most={limits[1]}
		marked={desk.marked === `look.type.${field}`}
		onfocus={() => desk.mark(`look.type.${field}`)}
		onset={(to: number) => desk.set(`look.type.${field}`, to)}
		ontry={(to: number) => desk.tryOut({ [`look.type.${field}`]: to })}
	/>
{/snippet}

<p><span class="name">cap</span> <span class="figure">{px(d.baseline_y - d.cap_top_y)}</span></p>
<p>
	<Handle says="type" grip="type" hold={holds.type} {hand} />
	{@render figure('type size', 'size_px')}
</p>
<p>
	<Handle says="line" grip="line" hold={holds.line} {hand} />
	{@render figure('line height', 'line')}
	<span class="name">= {px(d.line_height_px)}</span>
</p>
<p>
	<Handle says="letter spacing" grip="letter spacing" hold={holds.apart} {hand} />
	{@render figure('letter spacing', 'letter_spacing_px')}
</p>
{#if d.shift_px}<p class="name">{px(d.shift_px)} {d.shift_px > 0 ? 'down' : 'up'} to centre</p>{/if}

<style>
	p {
		width: fit-content;
		padding-right: 4px;
		background: var(--color-leaf);
	}
	.name {
		font-size: 12px;
		color: var(--color-soft);
	}
</style>
