import type { Drawing } from '$lib/api/types';

export type Stage = {
	/** Where the button's corner stands, and how many times it is enlarged. */
	x: number;
	y: number;
	zoom: number;
};

/** Returns where a button stands on a stage of this size, as large as it goes with room for its dimensions around. */
export function stageFor(drawing: Drawing, width: number, height: number): Stage {
	const wide = Math.max(drawing.outer.width, drawing.needs_width_px);
	const zoom = Math.max(0.5, Math.min(6, (width - 230) / wide, (height - 176) / drawing.outer.height));
	const free = height - 176 - drawing.outer.height * zoom;
	return { x: 96, y: 76 + Math.max(0, free / 2), zoom };
}

/** Returns positions no nearer to each other than `gap`, moved as little as needed to the right. */
export function apart(wanted: readonly number[], gap: number): number[] {
	const placed: number[] = [];
	for (const x of wanted) placed.push(Math.max(x, (placed.at(-1) ?? -Infinity) + gap));
	return placed;
}
