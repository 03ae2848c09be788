<script lang="ts">
	import { pulled, type Plan } from '$lib/pure/dimensions';
	import { inPx, type Ground, type Length } from '$lib/pure/length';
	import type { Desk } from '$lib/state/desk.svelte';
	import Figure from '$lib/ui/Figure.svelte';

	type Props = { plan: Plan; desk: Desk; ground: Ground };
	let { plan, desk, ground }: Props = $props();

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
		const one = radius as Length;
		void desk.set('look.radius', { kind: 'corners', ...Object.fromEntries(names.map((name) => [name, one])) });
	}
	function join(): void {
		if (each) void desk.set('look.radius', each.top_left);
	}

	let held = $state.raw<{ at: number; start: number; corner: Corner } | null>(null);
	let last: Record<string, number> | null = null;
	function hold(event: PointerEvent, corner: Corner): void {
		event.preventDefault();
		(event.currentTarget as Element).setPointerCapture(event.pointerId);
		const own = { ...ground, container: plan.drawing.outer.width };
		desk.held = plan.stage;
		held = { at: event.clientX, start: inPx(of(corner), own), corner };
	}
	function pull(event: PointerEvent): void {
		if (!held) return;
		const value = pulled(held.start, event.clientX - held.at, plan.stage, left(held.corner) ? 1 : -1, event.altKey);
		last = { [path(held.corner)]: Math.min(400, Math.max(0, value)) };
		desk.tryOut(last);
	}
	function letGo(values: Record<string, number> | null): void {
		if (held) void desk.settle(values);
		desk.held = held = last = null;
	}
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
			onpointerdown={(event) => hold(event, corner)}
			onpointermove={pull}
			onpointerup={() => letGo(last)}
			onpointercancel={() => letGo(null)}
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
