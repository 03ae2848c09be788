/** Calls back whenever another station is shown than before; not for the first one. */
export function afterStation(at: () => string, arrived: (name: string) => void): void {
	let before: string | undefined;
	$effect(() => {
		const name = at();
		if (before !== undefined && before !== name) arrived(name);
		before = name;
	});
}
