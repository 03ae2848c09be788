/** Returns a pick between two wordings of a value that is so or not, for spreading on a `Pick`. */
export function yesOrNo(value: boolean, [so, not]: readonly [string, string], onset: (value: boolean) => void) {
	return {
		value: value ? 'yes' : 'no',
		options: [
			{ value: 'yes', label: so },
			{ value: 'no', label: not },
		],
		onpick: (picked: string) => onset(picked === 'yes'),
	};
}
