/** A stretch of a scroll, from and to which position, in CSS pixels. */
export type Stretch = readonly [number, number];

/** Returns a round step for ticks, so that there are at most so many of them. */
export function tickStep(length: number, most: number): number {
	const rough = length / most;
	const power = 10 ** Math.floor(Math.log10(rough || 1));
	return [1, 2, 5, 10].map((n) => n * power).find((step) => step >= rough) ?? power * 10;
}

export function ticks(length: number, most: number): number[] {
	const step = tickStep(length, most);
	return Array.from({ length: Math.floor(length / step) + 1 }, (_, n) => n * step);
}

/** Returns the position that a stretch is looked at from: its middle where it is short, else a little after its start. */
export function lookAt([from, to]: Stretch, windowHigh: number): number {
	return from + Math.min((to - from) / 2, windowHigh / 4);
}

/** Moves one of a row's members by one place; at the end it stays. */
export function movedBy<T>(row: readonly T[], member: T, by: number): T[] {
	const at = row.indexOf(member);
	const to = Math.min(row.length - 1, Math.max(0, at + by));
	const rest = row.filter((other) => other !== member);
	return [...rest.slice(0, to), member, ...rest.slice(to)];
}
