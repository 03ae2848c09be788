/** Returns what loads something once, when it is first needed. A load that failed is no last word: it is tried again. */
export function lazily<Loaded>(load: () => Promise<Loaded>): () => Promise<Loaded> {
	let kept: Promise<Loaded> | undefined;
	return () =>
		(kept ??= load().catch((error: unknown) => {
			kept = undefined;
			throw error;
		}));
}

/** What could not be loaded is told by what is not there, and asked for anew when it is needed again. */
export const nothing = () => undefined;
