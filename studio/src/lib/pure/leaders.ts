import type { Finding } from '$lib/api/types';
import { spotOf, type Plan } from './dimensions';

export type Leader = {
	/** The way from the spot to its first callout. */
	d: string;
	weight: Finding['weight'];
	x: number;
	y: number;
	/** The numbers of its callouts, where there are several. */
	says: string;
};

/** How far leaders are from each other and from the paper's edge, in pixels. */
const LANE = 9;
const APART = 18;
/** Half of what the figure of the width takes above the middle of the button. */
const FIGURE = 92;

/** Returns the number of each finding where several point at one spot; 0 where it has its spot to itself. */
export function numbersOf(findings: readonly Finding[]): number[] {
	const spots = findings.map((finding) => finding.spot);
	let n = 0;
	return spots.map((spot) => (spots.filter((other) => other === spot).length > 1 ? ++n : 0));
}

/** Returns where on the upper edge of the button leaders begin: near their spots, beside the figure of the width. */
export function anchorsOf(plan: Plan, spots: readonly string[]): Map<string, number> {
	const left = plan.x(0) + 10;
	const middle = (plan.x(0) + plan.right) / 2;
	const room = plan.right - 10 - (middle + FIGURE);
	const sorted = [...spots].sort((a, b) => spotOf(plan, a).x - spotOf(plan, b).x);
	const tops = new Map<string, number>();
	// Where there is no room at the right of the figure, they begin at the left of it.
	const begin = room >= APART * (sorted.length - 1) ? plan.right - 10 - APART * (sorted.length - 1) : left;
	sorted.forEach((spot, n) => tops.set(spot, begin + APART * n));
	return tops;
}

/**
 * Returns one leader for each spot that findings point at. They run along the edges of the paper, never across the words
 * or a figure: up from the button's edge, along above the dimensions, and down at the side to the callout.
 *
 * `callouts` are where each callout stands, in pixels from the paper's top; undefined where it is out of sight.
 */
export function leadersOf(
	plan: Plan,
	findings: readonly Finding[],
	callouts: readonly (number | undefined)[],
	width: number,
): Leader[] {
	const numbers = numbersOf(findings);
	const spots = [...new Set(findings.map((finding) => finding.spot))];
	const anchors = anchorsOf(plan, spots);
	const y = plan.y(0);
	return spots.flatMap((spot, n) => {
		const here = findings.flatMap((finding, m) => (finding.spot === spot ? [m] : []));
		const first = here.find((m) => callouts[m] !== undefined && findings[m]?.weight !== 'note');
		const finding = findings[first ?? -1];
		const to = callouts[first ?? -1];
		const x = anchors.get(spot);
		if (!finding || to === undefined || x === undefined) return [];
		const lane = LANE * (spots.length - n);
		const says = here.flatMap((m) => numbers[m] || []).join(' ');
		return [{ d: `M${x} ${y}V${lane}H${width - lane}V${to}H${width}`, weight: finding.weight, x, y, says }];
	});
}
