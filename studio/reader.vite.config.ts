import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

// The reader of stylesheets as one file: the command line puts it into a page of its own.
export default defineConfig({
	root: here('.'),
	publicDir: false,
	resolve: { alias: { $lib: here('src/lib') } },
	build: {
		outDir: here('dist/reader'),
		emptyOutDir: true,
		target: 'es2022',
		lib: { entry: here('src/lib/pure/css/reader.ts'), formats: ['iife'], name: 'UpCss', fileName: () => 'css.js' },
	},
});
