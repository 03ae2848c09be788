import { expect, it } from 'vitest';
import { waysOf } from './ways';

const finding = { left: 940, top: 600, right: 1256, bottom: 680 };
const stretch = { left: 138, top: 300, right: 220, bottom: 340 };
const seen = { left: 400, top: 150, right: 560, bottom: 440 };

it('leads along the gutters to the middle of the stretch and under the window', () => {
	const ways = waysOf({ finding, stretch, seen, above: 560, under: 446 });
	expect(ways).toEqual(['M940 612H928V560H232V320H220', 'M1256 612H1268V446H480V440']);
});

it('leads nowhere where there is nothing to lead to', () => {
	expect(waysOf({ finding, stretch: null, seen: null, above: 560, under: 446 })).toEqual([]);
});
