import { fileURLToPath } from 'node:url';
import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
	root: here('.'),
	plugins: [tailwindcss(), svelte({ configFile: false })],
	resolve: { alias: { $lib: here('src/lib'), '@storefront': here('../storefront/src') } },
	build: { outDir: here('dist'), emptyOutDir: true, target: 'es2022' },
	server: { proxy: { '/api': 'http://127.0.0.1:8800', '/shop-fonts': 'http://127.0.0.1:8800' } },
});
