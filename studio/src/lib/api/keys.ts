/** The keys under which answers are kept, all made here. What hangs on the draft carries its version. */
type Version = number | undefined;

export const keyOf = {
	floor: (store: string, query: object) => ['floor', store, query] as const,
	findings: (store: string, query: object) => ['findings', store, query] as const,
	drawing: (store: string, where: object) => ['draw', store, where] as const,
	words: (store: string, language: string) => ['words', store, language] as const,
	trace: (store: string, asked: unknown, field: string, version: Version) =>
		['trace', store, asked, field, version] as const,
	looks: (store: string) => ['looks', store] as const,
	exceptions: (store: string, version: Version) => ['exceptions', store, version] as const,
	effects: (store: string, rule: string, version: Version) => ['effects', store, rule, version] as const,
	history: (store: string, version: Version) => ['history', store, version] as const,
	search: (store: string, text: string, version: Version) => ['search', store, text, version] as const,
	icons: (store: string, text: string) => ['icons', store, text] as const,
	release: (store: string) => ['release', store] as const,
	trials: (store: string) => ['trials', store] as const,
	trial: (store: string, number: number | string) => ['trial', store, number] as const,
};
