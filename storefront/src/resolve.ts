import { assignVersion } from './assign';
import type { Compiled, Manifest, Product, Reach, Trial } from './types';

export type Standing = {
	made: Compiled;
	/** Height to reserve: the larger of the versions under trial. */
	high: number;
	versions: Record<string, string>;
};

export function situationOf(product: Product): string {
	return product.soldOut ? 'sold_out' : product.needsChoice ? 'choice' : 'plain';
}

function covers(reach: Reach, place: string, product: Product): boolean {
	const has = (list: readonly string[], value: string) => !list.length || list.includes(value);
	return (
		has(reach.products, product.sku) &&
		has(reach.categories, product.category) &&
		has(reach.situations, situationOf(product)) &&
		has(reach.placements, place)
	);
}

/** Orders reaches as the specificity of CSS selectors is ordered; Python ranks them. */
function byRank(a: readonly boolean[], b: readonly boolean[]): number {
	for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return a[i] ? 1 : -1;
	return 0;
}

/** Returns the key of a product's class: the rules that cover it, the least particular first. */
export function classKey(manifest: Manifest, place: string, product: Product): string {
	return manifest.rules
		.filter((rule) => covers(rule.reach, place, product))
		.sort((a, b) => byRank(a.rank, b.rank))
		.map((rule) => rule.id)
		.join();
}

/** Returns the button for a place and a product, with the versions that the shopper gets; null where none is made. */
export function resolve(
	manifest: Manifest,
	place: string,
	product: Product,
	shopper: string,
	forced: Record<string, string>,
): Standing | null {
	const classes = manifest.places[place];
	const key = classKey(manifest, place, product);
	let made = classes?.[key] ?? classes?.[''];
	if (!made) return null;
	let high = made.high;
	const versions: Record<string, string> = {};
	for (const trial of manifest.trials) {
		const letter = letterFor(trial, shopper, forced);
		if (!letter || !covers(trial.reach, place, product)) continue;
		const other = trial.B[place]?.[key] ?? trial.B[place]?.[''];
		if (!other) continue;
		versions[trial.id] = letter;
		high = Math.max(high, other.high);
		if (letter === 'B') made = other;
	}
	return { made, high, versions };
}

function letterFor(trial: Trial, shopper: string, forced: Record<string, string>): string {
	if (forced[trial.id]) return forced[trial.id] ?? '';
	// Whoever is not followed sees today's button: they would count in no trial.
	return trial.running && shopper ? assignVersion(trial.salt, shopper, trial.shares) : '';
}
