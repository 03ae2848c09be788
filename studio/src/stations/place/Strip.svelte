<script lang="ts">
	import type { AlongDevice, Device, Lane } from '$lib/api/types';
	import { count } from '$lib/pure/format';
	import { ticks } from '$lib/pure/scroll';
	import type { AlongThePage } from '$lib/state/along.svelte';
	import type { Desk } from '$lib/state/desk.svelte';
	import { drag } from '$lib/state/drag';

	type Props = {
		at: AlongThePage;
		device: Device;
		found?: AlongDevice;
		desk: Desk;
		/** The placement whose coming can be dragged. */
		standing?: string;
		high: number;
	};
	let { at, device, found, desk, standing, high }: Props = $props();
	const STRIP = 96;
	const RULE = 114;
	const LANES = 190;
	const WIDE = 330;
	/** Room above for the names of the lanes. */
	const TOP = 58;
	const survey = $derived(at.surveys[device]);
	const pageHigh = $derived(Math.max(1, survey?.page_high ?? 1));
	const scale = $derived((high - TOP - 8) / pageHigh);
	const across = $derived(STRIP / (survey?.window.wide ?? 375));
	const y = (px: number) => TOP + px * scale;
	const now = $derived(at.at(device));
	const windowHigh = $derived(survey?.window.high ?? 0);
	const lanes = $derived(found?.along.lanes ?? []);
	const gap = $derived(lanes.length > 1 ? Math.min(38, (WIDE - LANES - 56) / (lanes.length - 1)) : 0);
	const laneX = (n: number) => LANES + n * gap;
	const end = $derived(laneX(lanes.length - 1) + 12);
	const meetings = $derived(found?.along.meetings ?? []);
	const gaps = $derived((found?.along.gaps ?? []).filter(([a, b]) => b - a >= 1));
	/** What of ours hangs, and is edited. */
	const barAt = $derived(lanes.findIndex(({ key }) => key === standing && key !== 'over_picture'));
	const laneOf = (called: string) =>
		Math.max(
			0,
			lanes.findIndex(({ name }) => name === called),
		);
	const barBegins = $derived(lanes[barAt]?.spans[0]?.[0]);
	let pulled = $state<number | null>(null);
	let svg: SVGSVGElement;

	function shopName(lane: Lane): string {
		const name = lane.name.replace(/[<>]/g, '');
		return name.length > 12 ? `${name.slice(0, 11)}…` : name;
	}

	/** Which position of the page lies under the pointer. */
	function under(event: PointerEvent): number {
		return (event.clientY - svg.getBoundingClientRect().top - TOP) / scale;
	}

	/** Drags the window along the page; pressed beside it, the page is taken by its middle. */
	const windowDrag = drag({
		begin: (event) => {
			if (!survey) return null;
			const px = under(event);
			const before = at.at(device);
			if (px < now || px > now + windowHigh) at.scrollTo(device, px - windowHigh / 2);
			return { px: at.at(device), before, scale };
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
	const along = (px: number) => Math.min(at.way(device), Math.max(0, px));
	const barDrag = drag({
		begin: (event) => {
			// The window under it is not taken as well.
			event.stopPropagation();
			pulled = barBegins ?? 0;
			return { px: pulled, scale };
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
	width={WIDE}
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
		<clipPath id="strip"><rect x="0" y={TOP} width={STRIP} height={pageHigh * scale} /></clipPath>
	</defs>
	{#if survey}
		<g clip-path="url(#strip)">
			<rect x="0" y={TOP} width={STRIP} height={pageHigh * scale} fill={survey.ground} />
			{#each survey.blocks as block, n (n)}
				{@const box = {
					x: block.box.x * across,
					y: y(block.box.y),
					width: Math.max(1, block.box.wide * across),
					height: Math.max(1, block.box.high * scale),
				}}
				{#if block.kind === 'picture' && block.src}
					<image {...box} href={block.src} preserveAspectRatio="xMidYMid slice" />
				{:else if block.kind === 'heading'}
					<rect {...box} height={Math.max(1.5, box.height * 0.7)} fill={survey.ink} />
				{:else}
					<rect {...box} height={Math.max(1, box.height * 0.6)} fill={survey.ink} opacity="0.28" />
				{/if}
			{/each}
			{#each survey.places as place, n (n)}
				<rect
					x={place.box.x * across}
					y={y(place.box.y)}
					width={Math.max(2, place.box.wide * across)}
					height={Math.max(2, place.box.high * scale)}
					class={place.stands ? 'ours' : 'shops'}
				/>
			{/each}
		</g>
		<rect class="edge" x="0.5" y={TOP + 0.5} width={STRIP - 1} height={pageHigh * scale - 1} />
		{#each ticks(pageHigh, Math.max(3, Math.floor((high - TOP) / 70))) as tick (tick)}
			<line class="tick" x1={RULE} x2={RULE + 10} y1={y(tick)} y2={y(tick)} />
			{#if Math.abs(y(tick) - y(now)) > 18}
				<text class="mark" x={RULE + 14} y={y(tick) + 4}>{count(tick)}</text>
			{/if}
		{/each}
		<line class="tick" x1={RULE} x2={RULE} y1={TOP} y2={y(pageHigh)} />

		{#each at.pointed as [from, to], n (n)}
			<rect
				class="pointed"
				x={RULE}
				y={y(from) - 1}
				width={end + 8 - RULE}
				height={Math.max(4, (to - from) * scale + 2)}
			/>
		{/each}
		{#each lanes as lane, n (lane.key)}
			<text class="lane-name" transform="translate({laneX(n) + 2} {TOP - 8}) rotate({lanes.length > 5 ? -56 : -38})"
				>{shopName(lane)}</text
			>
			<line class="bed" x1={laneX(n)} x2={laneX(n)} y1={TOP} y2={y(at.way(device))} />
			{#each lane.spans as [from, to], n (n)}
				<rect
					class={['span', lane.kind, lane.only_up && 'only-up']}
					x={laneX(n) - 3}
					y={y(from)}
					width="6"
					height={Math.max(2, (to - from) * scale)}
				>
					<title>{lane.name}{lane.only_up ? ', on the way up' : ''}: {count(from)} to {count(to)} px</title>
				</rect>
			{/each}
		{/each}
		{#each gaps as [from, to], n (n)}
			<rect class="gap" x={LANES - 12} y={y(from)} width={end - LANES + 12} height={Math.max(3, (to - from) * scale)}>
				<title>No button in reach: {count(from)} to {count(to)} px</title>
			</rect>
		{/each}
		{#each meetings as meeting (meeting.one + meeting.other)}
			{@const [one, other] = [laneX(laneOf(meeting.one)), laneX(laneOf(meeting.other))]}
			{#each meeting.spans as [from, to], n (n)}
				<rect
					class="meets"
					x={Math.min(one, other) - 8}
					y={y(from)}
					width={Math.abs(other - one) + 16}
					height={Math.max(3, (to - from) * scale)}
				>
					<title>{meeting.one} and {meeting.other}: {count(from)} to {count(to)} px</title>
				</rect>
			{/each}
		{/each}
		<rect
			class="window"
			role="slider"
			tabindex="0"
			aria-label="Position of the window along the page"
			aria-orientation="vertical"
			aria-valuemin={0}
			aria-valuemax={Math.round(at.way(device))}
			aria-valuenow={Math.round(now)}
			aria-valuetext="{count(now)} of {count(at.way(device))} px"
			onkeydown={key}
			x="-1"
			y={y(now)}
			width={STRIP + 2}
			height={Math.max(6, windowHigh * scale)}
			transform="translate(1 0)"
		/>
		<line class="reading" x1={STRIP + 1} x2={end + 4} y1={y(now)} y2={y(now)} />
		<text class="now" x={RULE + 14} y={y(now) + 14}>{count(now)}</text>
		{#if barBegins !== undefined && desk.view}
			<g
				class="grip"
				role="slider"
				tabindex="0"
				aria-label="Where the {standing === 'floating' ? 'floating button' : 'bar'} comes"
				aria-orientation="vertical"
				aria-valuemin={0}
				aria-valuemax={Math.round(at.way(device))}
				aria-valuenow={Math.round(pulled ?? barBegins)}
				{@attach barDrag}
			>
				<rect x={laneX(barAt) - 12} y={y(pulled ?? barBegins) - 12} width="24" height="24" fill="transparent" />
				<path d="M{laneX(barAt) - 9} {y(pulled ?? barBegins)}h18M{laneX(barAt) - 5} {y(pulled ?? barBegins) - 4}h10" />
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
	.edge,
	.tick {
		fill: none;
		stroke: var(--color-ink);
	}
	.edge {
		stroke: var(--color-hair);
	}
	.mark,
	.now {
		font: 12px var(--font-mono);
		fill: var(--color-soft);
	}
	.now {
		fill: var(--color-ink);
		font-weight: 500;
		stroke: var(--color-paper);
		stroke-width: 4px;
		paint-order: stroke;
	}
	.lane-name {
		font-size: 12px;
		font-weight: 600;
		fill: var(--color-ink);
	}
	.bed {
		stroke: var(--color-hair);
	}
	.span {
		fill: var(--color-ink);
	}
	.span.cards {
		fill: var(--color-soft);
	}
	.span.shop {
		fill: none;
		stroke: var(--color-soft);
		stroke-dasharray: 2 3;
	}
	.span.only-up {
		fill: var(--color-paper);
		stroke: var(--color-ink);
	}
	.gap {
		fill: none;
		stroke: var(--color-look);
		stroke-dasharray: 4 3;
		pointer-events: none;
	}
	.meets {
		fill: url(#hatch);
		stroke: var(--color-must);
		stroke-dasharray: 1 0;
		fill-opacity: 0.6;
		pointer-events: none;
	}
	.pointed {
		fill: var(--color-marker);
	}
	.ours {
		fill: var(--color-ink);
	}
	.shops {
		fill: none;
		stroke: var(--color-ink);
		stroke-dasharray: 2 2;
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
