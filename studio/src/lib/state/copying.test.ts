import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Copying } from './copying.svelte';

const own = Object.getOwnPropertyDescriptor(navigator, 'clipboard');
const offers = (writeText: unknown) =>
	Object.defineProperty(navigator, 'clipboard', { configurable: true, value: writeText && { writeText } });

describe('copying', () => {
	beforeEach(() => vi.useFakeTimers());
	afterEach(() => {
		if (own) Object.defineProperty(navigator, 'clipboard', own);
		else Reflect.deleteProperty(navigator, 'clipboard');
		Reflect.deleteProperty(document, 'execCommand');
	});

	it('tells for a while that it was done', async () => {
		const write = vi.fn(() => Promise.resolve());
		offers(write);
		const copying = new Copying();
		expect(await copying.copy('a line')).toBe(true);
		expect(write).toHaveBeenCalledWith('a line');
		expect(copying.copied).toBe('a line');
		vi.advanceTimersByTime(3000);
		expect(copying.copied).toBe('');
	});

	it('copies what is selected where the browser has no clipboard for this address', async () => {
		offers(undefined);
		let selected = '';
		document.execCommand = (what) => {
			selected = `${what} ${document.querySelector('textarea')?.value}`;
			return true;
		};
		expect(await new Copying().copy('a line')).toBe(true);
		expect(selected).toBe('copy a line');
		expect(document.querySelector('textarea')).toBeNull();
	});

	it('says what can be done where nothing can be copied', async () => {
		offers(() => Promise.reject(new Error('denied')));
		const copying = new Copying();
		expect(await copying.copy('a line')).toBe(false);
		expect(copying.copied).toBe('');
		expect(copying.wrong).toContain('copy it by keys');
	});
});
