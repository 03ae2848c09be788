/** A box in the window, in CSS pixels. */
export type Edges = { left: number; top: number; right: number; bottom: number };
/** What leaders run between, and the two gutters that they keep to: above the findings, and under the windows. */
export type Ends = { finding: Edges; stretch: Edges | null; seen: Edges | null; above: number; under: number };

const OUT = 12;

/**
 * Returns the ways from a finding to its stretch of the lanes and to the window that shows it. They run in the gutters
 * between the columns and never across a sentence.
 */
export function waysOf({ finding, stretch, seen, above, under }: Ends): string[] {
	const y = (finding.top + Math.min(finding.bottom, finding.top + 24)) / 2;
	const ways: string[] = [];
	if (stretch) {
		const to = (stretch.top + stretch.bottom) / 2;
		ways.push(`M${finding.left} ${y}H${finding.left - OUT}V${above}H${stretch.right + OUT}V${to}H${stretch.right}`);
	}
	if (seen) {
		const to = (seen.left + seen.right) / 2;
		ways.push(`M${finding.right} ${y}H${finding.right + OUT}V${under}H${to}V${seen.bottom}`);
	}
	return ways;
}
