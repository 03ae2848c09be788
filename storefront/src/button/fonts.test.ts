import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Manifest } from '../base/types';
import { loadFonts } from './fonts';

const manifest = {
	edge: 'https://edge.test',
	fonts: [
		{ family: 'Up', weight: '400', range: 'U+0-FF', file: 'latin.woff2' },
		{ family: 'Up', weight: '400', range: 'U+100-2FF', file: 'extended.woff2' },
		{ family: 'Up', weight: '400', range: 'U+600-6FF', file: 'arabic.woff2' },
	],
} as unknown as Manifest;

describe('the fonts of buttons', () => {
	const added: string[] = [];
	let asked: { file: string; done: () => void; fail: () => void }[];
	beforeEach(() => {
		added.length = 0;
		asked = [];
		vi.stubGlobal(
			'FontFace',
			class {
				constructor(
					readonly family: string,
					readonly file: string,
				) {}
				load() {
					return new Promise<void>((done, fail) => asked.push({ file: this.file, done, fail }));
				}
			},
		);
		const fonts = { add: ({ file }: { file: string }) => added.push(file) };
		Object.defineProperty(document, 'fonts', { value: fonts, configurable: true });
	});
	afterEach(() => {
		vi.useRealTimers();
	});

	it('are given to the page once they are there, and only the letters of its language are loaded', async () => {
		const loading = loadFonts(manifest, false);
		expect(asked.map(({ file }) => file)).toEqual(['url(https://edge.test/fonts/latin.woff2)']);
		await Promise.resolve();
		expect(added).toEqual([]);
		asked[0]!.done();
		await loading;
		expect(added).toHaveLength(3);
	});

	it('are loaded with Arabic letters where the page is written from the right', () => {
		void loadFonts(manifest, true);
		expect(asked).toHaveLength(2);
	});

	it('keep nobody waiting for long: a font that does not come or cannot be read leaves the buttons to another', async () => {
		vi.useFakeTimers();
		const slow = loadFonts(manifest, false);
		await vi.advanceTimersByTimeAsync(1200);
		await slow;
		expect(added).toHaveLength(3);
		const broken = loadFonts(manifest, false);
		asked[1]!.fail();
		await broken;
		expect(added).toHaveLength(6);
	});
});
