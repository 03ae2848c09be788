import { assignVersion } from './assign';
import type { DealVersions, Looker } from '../base/shop';
import { highOf } from './resolve';
import { covers } from './rules';
import type { Trial } from '../base/types';

/** The versions that a link forces, by trial: `?up-show=7.B`. */
export function forcedVersions(query: URLSearchParams): Record<string, string> {
	const [trial, letter] = (query.get('up-show') ?? '').split('.');
	return trial && letter ? { [trial]: letter } : {};
}

/** Changes what stands to the versions that a shopper gets. `place` and `key` say which look it is. */
export const dealVersions: DealVersions = (standing, trials, place, key, context, by) => {
	const versions: Record<string, string> = {};
	const words = [...standing.words];
	for (const trial of trials) {
		const letter = letterFor(trial, by);
		if (!letter || !covers(trial.reach, context)) continue;
		const looks = trial.B.looks[place];
		const other = looks?.[key] ?? looks?.[''] ?? standing.made;
		versions[trial.id] = letter;
		standing.high = Math.max(standing.high, highOf(other, by.device));
		if (letter === 'B') {
			standing.made = other;
			words.unshift(trial.B.words);
		}
	}
	Object.assign(standing, { versions, words });
};

function letterFor(trial: Trial, { shopper, forced = {} }: Looker): string {
	if (forced[trial.id]) return forced[trial.id] ?? '';
	// Whoever is not followed sees today's button: they would count in no trial.
	if (!trial.running || !shopper) return '';
	const kept = dealt.get(trial);
	if (kept?.shopper === shopper) return kept.letter;
	const letter = assignVersion(trial.salt, shopper, trial.shares);
	dealt.set(trial, { shopper, letter });
	return letter;
}

/** The letter that a shopper has in a trial is the same for every button. */
const dealt = new WeakMap<Trial, { shopper: string; letter: string }>();
