import type { DrawView, Drawing } from '$lib/api/types';
import { apart, type Stage } from './stage';

/** One dimension: what it measures, where its line runs on the stage, where its figure stands, and what it edits. */
export type Dimension = {
	name: string;
	/** What is said under the figure. */
	says: string;
	paths: readonly string[];
	value: number | string;
	least: number;
	most: number;
	axis: 'x' | 'y';
	/** How much the value grows for each pixel that the pointer goes along the axis. */
	pull: number;
	from: { x: number; y: number };
	to: { x: number; y: number };
	label: { x: number; y: number };
	/** Only measured: words follow from type and text. */
	fixed?: boolean;
	/** May be given in %, em and vw. */
	keepsUnits?: boolean;
};

type Box = { x: number; y: number; width: number; height: number };
const CHAIN_GAP = 26;

export class Plan {
	constructor(
		readonly view: DrawView,
		readonly stage: Stage,
	) {}

	get drawing(): Drawing {
		return this.view.shown.drawing;
	}

	x(value: number): number {
		return this.stage.x + value * this.stage.zoom;
	}

	y(value: number): number {
		return this.stage.y + value * this.stage.zoom;
	}

	get right(): number {
		return this.x(this.drawing.outer.width);
	}

	/** Right of everything that is drawn: words that stick out, and what stands beside the button. */
	get end(): number {
		const { outer, words, second, quantity, needs_width_px } = this.drawing;
		const ends = [outer.width, words.x + words.width, (outer.width + needs_width_px) / 2];
		for (const box of [second?.outer, quantity]) if (box) ends.push(box.x + box.width);
		return this.x(Math.max(...ends));
	}

	get bottom(): number {
		return this.y(this.drawing.outer.height);
	}

	/** Where the chain of widths runs, below everything that stands under the button. */
	get chain(): number {
		const second = this.drawing.second?.outer;
		const low = second && second.y > 0 ? second.y + second.height : this.drawing.outer.height;
		return this.y(low) + CHAIN_GAP;
	}

	/** The dimensions of the chain under the button, from left to right. */
	chained(rtl: boolean): Dimension[] {
		const d = this.drawing;
		const icon = this.view.document.icon as { kind: string; size_px: number; gap_px: number; side: string };
		const pad = (side: 'left' | 'right', from: number, to: number): Dimension => {
			const path = `look.padding.${side}`;
			return {
				...this.#across(`padding ${side}`, 'padding', [path], from, to),
				value: this.#padding(side),
				keepsUnits: true,
				pull: (from === 0) === (side === 'left') ? 1 : -1,
			};
		};
		const [start, end] = rtl ? (['right', 'left'] as const) : (['left', 'right'] as const);
		const chain = [
			pad(start, d.border.left, d.content.x),
			pad(end, d.content.x + d.content.width, d.outer.width - d.border.right),
		];
		chain[0]!.pull = 1;
		chain[1]!.pull = -1;
		if (d.words.width > 0) {
			const words = { ...this.#across('words', 'words', [], d.words.x, d.words.x + d.words.width), fixed: true };
			chain.splice(1, 0, { ...words, value: widest(d) });
		}
		if (d.icon && icon.kind !== 'none') {
			const first = d.icon.x <= d.words.x;
			const shape = {
				...this.#across('icon', 'icon', ['icon.size_px'], d.icon.x, d.icon.x + d.icon.width),
				value: icon.size_px,
				least: 8,
				most: 96,
			};
			const between = first ? [d.icon.x + d.icon.width, d.words.x] : [d.words.x + d.words.width, d.icon.x];
			const gap = {
				...this.#across('gap', 'gap', ['icon.gap_px'], between[0]!, between[1]!),
				value: icon.gap_px,
				most: 64,
				pull: first ? 1 : -1,
			};
			const beside = icon.side === 'before' || icon.side === 'after';
			const at = chain.findIndex((dimension) => dimension.name === 'words');
			if (icon.side === 'alone') chain.splice(1, 0, shape);
			else if (beside) chain.splice(first ? at : at + 1, 0, ...(first ? [shape, gap] : [gap, shape]));
		}
		const centres = apart(
			chain.map((dimension) => (dimension.from.x + dimension.to.x) / 2),
			64,
		);
		return chain.map((dimension, n) => ({ ...dimension, label: { x: centres[n]!, y: this.chain + 16 } }));
	}

	/** Padding above and below, on the button itself. */
	upright(): Dimension[] {
		const d = this.drawing;
		const middle = this.x(d.outer.width / 2);
		const line = (side: 'top' | 'bottom', from: number, to: number): Dimension => ({
			name: `padding ${side === 'top' ? 'above' : 'below'}`,
			says: '',
			paths: [`look.padding.${side}`],
			value: this.#padding(side),
			least: 0,
			most: 400,
			axis: 'y',
			pull: side === 'top' ? 1 : -1,
			from: { x: middle, y: this.y(from) },
			to: { x: middle, y: this.y(to) },
			label: {
				x: middle,
				y:
					side === 'top'
						? Math.max(this.y((from + to) / 2), this.y(0) + 9)
						: Math.min(this.y((from + to) / 2), this.bottom - 9),
			},
			keepsUnits: true,
		});
		return [
			line('top', d.border.top, d.content.y),
			line('bottom', d.content.y + d.content.height, d.outer.height - d.border.bottom),
		];
	}

	#padding(side: 'left' | 'right' | 'top' | 'bottom'): number | string {
		return (this.view.document.look as { padding: Record<string, number | string> }).padding[side] ?? 0;
	}

	#across(name: string, says: string, paths: string[], from: number, to: number): Dimension {
		const y = this.chain;
		return {
			name,
			says,
			paths,
			value: 0,
			least: 0,
			most: 400,
			axis: 'x',
			pull: 1,
			from: { x: this.x(from), y },
			to: { x: this.x(to), y },
			label: { x: 0, y },
		};
	}
}

/** The width that the words themselves take: that of their widest line. */
export function widest(drawing: Drawing): number {
	return drawing.lines.reduce((most, line) => Math.max(most, line.width), 0);
}

/** Returns the value that a dimension gets when the pointer has gone so far along its axis, in steps of one. */
export function pulled(start: number, moved: number, { zoom }: Stage, pull: number, fine: boolean): number {
	const step = fine ? 0.5 : 1;
	return Math.round((start + (moved * pull) / zoom) / step) * step;
}

/** Returns where on the stage the spot of a finding is. */
export function spotOf(plan: Plan, spot: string): { x: number; y: number } {
	const d = plan.drawing;
	const of = (box: Box) => ({ x: plan.x(box.x + box.width / 2), y: plan.y(box.y + box.height / 2) });
	const corner = { x: plan.right, y: plan.y(d.outer.height * 0.5) };
	switch (spot) {
		case 'width':
			return { x: plan.x(Math.min(d.container_px, d.outer.width)), y: plan.y(d.outer.height * 0.3) };
		case 'height':
			return { x: plan.x(d.outer.width * 0.75), y: plan.bottom };
		case 'gap':
			return d.icon ? of(d.icon) : corner;
		case 'second':
			return d.second ? of(d.second.outer) : corner;
		case 'focus':
			return { x: plan.right + 4, y: plan.y(d.outer.height * 0.8) };
		case 'words':
			return { x: plan.x(d.words.x + d.words.width), y: plan.y(d.words.y + d.words.height / 2) };
		case 'fill':
			return { x: plan.x(d.outer.width * 0.85), y: plan.y(d.outer.height * 0.8) };
		default:
			return { x: plan.x(d.words.x + d.words.width * 0.9), y: plan.y(d.words.y + d.words.height * 0.7) };
	}
}
