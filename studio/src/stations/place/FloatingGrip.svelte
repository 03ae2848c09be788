<script lang="ts">
	import type { Device, DrawView, Floating } from '$lib/api/types';
	import type { Box } from '@storefront/studio/page_survey';
	import type { Desk } from '$lib/state/desk.svelte';
	import { drag, type Point } from '$lib/state/drag';

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
	type Start = { side: number; edge: number; box: Box; scale: number };
	let taken = $state.raw<Start | null>(null);
	let by = $state.raw<Point>({ x: 0, y: 0 });
	/** The page is measured anew meanwhile; the frame goes with the pointer, from where it was taken. */
	const shown = $derived(taken?.box ?? box);
	const within = (px: number) => Math.round(Math.min(MOST_PX, Math.max(0, px)));

	const values = (side: number, edge: number) => ({
		[`floating.${device}.side_px`]: within(side),
		[`floating.${device}.edge_px`]: within(edge),
	});
	const moved = ({ side, edge, scale }: Start, { x, y }: Point) =>
		values(side + (across * x) / scale, edge + (down * y) / scale);
	const now = (): Start => ({ side: inset?.side_px ?? 0, edge: inset?.edge_px ?? 0, box, scale });

	function rest(): void {
		taken = null;
		by = { x: 0, y: 0 };
	}
	const dragging = drag<Start>({
		begin: () => (taken = now()),
		move: (start, to) => {
			by = to;
			desk.tryOut(moved(start, to));
		},
		end: (start, to) => {
			rest();
			void desk.settle(to.x || to.y ? moved(start, to) : null);
		},
		cancel: () => {
			rest();
			void desk.settle(null);
		},
		step: ({ x, y }, { shiftKey }) => {
			const px = shiftKey ? 10 : 1;
			void desk.setAll(moved({ ...now(), scale: 1 }, { x: x * px, y: y * px }));
		},
	});
	const place = $derived(`${inset?.side_px ?? 0} px from the side, ${inset?.edge_px ?? 0} px from the edge`);
</script>

<button
	class:taken
	aria-label="The floating button on a {device}: {place}. Arrow keys move it."
	title="{place}: drag it"
	style:left="{shown.x * scale + by.x}px"
	style:top="{shown.y * scale + by.y}px"
	style:width="{Math.max(24, shown.wide * scale)}px"
	style:height="{Math.max(24, shown.high * scale)}px"
	{@attach dragging}
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
