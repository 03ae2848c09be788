import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';
import { svelte } from '@sveltejs/vite-plugin-svelte';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
	plugins: [svelte({ configFile: false })],
	resolve: {
		alias: { $lib: here('studio/src/lib'), '@storefront': here('storefront/src') },
		conditions: ['browser'],
	},
	// Files share one jsdom, which takes longer to start than most of them to run; each clears what it leaves.
	test: {
		environment: 'jsdom',
		isolate: false,
		setupFiles: ['vitest.setup.ts'],
		include: ['storefront/src/**/*.test.ts', 'studio/src/**/*.test.ts'],
	},
});
