import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

// One file for every page, and a small one for each thing that only some stores use; the edge puts them together.
const pieces = {
	up: { entry: 'src/index.ts', name: 'UpTick' },
	later: { entry: 'src/later.ts', name: 'UpLater' },
	bar: { entry: 'src/bar.ts', name: 'UpBar' },
	floating: { entry: 'src/floating.ts', name: 'UpFloating' },
	over: { entry: 'src/over.ts', name: 'UpOver' },
	row: { entry: 'src/row.ts', name: 'UpRow' },
	find_later: { entry: 'src/find_later.ts', name: 'UpFindLater' },
	message: { entry: 'src/message.ts', name: 'UpMessage' },
	notify: { entry: 'src/notify.ts', name: 'UpNotify' },
	choices: { entry: 'src/choices.ts', name: 'UpChoices' },
	sheet: { entry: 'src/sheet.ts', name: 'UpSheet' },
	show: { entry: 'src/show.ts', name: 'UpShow' },
	closer: { entry: 'src/closer.ts', name: 'UpCloser' },
	fixed: { entry: 'src/fixed.ts', name: 'UpFixed' },
	recent: { entry: 'src/recent.ts', name: 'UpRecent' },
	options: { entry: 'src/options.ts', name: 'UpOptions' },
	rules: { entry: 'src/rules.ts', name: 'UpRules' },
	icon: { entry: 'src/icon.ts', name: 'UpIcon' },
	reads: { entry: 'src/reads.ts', name: 'UpReads' },
	live: { entry: 'src/live.ts', name: 'UpLive' },
	deal: { entry: 'src/deal.ts', name: 'UpDeal' },
	kind: { entry: 'src/kind.ts', name: 'UpKind' },
	find: { entry: 'src/find.ts', name: 'UpFind' },
	frame: { entry: 'src/frame.ts', name: 'UpFrame' },
	survey: { entry: 'src/survey.ts', name: 'UpSurvey' },
	second: { entry: 'src/second.ts', name: 'UpSecond' },
	quantity: { entry: 'src/quantity.ts', name: 'UpQuantity' },
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
