import type { Compiled, Manifest } from '../base/types';
import type { PageSurvey } from './page_survey';

/** Looks that have changed, by their place among so many; the others are as before. */
export type SomeLooks = { many: number; changed: Record<number, Compiled> };
/** What the studio says to a page in one of its frames, and what the page says to it. */
export type ToFrame =
	| { up: 'draft'; manifest?: Partial<Manifest>; looks?: SomeLooks; show?: string; product?: string }
	| { up: 'point'; on: boolean }
	| { up: 'move'; to: 'parent' | 'child' | 'next' | 'before' }
	| { up: 'take' }
	| { up: 'show'; selector: string }
	| { up: 'outline' }
	| { up: 'survey' }
	| { up: 'thumbs'; srcs: string[] }
	| { up: 'scroll'; y: number };
/** What a place came to: whether ours stands there, or why the shop's own does, and how wide it may be in CSS pixels. */
export type TakenPlace = { place: string; product: string; stands: boolean; kept: string; width: number };
export type FromFrame =
	| { up: 'ready' }
	| { up: 'drawn'; at: number }
	| { up: 'pointed'; path: string; html: string; words: string; tag: string; width: number; height: number }
	| { up: 'outline'; path: string; html: string }
	| { up: 'survey'; survey: PageSurvey }
	| { up: 'scrolled'; y: number }
	| { up: 'thumbs'; thumbs: Record<string, string> }
	| { up: 'taken'; count: number; own: number; places: TakenPlace[] };
