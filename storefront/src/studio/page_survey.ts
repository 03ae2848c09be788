/** A box in CSS pixels: of the page, or of the window for what is fixed to it. */
export type Box = { x: number; y: number; wide: number; high: number };
/**
 * Something that does not simply move with the page. What is sticky has the box that it would have without, the edge that
 * it sticks to, how far from it, and between which heights of the page it may move.
 */
export type Stuck = {
	name: string;
	kind: 'fixed' | 'sticky';
	box: Box;
	edge: 'top' | 'bottom';
	inset: number;
	least: number;
	most: number;
};
/** A place with the button in it, ours or the shop's own; `holder` is the number of what holds it, or -1. */
export type SeenPlace = {
	placement: 'product_page' | 'listing_card' | 'strip' | 'over_picture' | 'tile';
	stands: boolean;
	kept: string;
	box: Box;
	/** The place itself, which a bar follows. */
	room: Box;
	clip: Box | null;
	holder: number;
	product: string;
	/** What of the page belongs to this place alone, as a card does, and what a rule would call it. */
	card: { box: Box; selector: string } | null;
	/** The picture that it lies on, and its colours as a square of dots, three bytes each, in Base64. */
	picture: { box: Box; dots: string } | null;
};
/** What of the page is drawn on the strip. */
export type Block = { kind: 'picture' | 'heading' | 'text'; box: Box; src: string };
/** A text in the bar that is cut, in CSS pixels. */
export type CutPart = { part: string; wide: number; needs: number };
export type PageSurvey = {
	path: string;
	window: { wide: number; high: number };
	page_high: number;
	places: SeenPlace[];
	stuck: Stuck[];
	bar: { high: number; cut: CutPart[] } | null;
	/** Where a floating button lies in the window. */
	floating: Box | null;
	/** One reads from right to left. */
	rtl: boolean;
	blocks: Block[];
	ground: string;
	ink: string;
	shift: number;
	took_ms: number;
};
