import { describe, expect, it } from 'vitest';
import { sheets } from './sheets.svelte';

describe('open sheets', () => {
	it('are counted, and closing one of two leaves the other', () => {
		const first = sheets.count();
		const second = sheets.count();
		first();
		expect(sheets.isAnyOpen).toBe(true);
		second();
		expect(sheets.isAnyOpen).toBe(false);
	});
});
