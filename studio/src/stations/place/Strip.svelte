<script lang="ts">
	import type { AlongDevice, Device } from '$lib/api/types';
	import { count } from '$lib/pure/format';
	import { STRIP, StripPlan } from '$lib/pure/strip';
	import type { AlongThePage } from '$lib/state/along.svelte';
	import type { Desk } from '$lib/state/desk.svelte';
	import { drag } from '$lib/state/drag';
	import StripLanes from './StripLanes.svelte';
	import StripPage from './StripPage.svelte';

	type Props = {
		at: AlongThePage;
		device: Device;
		onDevice?: AlongDevice;
		desk: Desk;
		/** The placement whose coming can be dragged. */
		standing?: string;
		high: number;
	};
	let { at, device, onDevice, desk, standing, high }: Props = $props();
	const survey = $derived(at.surveys[device]);
	const plan = $derived(new StripPlan(survey, onDevice?.along, high));
	const now = $derived(at.at(device));
	const way = $derived(at.way(device));
	const windowHigh = $derived(survey?.window.high ?? 0);
	/** What of ours hangs, and is edited. */
	const barAt = $derived(plan.lanes.findIndex(({ key }) => key === standing && key !== 'over_picture'));
	const barBegins = $derived(plan.lanes[barAt]?.spans[0]?.[0]);
	let pulled = $state<number | null>(null);
	let svg: SVGSVGElement;

	/** Which position of the page lies under the pointer. */
	function under(event: PointerEvent): number {
		return (event.clientY - svg.getBoundingClientRect().top - STRIP.top) / plan.scale;
	}

	/** Drags the window along the page; pressed beside it, the page is taken by its middle. */
	const windowDrag = drag({
		begin: (event) => {
			if (!survey) return null;
			const px = under(event);
			const before = at.at(device);
			if (px < now || px > now + windowHigh) at.scrollTo(device, px - windowHigh / 2);
			return { px: at.at(device), before, scale: plan.scale };
		},
		move: (start, { y }) => at.scrollTo(device, start.px + y / start.scale),
		end: () => undefined,
		cancel: ({ before }) => at.scrollTo(device, before),
	});

	function wheel(event: WheelEvent): void {
		event.preventDefault();
		at.scrollTo(device, now + event.deltaY);
	}

	function key(event: KeyboardEvent): void {
		const steps: Record<string, number> = {
			ArrowDown: 40,
			ArrowUp: -40,
			PageDown: windowHigh,
			PageUp: -windowHigh,
			Home: -1e9,
			End: 1e9,
		};
		const by = steps[event.key];
		if (by === undefined) return;
		event.preventDefault();
		at.scrollTo(device, now + by);
	}

	/** A wheel that may be held back: a listener in the markup could not. */
	function wheels(element: Element) {
		element.addEventListener('wheel', wheel as EventListener, { passive: false });
		return () => element.removeEventListener('wheel', wheel as EventListener);
	}

	const comes = (px: number) => ({
		[`${standing === 'floating' ? 'floating' : 'bar'}.comes`]: { kind: 'distance', px: Math.round(px) },
	});
	const along = (px: number) => Math.min(way, Math.max(0, px));
	const barDrag = drag({
		begin: (event) => {
			// The window under it is not taken as well.
			event.stopPropagation();
			pulled = barBegins ?? 0;
			return { px: pulled, scale: plan.scale };
		},
		move: (start, { y }) => {
			pulled = along(start.px + y / start.scale);
			desk.tryOut(comes(pulled));
		},
		end: (start, { y }) => {
			pulled = null;
			void desk.settle(y ? comes(along(start.px + y / start.scale)) : null);
		},
		cancel: () => {
			pulled = null;
			void desk.settle(null);
		},
		step: (way, event) => {
			event.stopPropagation();
			void desk.setAll(comes(along((barBegins ?? 0) + way.y * (event.shiftKey ? 100 : 10))));
		},
	});
</script>

<svg
	bind:this={svg}
	width={STRIP.wide}
	height={high}
	role="group"
	aria-label="The page, its buttons and the window"
	{@attach windowDrag}
	{@attach wheels}
>
	<defs>
		<pattern id="hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
			<line x1="0" y1="0" x2="0" y2="6" stroke="var(--color-must)" stroke-width="2.4" />
		</pattern>
	</defs>
	{#if survey}
		<StripPage {survey} {plan} />
		<StripLanes {plan} along={onDevice?.along} {high} {now} {way} pointed={at.pointed} />
		<rect
			class="window"
			role="slider"
			tabindex="0"
			aria-label="Position of the window along the page"
			aria-orientation="vertical"
			aria-valuemin={0}
			aria-valuemax={Math.round(way)}
			aria-valuenow={Math.round(now)}
			aria-valuetext="{count(now)} of {count(way)} px"
			onkeydown={key}
			x="-1"
			y={plan.y(now)}
			width={STRIP.page + 2}
			height={Math.max(6, windowHigh * plan.scale)}
			transform="translate(1 0)"
		/>
		<line class="reading" x1={STRIP.page + 1} x2={plan.end + 4} y1={plan.y(now)} y2={plan.y(now)} />
		<text class="now" x={STRIP.ruler + 14} y={plan.y(now) + 14}>{count(now)}</text>
		{#if barBegins !== undefined && desk.view}
			<g
				class="grip"
				role="slider"
				tabindex="0"
				aria-label="Where the {standing === 'floating' ? 'floating button' : 'bar'} comes"
				aria-orientation="vertical"
				aria-valuemin={0}
				aria-valuemax={Math.round(way)}
				aria-valuenow={Math.round(pulled ?? barBegins)}
				{@attach barDrag}
			>
				<rect
					x={plan.laneX(barAt) - 12}
					y={plan.y(pulled ?? barBegins) - 12}
					width="24"
					height="24"
					fill="transparent"
				/>
				<path
					d="M{plan.laneX(barAt) - 9} {plan.y(pulled ?? barBegins)}h18M{plan.laneX(barAt) - 5} {plan.y(
						pulled ?? barBegins,
					) - 4}h10"
				/>
			</g>
		{/if}
	{/if}
</svg>

<style>
	svg {
		display: block;
		overflow: visible;
		touch-action: none;
		cursor: ns-resize;
		user-select: none;
	}
	.now {
		font: 12px var(--font-mono);
		fill: var(--color-ink);
		font-weight: 500;
		stroke: var(--color-paper);
		stroke-width: 4px;
		paint-order: stroke;
	}
	.window {
		fill: color-mix(in srgb, var(--color-marker) 40%, transparent);
		stroke: var(--color-ink);
		stroke-width: 2;
	}
	.window:focus-visible {
		outline: 2px solid var(--color-ink);
		outline-offset: 3px;
	}
	.reading {
		stroke: var(--color-ink);
		stroke-width: 2;
	}
	.grip {
		cursor: row-resize;
	}
	.grip path {
		stroke: var(--color-ink);
		stroke-width: 3;
		fill: none;
	}
	.grip:hover path,
	.grip:focus-visible path {
		stroke: var(--color-must);
	}
</style>
