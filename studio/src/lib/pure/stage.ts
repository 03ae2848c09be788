import type { Drawing } from '$lib/api/types';

export type Stage = {
	/** Where the button's corner stands, and how many times it is enlarged. */
	x: number;
	y: number;
	zoom: number;
	/** Where the leftmost thing begins. */
	edge: number;
};

/**
 * Returns where a button stands on a stage of this size, as large as it goes with room for its dimensions around, and for
 * what stands `beside` it on the left.
 */
export function stageFor(drawing: Drawing, width: number, height: number, beside = 0): Stage {
	const wide = Math.max(drawing.outer.width, drawing.needs_width_px) + beside;
	const zoom = Math.max(0.5, Math.min(6, (width - 230) / wide, (height - 176) / drawing.outer.height));
	const edge = 96;
	const free = height - 176 - drawing.outer.height * zoom;
	return { x: edge + beside * zoom, y: 76 + Math.max(0, free / 2), zoom, edge };
}

/** Returns positions no nearer to each other than `gap`, moved as little as needed to the right. */
export function apart(wanted: readonly number[], gap: number): number[] {
	const placed: number[] = [];
	for (const x of wanted) placed.push(Math.max(x, (placed.at(-1) ?? -Infinity) + gap));
	return placed;
}
