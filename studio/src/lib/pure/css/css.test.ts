import { describe, expect, it } from 'vitest';
import { likelyButtons } from './likely';
import { writtenIn } from './lines';
import type { Ruled } from './sheet';
import { parted, unnested, withAttributes } from './states';

describe('a selector', () => {
	it.each([
		['.b:hover', '.b[up-state~="hover"]'],
		['.b:not(:hover):focus-visible', '.b:not([up-state~="hover"])[up-state~="focus-visible"]'],
		['.hover\\:red:hover', '.hover\\:red[up-state~="hover"]'],
		['.b[title=":hover"]:active > a', '.b[title=":hover"][up-state~="active"] > a'],
		['.b:focus-within::before', '.b[up-state~="focus-within"]::before'],
		['.b:disabled, .b:HOVER', '.b:disabled, .b[up-state~="hover"]'],
		['.b:hover-like', '.b:hover-like'],
	])('%s has its states as attributes', (selector, wanted) => {
		expect(withAttributes(selector)).toBe(wanted);
	});

	it('is parted at its outer commas', () => {
		expect(parted('.a, .b:is(.c, .d),[x="1,2"], .e\\,f')).toEqual(['.a', '.b:is(.c, .d)', '[x="1,2"]', '.e\\,f']);
	});

	it('that is nested stands for what it is nested in', () => {
		expect(unnested('&:hover', '.a,.b')).toBe(':is(.a,.b):hover');
		expect(unnested('.c', '.a')).toBe(':is(.a) .c');
		expect(unnested('[x="&"] &', '.a')).toBe('[x="&"] :is(.a)');
	});
});

describe('declarations as they are written', () => {
	it('have their line, their selector and their own text', () => {
		const css = '/* a\nb */ .b {\n colr: red;\n background: url(data:x;y)  }\n@media print { .c { top: 1px } }';
		expect([...writtenIn(css)]).toEqual([
			{ selector: '.b', name: 'colr', value: 'red', line: 3 },
			{ selector: '.b', name: 'background', value: 'url(data:x;y)', line: 4 },
			{ selector: '.c', name: 'top', value: '1px', line: 5 },
		]);
	});

	it('end with a file that ends too early', () => {
		expect([...writtenIn('.b { content: "x;\n color: red')].map((one) => one.name)).toEqual([]);
		expect([...writtenIn('}}}{')]).toEqual([]);
		expect([...writtenIn('.b{a:"x\\')]).toEqual([]);
	});
});

const rules = (...selectors: string[]) => selectors.map((one) => ({ selectors: parted(one) }) as unknown as Ruled);
const names = (...selectors: string[]) => likelyButtons(rules(...selectors), 'Buy').map((one) => one.name);

describe('the buttons that a stylesheet seems to have', () => {
	it('are those whose classes say so, worn together with what they begin like', () => {
		expect(names('.btn', '.btn-large', 'p .card', 'a.btn[up-state~="hover"]')).toEqual([
			'.btn',
			'a.btn',
			'.btn.btn-large',
		]);
		expect(names('.button.is-primary[up-state~="hover"]', '.button')).toEqual(['.button', '.button.is-primary']);
		expect(names(':where(button, .btn)')).toEqual(['button', '.btn']);
		expect(names('button::before', '.btn > i', 'h1')).toEqual([]);
	});

	it('are whatever has a class, where nothing is called like one', () => {
		expect(names('.add', '.add[up-state~="hover"]', 'h1')).toEqual(['.add']);
	});

	it('are written with their classes and words', () => {
		expect(likelyButtons(rules('input.btn'), 'Buy')[0]?.markup).toBe('<input type="submit" value="Buy" class="btn">');
		expect(likelyButtons(rules('.btn.a\\:b'), 'Buy')[0]?.markup).toBe(
			'<button type="button" class="btn a:b">Buy</button>',
		);
	});
});
