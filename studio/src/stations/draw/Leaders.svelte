<script lang="ts">
	import type { Finding } from '$lib/api/types';
	import type { Plan } from '$lib/pure/dimensions';
	import { leadersOf } from '$lib/pure/leaders';

	type Props = {
		plan: Plan;
		findings: readonly Finding[];
		/** The list of callouts, beside the paper. */
		list: HTMLElement | undefined;
		width: number;
		height: number;
	};
	let { plan, findings, list, width, height }: Props = $props();
	let callouts = $state.raw<readonly (number | undefined)[]>([]);
	const leaders = $derived(leadersOf(plan, findings, callouts, width));

	/** Where each callout's first line stands; what has been scrolled out of sight has no leader. */
	function measure(): void {
		if (!list) return;
		const frame = list.getBoundingClientRect();
		callouts = Array.from(list.querySelectorAll<HTMLElement>('li[data-rule]')).map((item) => {
			const y = item.getBoundingClientRect().top - frame.top + 22;
			return y < 8 || y > height - 8 ? undefined : y;
		});
	}
	/** Follows the callouts as they change and are scrolled. */
	function follow(): () => void {
		void [plan, findings, width, height];
		measure();
		const scrolled = list;
		scrolled?.addEventListener('scroll', measure, { passive: true });
		return () => scrolled?.removeEventListener('scroll', measure);
	}
</script>

<svg {width} {height} class="leaders" aria-hidden="true" {@attach follow}>
	{#each leaders as leader, n (n)}
		<path class="casing" d={leader.d} />
		<path class={leader.weight} d={leader.d} />
		<circle class={leader.weight} cx={leader.x} cy={leader.y} r={leader.says ? 8 : 4} />
		{#if leader.says}<text x={leader.x} y={leader.y}>{leader.says}</text>{/if}
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
	text {
		font: 600 9px var(--font-sans);
		text-anchor: middle;
		dominant-baseline: central;
		fill: var(--color-ink);
	}
	circle {
		fill: var(--color-leaf);
		stroke-width: 2;
		stroke-dasharray: none;
	}
</style>
