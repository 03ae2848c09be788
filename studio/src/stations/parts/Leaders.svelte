<script lang="ts">
	import type { Finding } from '$lib/api/types';
	import { spotOf, type Plan } from '$lib/pure/dimensions';

	type Props = {
		plan: Plan;
		findings: readonly Finding[];
		/** The list of callouts, beside the paper. */
		list: HTMLElement | undefined;
		width: number;
		height: number;
	};
	let { plan, findings, list, width, height }: Props = $props();
	type Leader = { d: string; weight: string; x: number; y: number };
	let leaders = $state.raw<readonly Leader[]>([]);

	/** From the callout's first line to the spot that it means; what has been scrolled out of sight has none. */
	function lead(): void {
		if (!list) return;
		const frame = list.getBoundingClientRect();
		const items = Array.from(list.querySelectorAll<HTMLElement>('li[data-rule]'));
		leaders = items.flatMap((item, n) => {
			const finding = findings[n];
			const y = item.getBoundingClientRect().top - frame.top + 22;
			if (!finding || finding.weight === 'note' || y < 8 || y > height - 8) return [];
			const spot = spotOf(plan, finding.spot);
			const bend = Math.min(width - 24, Math.max(spot.x + 40, width - 90));
			return [{ d: `M${spot.x} ${spot.y}L${bend} ${y}H${width}`, weight: finding.weight, ...spot }];
		});
	}
	$effect(() => {
		void [plan, findings, width, height];
		lead();
		list?.addEventListener('scroll', lead, { passive: true });
		return () => list?.removeEventListener('scroll', lead);
	});
</script>

<svg {width} {height} class="leaders" aria-hidden="true">
	{#each leaders as leader, n (n)}
		<path class="casing" d={leader.d} />
		<path class={leader.weight} d={leader.d} />
		<circle class={leader.weight} cx={leader.x} cy={leader.y} r="4" />
	{/each}
</svg>

<style>
	.leaders {
		position: absolute;
		inset: 0;
		pointer-events: none;
	}
	path {
		fill: none;
		stroke-width: 1.25;
	}
	.casing {
		stroke: var(--color-leaf);
		stroke-width: 3;
		opacity: 0.8;
	}
	.must_fix {
		stroke: var(--color-must);
	}
	.look_again {
		stroke: var(--color-look);
		stroke-dasharray: 5 3;
	}
	circle {
		fill: var(--color-leaf);
		stroke-width: 2;
		stroke-dasharray: none;
	}
</style>
