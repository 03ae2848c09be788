import type { Pages } from '../base/types';

/** Tells whether a page of a kind is one of those that are meant. */
export function isMeant({ kinds, paths, not_paths: away }: Pages, kind: string): boolean {
	if (kinds && !kinds.includes(kind)) return false;
	const { pathname } = location;
	return !(away && new RegExp(away).test(pathname)) && (!paths || new RegExp(paths).test(pathname));
}
