import type { PageSurvey } from '@storefront/studio/page_survey';
import type { AlongDevice, Lane } from '$lib/api/types';

/** Where the parts of the strip stand, in its own pixels: the page, its ruler, then a lane for each button. */
export const STRIP = { page: 96, ruler: 114, lanes: 190, wide: 330, top: 58 } as const;
const MOST_LETTERS = 12;

/** The scale of a strip: from CSS pixels of the page to those of the drawing. */
export class StripPlan {
	readonly pageHigh: number;
	/** Drawn pixels for one of the page, down and across. */
	readonly scale: number;
	readonly across: number;
	readonly lanes: readonly Lane[];
	readonly #gap: number;

	constructor(survey: PageSurvey | undefined, along: AlongDevice['along'] | undefined, high: number) {
		this.pageHigh = Math.max(1, survey?.page_high ?? 1);
		this.scale = (high - STRIP.top - 8) / this.pageHigh;
		this.across = STRIP.page / (survey?.window.wide ?? 375);
		this.lanes = along?.lanes ?? [];
		this.#gap = this.lanes.length > 1 ? Math.min(38, (STRIP.wide - STRIP.lanes - 56) / (this.lanes.length - 1)) : 0;
	}

	y(px: number): number {
		return STRIP.top + px * this.scale;
	}

	/** The middle of a lane. */
	laneX(n: number): number {
		return STRIP.lanes + n * this.#gap;
	}

	/** The middle of the lane of that name, of the first where none is called so. */
	xOf(name: string): number {
		return this.laneX(
			Math.max(
				0,
				this.lanes.findIndex((lane) => lane.name === name),
			),
		);
	}

	/** Where the last lane ends. */
	get end(): number {
		return this.laneX(this.lanes.length - 1) + 12;
	}
}

/** Returns a lane's name as short as its place; of the shop's own parts it is their tag. */
export function laneName({ name }: Lane): string {
	const plain = name.replace(/[<>]/g, '');
	return plain.length > MOST_LETTERS ? `${plain.slice(0, MOST_LETTERS - 1)}…` : plain;
}
