import { OPTIONS } from '../basket/basket';
import type { Field, Stand } from '../base/shop';

/** The fields of each option that the shop's form has, by the names that its connection tells. */
const fieldsOf = (stand: Stand, names: readonly string[]) => names.map((name) => stand.fields(name));

/** Returns what is chosen of each option, joined; empty as long as one is not. Where there are radio buttons only these count. */
export function chosen(stand: Stand, names: readonly string[]): string {
	const values = fieldsOf(stand, names).flatMap((all) => {
		const radios = all.filter(({ type }) => type === 'radio');
		return all.length ? ((radios.length ? radios.find(({ checked }) => checked) : all[0])?.value ?? '') : [];
	});
	return values.every(Boolean) ? values.join(OPTIONS) : '';
}

/** Returns a control of an option in which the shopper has still to choose something. */
export function unchosen(stand: Stand, names: readonly string[]): Field | undefined {
	const options = fieldsOf(stand, names).flat();
	if (!options.length || chosen(stand, names)) return undefined;
	const isOpen = ({ type, name, value }: Field) =>
		type === 'radio' ? !options.some((other) => other.name === name && other.checked) : !value;
	return options.find(isOpen) ?? options[0];
}
