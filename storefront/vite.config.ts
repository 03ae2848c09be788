import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
	root: here('.'),
	publicDir: false,
	build: {
		outDir: here('dist'),
		target: 'es2019',
		lib: { entry: here('src/index.ts'), formats: ['iife'], name: 'UpTick', fileName: () => 'up.js' },
	},
});
