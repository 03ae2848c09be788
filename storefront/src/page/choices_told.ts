import type { Node } from '../base/shop';
import { isA, plainNumber } from './page';
import type { Told } from './goods';
import type { Basket } from '../base/types';

type Value = { value: string; label: string };
/** What has to be chosen of a product: an option, or with `isProduct` which product of several it is. */
export type Choice = { name: string; label: string; values: readonly Value[]; isProduct?: boolean };
/** One of the products that a group is of: its code, what it has of each property, and its offer. */
export type Variant = {
	sku: string;
	has: ReadonlySet<string>;
	price: string;
	was: string;
	isGone: boolean;
	picture: string;
};

const same = (text: unknown) =>
	String(text ?? '')
		.trim()
		.toLowerCase();
/** What schema.org calls the properties by which products differ; others stand in `additionalProperty`. */
const PROPERTIES = ['size', 'color', 'material', 'pattern', 'width', 'height', 'weight'];
const all = (value: unknown) => [value ?? []].flat() as Node[];
const textOf = (value: unknown) =>
	value && typeof value === 'object' ? ((value as Node).name ?? (value as Node).value) : value;

/** Returns what a product has of each property, by its name. */
function propertiesOf(node: Node): [string, string][] {
	const more = all(node.additionalProperty).map(({ name, value }) => [String(name), textOf(value)]);
	return [...PROPERTIES.map((name) => [name, textOf(node[name])]), ...more].filter(([, value]) => value) as [
		string,
		string,
	][];
}

/** Returns the address of the first picture that data tells; empty where it tells none. */
export function pictureOf(image: unknown): string {
	const [first] = [image].flat() as (string | Node | undefined)[];
	return String((first && typeof first === 'object' ? (first.url ?? first.contentUrl) : first) ?? '');
}

/** Returns the products that a group is of, as the page's data tells them. */
export function variantsOf(node: Node | undefined): Variant[] {
	return all(node?.hasVariant).map((variant) => {
		const offer = all(variant.offers)[0] ?? {};
		const was = all(offer.priceSpecification).find(({ priceType }) => /Strikethrough|List/.test(String(priceType)));
		return {
			sku: String(variant.sku ?? ''),
			has: new Set(propertiesOf(variant).map(([, value]) => same(value))),
			price: plainNumber(String(offer.price ?? '')),
			was: plainNumber(String(was?.price ?? '')),
			picture: pictureOf(variant.image),
			isGone: /OutOfStock|SoldOut|Discontinued/.test(String(offer.availability)),
		};
	});
}

/** Returns what a page calls a field, without what stands in the field itself. */
function labelOf(field: HTMLInputElement): string {
	const label = field.labels?.[0]?.cloneNode(true) as Element | undefined;
	label?.querySelectorAll('select').forEach((list) => list.remove());
	return (label?.textContent || field.ariaLabel || '').trim();
}

/** Returns what has to be chosen: as the shop's own form has it, else as the page's data tells it. */
export function choicesOf({ own }: Told, node: Node | undefined, basket: Basket): Choice[] {
	const fieldsOf = (name: string) => [...(own?.elements ?? [])].filter((at) => (at as HTMLInputElement).name === name);
	const inForm = (name: string): Choice[] => {
		const fields = fieldsOf(name) as HTMLInputElement[];
		const list = fields.find((field): field is HTMLInputElement & HTMLSelectElement => field.matches('select'));
		if (list) {
			const values = [...list.options]
				.filter(({ value }) => value)
				.map((option) => ({ value: option.value, label: option.label || option.text }));
			return [{ name, label: labelOf(list) || name, values }];
		}
		const radios = fields.filter(({ type }) => type === 'radio');
		const label = radios[0]?.closest('fieldset')?.querySelector('legend')?.textContent?.trim() || name;
		const values = radios.map((at) => ({ value: at.value, label: labelOf(at) || at.value }));
		return radios[0] ? [{ name, label, values }] : [];
	};
	const options = basket.option_fields.flatMap(inForm);
	if (options[0]) return options;
	const product = inForm(basket.product_field);
	if (product[0]?.values[1]) return [{ ...product[0], isProduct: true }];
	if (!node || !isA(node, /\bProductGroup$/)) return [];
	// Nobody has a form: each product of the group is one value, called by what it differs in.
	const values = all(node.hasVariant).map((variant) => ({
		value: String(variant.sku),
		label:
			propertiesOf(variant)
				.map(([, value]) => value)
				.join(', ') || String(variant.name ?? variant.sku),
	}));
	const names = all(node.variesBy).map((name) => String(name).split('/').at(-1));
	const by = names[0] ? names : propertiesOf(all(node.hasVariant)[0] ?? {}).map(([name]) => name);
	return values[0] ? [{ name: '', label: by.join(', '), values, isProduct: true }] : [];
}

/** Returns the variants that have all of what is chosen; `chosen` has the texts that a shopper sees or the form sends. */
export function matching(variants: readonly Variant[], chosen: readonly (readonly string[])[]): Variant[] {
	return variants.filter(({ sku, has }) =>
		chosen.every((texts) => texts.some((text) => text === sku || has.has(same(text)))),
	);
}
