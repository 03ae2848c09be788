import type { Trial } from '../base/types';

/** MurmurHash3 x86 32-bit of the UTF-8 bytes of a text, unsigned; the same sums as Python's `mmh3`. */
export function murmur3(text: string, seed = 0): number {
	const bytes = new TextEncoder().encode(text);
	const whole = bytes.length & ~3;
	const at = (i: number) => bytes[i] ?? 0;
	const mixed = (k: number) => Math.imul(rotated(Math.imul(k, 0xcc9e2d51), 15), 0x1b873593);
	let h = seed;
	for (let i = 0; i < whole; i += 4) {
		h ^= mixed(at(i) | (at(i + 1) << 8) | (at(i + 2) << 16) | (at(i + 3) << 24));
		h = (Math.imul(rotated(h, 13), 5) + 0xe6546b64) | 0;
	}
	if (bytes.length > whole) h ^= mixed(at(whole) | (at(whole + 1) << 8) | (at(whole + 2) << 16));
	h ^= bytes.length;
	h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
	h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
	return (h ^ (h >>> 16)) >>> 0;
}

function rotated(n: number, by: number): number {
	return (n << by) | (n >>> (32 - by));
}

/** Returns the letter of the version that a shopper gets. */
export function assignVersion(salt: string, shopper: string, shares: Trial['shares']): string {
	const point = murmur3(`${salt}:${shopper}`);
	let reached = 0;
	for (const letter of Object.keys(shares)) {
		reached += shares[letter] ?? 0;
		// Both products stay below 2^53, so that they are whole and exact.
		if (point * 10000 < reached * 4294967296) return letter;
	}
	return 'A';
}
