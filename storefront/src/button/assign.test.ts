import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { assignVersion, murmur3 } from './assign';

type Golden = {
	hashes: { text: string; seed: number; hash: number }[];
	assignments: { salt: string; shopper: string; hash: number; shares: Record<string, number>; expect: string }[];
};
const golden = JSON.parse(readFileSync('golden/assign.json', 'utf8')) as Golden;

describe('the hash', () => {
	it.each(golden.hashes)('of "$text" is the published one', ({ text, seed, hash }) => {
		expect(murmur3(text, seed)).toBe(hash);
	});
});

describe('dealing', () => {
	it.each(golden.assignments)(
		'$shopper under $shares gets what Python gives',
		({ salt, shopper, hash, shares, expect: letter }) => {
			expect(murmur3(`${salt}:${shopper}`)).toBe(hash);
			expect(assignVersion(salt, shopper, shares)).toBe(letter);
		},
	);

	it('is the same every time and fair over many', () => {
		const letters = Array.from({ length: 4000 }, (_, n) => assignVersion('s', `shopper-${n}`, { A: 5000, B: 5000 }));
		expect(letters).toEqual(letters.map((_, n) => assignVersion('s', `shopper-${n}`, { A: 5000, B: 5000 })));
		const share = letters.filter((letter) => letter === 'A').length / letters.length;
		expect(Math.abs(share - 0.5)).toBeLessThan(0.03);
	});
});
