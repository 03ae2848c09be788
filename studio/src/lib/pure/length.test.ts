import { describe, expect, it } from 'vitest';
import { inPx, stepped, typedLength } from './length';

const ground = { container: 320, window: 1280, type: 16 };
const typed = (text: string, keeps = true) => typedLength(text, ground, keeps);

describe('a typed length', () => {
	it.each([
		['12', 12],
		['12*1.5', 18],
		['12 px', 12],
		['(320-16)/2', 152],
		['12,5', 12.5],
		['1.5em', '1.5em'],
		['5 %', '5%'],
		['2*3vw', '6vw'],
		['1em+4', 20],
		['50% - 8px', 152],
		['1em + 0.5em', '1.5em'],
		['-4', -4],
		['2rem', 32],
	])('%s', (text, wanted) => expect(typed(text)).toBe(wanted));

	it('comes to pixels where only those are kept', () => {
		expect(typed('1.5em', false)).toBe(24);
		expect(typed('10%', false)).toBe(32);
		expect(typed('1vw', false)).toBe(12.8);
	});

	it.each(['', 'wide', '12 miles', '12*', '(3', '4 5', '1em*2em', '1/0', '3..4', '4/2em'])('refuses %s', (text) =>
		expect(typed(text)).toBeNull(),
	);
});

describe('a length', () => {
	it('is so many pixels on its ground', () => {
		expect(inPx(12, ground)).toBe(12);
		expect(inPx('10%', ground)).toBe(32);
		expect(inPx('1.5em', ground)).toBe(24);
		expect(inPx('2vw', ground)).toBeCloseTo(25.6);
	});

	it('steps within its bounds and keeps its unit', () => {
		expect(stepped(12, 10, 0, 18)).toBe(18);
		expect(stepped(0.5, -1, 0, 18)).toBe(0);
		expect(stepped('5%', 1, 0, 400)).toBe('6%');
		expect(stepped('1.5em', -1, 0, 400)).toBe('1.4em');
	});
});
