import { describe, expect, it } from 'vitest';
import { encoded, isOpen } from './address';

describe('a message in an address', () => {
	it('encodes all but unreserved letters, once (RFC 3986, 2.3)', () => {
		expect(encoded("A-Z._~ !'()*&=#%+/é")).toBe('A-Z._~%20%21%27%28%29%2A%26%3D%23%25%2B%2F%C3%A9');
	});
	it('breaks lines as mails do (RFC 6068, 5)', () => {
		expect(encoded('one\ntwo\r\nthree')).toBe('one%0D%0Atwo%0D%0Athree');
	});
	it('leaves out the marks that set values apart on a button', () => {
		expect(encoded('a \u2068b\u2069')).toBe('a%20b');
	});
});

describe('office hours', () => {
	// Friday, 27 November 2026, 16:59 in London, 17:59 in Berlin, 01:59 of Saturday in Tokyo.
	const now = new Date('2026-11-27T16:59:00Z');
	const friday = [[4, 540, 1020]];
	it('are by the clock of the store', () => {
		expect(isOpen(friday, 'Europe/London', now)).toBe(true);
		expect(isOpen(friday, 'Europe/Berlin', now)).toBe(false);
		expect(isOpen([[5, 0, 1440]], 'Asia/Tokyo', now)).toBe(true);
	});
	it('end at the minute that is told', () => {
		expect(isOpen(friday, 'Europe/London', new Date('2026-11-27T17:00:00Z'))).toBe(false);
		expect(isOpen(friday, 'Europe/London', new Date('2026-11-27T09:00:00Z'))).toBe(true);
		expect(isOpen(friday, 'Europe/London', new Date('2026-11-27T08:59:00Z'))).toBe(false);
	});
	it('follow summer time', () => {
		expect(isOpen([[2, 540, 1020]], 'Europe/London', new Date('2026-07-01T08:30:00Z'))).toBe(true);
		expect(isOpen([[2, 540, 1020]], 'Europe/London', new Date('2026-07-01T16:30:00Z'))).toBe(false);
	});
});
