import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

// One file for every page, and a small one for each thing that only some stores use; the edge puts them together.
const pieces = {
	up: { entry: 'src/seams/up.ts', name: 'UpTick' },
	later: { entry: 'src/seams/later.ts', name: 'UpLater' },
	bar: { entry: 'src/hanging/bar.ts', name: 'UpBar' },
	floating: { entry: 'src/hanging/floating.ts', name: 'UpFloating' },
	over: { entry: 'src/hanging/over.ts', name: 'UpOver' },
	row: { entry: 'src/hanging/row.ts', name: 'UpRow' },
	find_later: { entry: 'src/seams/find_later.ts', name: 'UpFindLater' },
	message: { entry: 'src/opens/message.ts', name: 'UpMessage' },
	notify: { entry: 'src/opens/notify.ts', name: 'UpNotify' },
	choices: { entry: 'src/opens/choices.ts', name: 'UpChoices' },
	sheet: { entry: 'src/opens/sheet.ts', name: 'UpSheet' },
	show: { entry: 'src/opens/show.ts', name: 'UpShow' },
	closer: { entry: 'src/opens/closer.ts', name: 'UpCloser' },
	fixed: { entry: 'src/hanging/fixed.ts', name: 'UpFixed' },
	recent: { entry: 'src/hanging/recent.ts', name: 'UpRecent' },
	options: { entry: 'src/button/options.ts', name: 'UpOptions' },
	fonts: { entry: 'src/button/fonts.ts', name: 'UpFonts' },
	first: { entry: 'src/basket/first.ts', name: 'UpFirst' },
	shopper: { entry: 'src/signals/shopper.ts', name: 'UpShopper' },
	rules: { entry: 'src/button/rules.ts', name: 'UpRules' },
	icon: { entry: 'src/button/icon.ts', name: 'UpIcon' },
	reads: { entry: 'src/basket/reads.ts', name: 'UpReads' },
	live: { entry: 'src/button/live.ts', name: 'UpLive' },
	deal: { entry: 'src/button/deal.ts', name: 'UpDeal' },
	kind: { entry: 'src/signals/kind.ts', name: 'UpKind' },
	find: { entry: 'src/places/find.ts', name: 'UpFind' },
	frame: { entry: 'src/studio/frame.ts', name: 'UpFrame' },
	survey: { entry: 'src/studio/survey.ts', name: 'UpSurvey' },
	second: { entry: 'src/button/second.ts', name: 'UpSecond' },
	quantity: { entry: 'src/button/quantity.ts', name: 'UpQuantity' },
};
const piece = (process.env.PIECE ?? 'up') as keyof typeof pieces;
const { entry, name } = pieces[piece];
/** These are loaded by themselves, and hand themselves over. */
const LOADED = 'later bar floating over row recent fixed message notify sheet show closer choices find_later'.split(
	' ',
);

export default defineConfig({
	root: here('.'),
	publicDir: false,
	build: {
		outDir: here('dist'),
		emptyOutDir: piece === 'up',
		target: 'es2022',
		rolldownOptions: {
			output: {
				exports: piece === 'up' ? 'default' : LOADED.includes(piece) ? 'none' : 'named',
				// Nobody asks whether a piece is a module.
				generatedCode: { symbols: false },
				esModule: false,
			},
		},
		lib: { entry: here(entry), formats: ['iife'], name, fileName: () => `${piece}.js` },
	},
});
