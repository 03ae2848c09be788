type Search = Record<string, string>;
/** What of the router stations need; its own types know each path, and with it every station. */
export type Router = {
	navigate: (
		path: string,
		options?: { search?: Search; replace?: boolean; scrollToTop?: false | 'auto' },
	) => Promise<unknown>;
	route: { readonly params: Record<string, string | undefined>; readonly pathname: string; readonly search: unknown };
};
let router: Router | undefined;

/** Sets what moves between stations. Stations do not import it: it imports them. */
export function setRouter(to: Router): void {
	router = to;
}

/** Goes to an address: a path, and values after the question mark. */
export function navigate(path: string, search: Search, { replace = false, stays = false } = {}): Promise<unknown> {
	return router?.navigate(path, { search, replace, scrollToTop: stays ? false : 'auto' }) ?? Promise.resolve();
}

/** Returns an address as a link has it. */
export function addressOf(path: string, search: Search): string {
	const values = new URLSearchParams(search).toString();
	return values ? `${path}?${values}` : path;
}

/** Returns a part of the address that a station names, as `placement` in `/draw/:placement`. */
export const param = (name: string): string | undefined => router?.route.params[name];

/** Returns the path that is shown; whatever reads it hears when it changes. */
export const pathname = (): string => router?.route.pathname ?? location.pathname;

/** Returns the values of the address as they are written: the router's own reading takes the code "007" for a number. */
export function search(): URLSearchParams {
	// Read only to hear when it changes.
	void router?.route.search;
	return new URLSearchParams(location.search);
}
