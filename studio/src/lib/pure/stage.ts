import type { Drawing } from '$lib/api/types';

export type Stage = {
	/** Where the button's corner stands, and how many times it is enlarged. */
	x: number;
	y: number;
	zoom: number;
	/** Where the leftmost thing begins. */
	edge: number;
};

/** Room that dimensions and their figures take around a button. */
const AROUND_X = 250;
const AROUND_Y = 186;
/** Of it, what the height's dimension takes at the left. */
const LEFT = 96;
const MOST = 8;

/**
 * Returns where a button stands on a stage of this size, as large as it goes with room for its dimensions around it and for what
 * stands beside it; `times` enlarges or reduces that.
 */
export function stageFor(drawing: Drawing, width: number, height: number, times = 1): Stage {
	const { outer, second, quantity } = drawing;
	const rights = [outer.width, drawing.needs_width_px, second ? second.outer.x + second.outer.width : 0];
	const lows = [outer.height, second ? second.outer.y + second.outer.height : 0];
	const before = -Math.min(0, second?.outer.x ?? 0, quantity?.x ?? 0);
	const right = Math.max(...rights, quantity ? quantity.x + quantity.width : 0);
	const low = Math.max(...lows);
	const fits = Math.min(MOST, (width - AROUND_X) / (right + before), (height - AROUND_Y) / low);
	const zoom = Math.max(0.5, fits) * times;
	// Left of the middle: the callouts are at the right, and leaders to them want room.
	const spare = width - AROUND_X - (right + before) * zoom;
	const edge = LEFT + Math.max(0, spare * 0.4);
	const free = height - AROUND_Y - low * zoom;
	return { x: edge + before * zoom, y: 66 + Math.max(0, free / 2), zoom, edge };
}

/** Returns positions no nearer to each other than `gap`, moved as little as needed to the right. */
export function apart(wanted: readonly number[], gap: number): number[] {
	const placed: number[] = [];
	for (const x of wanted) placed.push(Math.max(x, (placed.at(-1) ?? -Infinity) + gap));
	return placed;
}
