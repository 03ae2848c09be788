<script lang="ts">
	import type { Plan } from '$lib/pure/dimensions';
	import type { Hold } from '$lib/pure/holds';
	import { inPx, type Ground, type Length } from '$lib/pure/length';
	import type { Desk } from '$lib/state/desk.svelte';
	import type { Hand } from '$lib/state/hand.svelte';
	import Figure from '$lib/ui/Figure.svelte';

	type Props = { plan: Plan; desk: Desk; ground: Ground; hand: Hand };
	let { plan, desk, ground, hand }: Props = $props();

	type Corner = 'top_left' | 'top_right' | 'bottom_right' | 'bottom_left';
	const names: readonly Corner[] = ['top_left', 'top_right', 'bottom_right', 'bottom_left'];
	const radius = $derived((plan.view.document.look as { radius: Length | Record<Corner, Length> }).radius);
	const each = $derived(typeof radius === 'object' ? radius : null);
	const of = (corner: Corner): Length => (each ? each[corner] : (radius as Length));
	/** Where each corner is drawn; from right to left they change sides. */
	const left = (corner: Corner) => corner.endsWith('left') !== plan.view.seen.rtl;
	const top = (corner: Corner) => corner.startsWith('top');
	const shown = $derived(each ? names : (['top_right'] as const));

	const path = (corner: Corner) => (each ? `look.radius.${corner}` : 'look.radius');
	function part(): void {
		const length = radius as Length;
		void desk.set('look.radius', { kind: 'corners', ...Object.fromEntries(names.map((name) => [name, length])) });
	}
	function join(): void {
		if (each) void desk.set('look.radius', each.top_left);
	}

	/** A corner is pulled across, towards the middle of the button. */
	const holdOf = (corner: Corner): Hold => ({
		start: inPx(of(corner), { ...ground, container: plan.drawing.outer.width }),
		axis: 'x',
		pull: left(corner) ? 1 : -1,
		of: (value) => ({ [path(corner)]: value }),
		bounds: [0, 400],
	});
	const where = (corner: Corner) => {
		const inset = Math.min(inPx(of(corner), ground), plan.drawing.outer.height / 2) * 0.3;
		return {
			x: left(corner) ? plan.x(inset) : plan.x(plan.drawing.outer.width - inset),
			y: top(corner) ? plan.y(inset) : plan.y(plan.drawing.outer.height - inset),
		};
	};
	const label = (corner: Corner) => ({
		x: left(corner) ? plan.x(0) + 6 : plan.right + 24,
		y: top(corner) ? plan.y(0) - (left(corner) ? 12 : 34) : plan.bottom + 12,
	});
</script>

<svg class="corners" aria-hidden="true">
	{#each shown as corner (corner)}
		{@const at = where(corner)}
		{@const to = label(corner)}
		<path class="leader" d="M{at.x} {at.y}L{to.x} {to.y + (top(corner) ? 10 : -6)}" />
		<circle
			class="grip"
			cx={at.x}
			cy={at.y}
			r="8"
			role="presentation"
			data-grip="corner {corner}"
			{@attach hand.drags(holdOf(corner))}
		/>
	{/each}
</svg>
{#each shown as corner (corner)}
	{@const to = label(corner)}
	<p class="at" style:left="{to.x}px" style:top="{to.y}px">
		<span class="r">r</span>
		<Figure
			label={each ? `${corner.replace('_', ' ')} corner` : 'corner radius'}
			value={of(corner)}
			{ground}
			keepsUnits
			marked={desk.marked === path(corner)}
			onfocus={() => desk.mark(path(corner))}
			onset={(value: Length) => desk.set(path(corner), value)}
		/>
		{#if corner === 'top_right'}
			<button class="value" onclick={each ? join : part}>{each ? 'all alike' : 'each'}</button>
		{/if}
	</p>
{/each}

<style>
	.corners {
		position: absolute;
		inset: 0;
		width: 100%;
		height: 100%;
		pointer-events: none;
	}
	.leader {
		stroke: var(--color-soft);
		fill: none;
	}
	.grip {
		fill: transparent;
		pointer-events: all;
		cursor: nesw-resize;
		touch-action: none;
	}
	.grip:hover {
		fill: var(--color-marker);
		stroke: var(--color-ink);
	}
	.at {
		position: absolute;
		transform: translate(0, -50%);
		white-space: nowrap;
		pointer-events: auto;
		font-size: 13px;
		background: var(--color-leaf);
	}
	.r {
		font-size: 12px;
		color: var(--color-soft);
	}
	.value {
		font-size: 12px;
		font-weight: 500;
	}
</style>
