/**
 * The keys under which answers are kept, all made here. What follows from the draft or from its release carries the stamp
 * of both: once either changes, the key is another one, and nothing need be thrown away besides.
 */
export type At = { store: string; stamp: string };

export const keyOf = {
	floor: ({ store, stamp }: At, query: object) => ['floor', store, stamp, query] as const,
	findings: ({ store, stamp }: At, query: object) => ['findings', store, stamp, query] as const,
	drawing: ({ store, stamp }: At, where: object) => ['draw', store, stamp, where] as const,
	words: ({ store, stamp }: At, language: string) => ['words', store, stamp, language] as const,
	trace: ({ store, stamp }: At, asked: object) => ['trace', store, stamp, asked] as const,
	looks: ({ store, stamp }: At) => ['looks', store, stamp] as const,
	exceptions: ({ store, stamp }: At) => ['exceptions', store, stamp] as const,
	effects: ({ store, stamp }: At, rule: string) => ['effects', store, stamp, rule] as const,
	reach: ({ store, stamp }: At, words: string) => ['reach', store, stamp, words] as const,
	history: ({ store, stamp }: At) => ['history', store, stamp] as const,
	search: ({ store, stamp }: At, text: string) => ['search', store, stamp, text] as const,
	written: ({ store, stamp }: At, where: object, form: string) => ['written', store, stamp, where, form] as const,
	standing: ({ store, stamp }: At, where: object) => ['standing', store, stamp, where] as const,
	stores: () => ['stores'] as const,
	places: ({ store, stamp }: At, product: string) => ['places', store, stamp, product] as const,
	release: ({ store, stamp }: At) => ['release', store, stamp] as const,
	outside: ({ store, stamp }: At) => ['outside', store, stamp] as const,
	progress: (store: string) => ['progress', store] as const,
	products: (store: string, text: string) => ['products', store, text] as const,
	icons: (store: string, text: string) => ['icons', store, text] as const,
	trials: (store: string) => ['trials', store] as const,
	trial: (store: string, number: number | string) => ['trial', store, number] as const,
};
