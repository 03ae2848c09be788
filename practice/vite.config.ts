import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

// The one shop of the row that a framework draws.
export default defineConfig({
	root: here('.'),
	publicDir: false,
	build: {
		outDir: here('dist'),
		lib: { entry: here('front/latterwax.js'), formats: ['iife'], name: 'Latterwax', fileName: () => 'latterwax.js' },
	},
});
