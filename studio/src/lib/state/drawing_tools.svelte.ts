/** How the drawing is looked at: how large, with which helps, or on the shop's own page. */
export class DrawingTools {
	/** How many times larger than as large as it goes. */
	times = $state(1);
	grid = $state(false);
	callouts = $state(true);
	/** A side's value is given to all four. */
	linked = $state(true);
	onPage = $state(false);

	larger(): void {
		this.times = Math.min(4, this.times * 1.25);
	}

	smaller(): void {
		this.times = Math.max(0.25, this.times / 1.25);
	}

	fit(): void {
		this.times = 1;
	}
}
