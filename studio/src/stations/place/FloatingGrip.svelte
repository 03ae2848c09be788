<script lang="ts">
	import type { Device, DrawView, Floating } from '$lib/api/types';
	import type { Box } from '@storefront/studio/page_survey';
	import type { Desk } from '$lib/state/desk.svelte';

	/** The floating button in one of the windows, to be dragged: its distances from the window's side and edge. */
	type Props = {
		desk: Desk;
		view: DrawView;
		device: Device;
		/** Where it lies, in the window's own pixels. */
		box: Box;
		scale: number;
	};
	let { desk, view, device, box, scale }: Props = $props();
	const MOST_PX = 400;
	const floating = $derived<Floating>(view.document.floating);
	const inset = $derived(floating[device]);
	/** Which way a distance grows. */
	const across = $derived(floating.corner.endsWith('end') === view.seen.rtl ? 1 : -1);
	const down = $derived(floating.corner.startsWith('top') ? 1 : -1);
	let from = $state.raw<{ x: number; y: number; side: number; edge: number; box: Box } | null>(null);
	let by = $state.raw({ x: 0, y: 0 });
	/** The page is measured anew meanwhile; the frame goes with the pointer, from where it was taken. */
	const shown = $derived(from?.box ?? box);
	const within = (px: number) => Math.round(Math.min(MOST_PX, Math.max(0, px)));

	const values = (side: number, edge: number) => ({
		[`floating.${device}.side_px`]: within(side),
		[`floating.${device}.edge_px`]: within(edge),
	});

	function take(event: PointerEvent): void {
		if (event.button !== 0) return;
		(event.currentTarget as Element).setPointerCapture(event.pointerId);
		from = { x: event.clientX, y: event.clientY, side: inset?.side_px ?? 0, edge: inset?.edge_px ?? 0, box };
	}

	function pull(event: PointerEvent): void {
		if (!from) return;
		by = { x: event.clientX - from.x, y: event.clientY - from.y };
		desk.tryOut(values(from.side + (across * by.x) / scale, from.edge + (down * by.y) / scale));
	}

	function letGo(): void {
		const began = from;
		const moved = by;
		from = null;
		by = { x: 0, y: 0 };
		if (!began) return;
		const isMoved = moved.x !== 0 || moved.y !== 0;
		void desk.settle(
			isMoved ? values(began.side + (across * moved.x) / scale, began.edge + (down * moved.y) / scale) : null,
		);
	}

	function cancel(): void {
		from = null;
		by = { x: 0, y: 0 };
		void desk.settle(null);
	}

	function key(event: KeyboardEvent): void {
		const ways: Record<string, [number, number]> = {
			ArrowLeft: [-1, 0],
			ArrowRight: [1, 0],
			ArrowUp: [0, -1],
			ArrowDown: [0, 1],
		};
		const way = ways[event.key];
		if (!way) return;
		event.preventDefault();
		const step = event.shiftKey ? 10 : 1;
		void desk.setAll(
			values((inset?.side_px ?? 0) + across * way[0] * step, (inset?.edge_px ?? 0) + down * way[1] * step),
		);
	}
	const said = $derived(`${inset?.side_px ?? 0} px from the side, ${inset?.edge_px ?? 0} px from the edge`);
</script>

<button
	class:taken={from}
	aria-label="The floating button on a {device}: {said}. Arrow keys move it."
	title="{said}: drag it"
	style:left="{shown.x * scale + by.x}px"
	style:top="{shown.y * scale + by.y}px"
	style:width="{Math.max(24, shown.wide * scale)}px"
	style:height="{Math.max(24, shown.high * scale)}px"
	onpointerdown={take}
	onpointermove={pull}
	onpointerup={letGo}
	onpointercancel={cancel}
	onkeydown={key}
></button>

<style>
	button {
		position: absolute;
		cursor: move;
		touch-action: none;
		outline: 1.5px dashed var(--color-ink);
		outline-offset: 3px;
	}
	/* The windows are pages of their own: what is dragged over them must not get lost in one. */
	button.taken::after {
		content: '';
		position: fixed;
		inset: 0;
		z-index: 30;
	}
	button:hover,
	button:focus-visible,
	button.taken {
		outline: 2px solid var(--color-ink);
		box-shadow: 0 0 0 6px var(--color-marker);
	}
</style>
