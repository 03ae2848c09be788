type Search = Record<string, string>;
/** What of the router stations need; its own types know each path, and with it every station. */
export type Router = {
	navigate: (path: string, options?: { search?: Search }) => Promise<unknown>;
	route: { readonly params: Record<string, string | undefined> };
};
let router: Router | undefined;

/** Sets what moves between stations. Stations do not import it: it imports them. */
export function setRouter(made: Router): void {
	router = made;
}

/** Goes to a station, with values of its address after the question mark. */
export function navigate(path: string, search?: Search): void {
	void router?.navigate(path, { search });
}

/** Returns a part of the address that a station names, as `placement` in `/draw/:placement`. */
export const param = (name: string): string | undefined => router?.route.params[name];
