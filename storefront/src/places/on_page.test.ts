import { expect, it, vi } from 'vitest';
import { isMeant } from './on_page';

/** As `path_pattern` of the core writes `/c/*` and `/*a*a*b`, the latter without a way back. */
const PATHS = String.raw`^/c/.*$|^/(?=(.*?a))\1(?=(.*?a))\2.*b$`;

it.each([
	['/c/wax', true],
	['/xaxab', true],
	['/ab', false],
	['/p/wax', false],
	[`/${'a'.repeat(5000)}`, false],
])('reads a pattern of paths as Python does: %s', (pathname, is) => {
	vi.stubGlobal('location', { pathname });
	expect(isMeant({ paths: PATHS }, 'list')).toBe(is);
	expect(isMeant({ not_paths: PATHS }, 'list')).toBe(!is);
});
