import type { createRouter } from 'sv-router';

type Router = Pick<ReturnType<typeof createRouter>, 'navigate' | 'route'>;
type Search = Record<string, string>;
let router: Router | undefined;

/** Sets what moves between stations. Stations do not import it: it imports them. */
export function setRouter(made: unknown): void {
	router = made as Router;
}

/** Goes to a station, with values of its address after the question mark. */
export function navigate(path: string, search: Search = {}): void {
	const values = new URLSearchParams(search).toString();
	void (router?.navigate as unknown as (path: string) => Promise<unknown>)(values ? `${path}?${values}` : path);
}

/** Returns a part of the address that a station names, as `placement` in `/draw/:placement`. */
export const param = (name: string) => (router?.route.params as Record<string, string | undefined>)[name];
