import { choicesOf, matching, pictureOf, variantsOf, type Choice, type Variant } from '../page/choices_told';
import type { Told } from '../page/goods';
import { nodeTold } from '../page/node_told';
import type { Node } from '../base/shop';
import type { Tools } from './tools';
import type { Basket, Product } from '../base/types';
import { kindsOf } from '../page/variants_told';

/** What is to be chosen of a product, on a sheet. */
export type Choosing = {
	/** What the page's data tells of it. */
	node: Node | undefined;
	/** The groups of radio buttons, one for each thing to be chosen. */
	groups: HTMLElement[];
	/** Returns the product as it is with what is chosen now. */
	now: () => Product;
	/** Returns the picture of what is chosen, where it has one of its own. */
	picture: () => string;
};

/**
 * Draws what is to be chosen of a product, and keeps it in a form, from where a press takes it.
 *
 * @param gone what is said of what is sold out
 * @param changed called whenever something else is chosen
 */
function choose(
	tells: Told,
	form: HTMLFormElement,
	basket: Basket,
	gone: string,
	{ element }: Tools,
	changed: () => void,
): Choosing {
	const { product, page } = tells;
	const known = nodeTold(page, product.sku);
	const node = tells.kinds ? { ...known, '@type': 'ProductGroup', hasVariant: tells.kinds } : known;
	const variants = variantsOf(node);
	const choices = tells.isOpen ? [] : choicesOf(tells, node, basket);
	const chosen = new Map<Choice, string>();

	/** Returns the texts by which a value may be told: what the form sends, and what a shopper reads. */
	const textsOf = ({ values }: Choice, value: string) => [
		value,
		values.find((option) => option.value === value)?.label ?? value,
	];
	/** The choices of which the page's data knows something: a finish that no variant tells is always to be had. */
	const shownChoices = choices.filter((choice) =>
		choice.values.some(({ value }) => matching(variants, [textsOf(choice, value)])[0]),
	);
	const texts = (without?: Choice) =>
		[...chosen]
			.filter(([choice]) => choice !== without && shownChoices.includes(choice))
			.map(([choice, value]) => textsOf(choice, value));

	const all = choices.map(draw);

	function draw(choice: Choice) {
		const { name, label, values } = choice;
		const kept = name && form.querySelector<HTMLInputElement>(`[name="${CSS.escape(name)}"]`);
		const field = kept || Object.assign(element('input'), { type: 'hidden', name });
		field.setAttribute('value', '');
		if (name) form.append(field);
		const set = element('fieldset');
		set.append(element('legend', '', label));
		for (const { value, label } of values) {
			const radio = Object.assign(element('input'), { type: 'radio', name: name || 'variant', value });
			radio.onchange = () => {
				chosen.set(choice, value);
				// By attribute: the page is watched for that.
				field.setAttribute('value', value);
				mark();
				changed();
			};
			const text = element('label');
			text.append(radio, element('span', '', label));
			set.append(text);
		}
		// Whoever presses too early is led to where the choice is.
		field.focus = () => set.querySelector('input')!.focus();
		return { choice, set };
	}

	/** Says of every value whether it can be had with what else is chosen. */
	function mark(): void {
		for (const { choice, set } of all.filter((question) => shownChoices.includes(question.choice)))
			set.querySelectorAll('label').forEach((text, n) => {
				const { value, label } = choice.values[n]!;
				const isGone = matching(variants, [...texts(choice), textsOf(choice, value)]).every(
					(variant) => variant.isGone,
				);
				text.className = isGone ? 'gone' : '';
				text.lastElementChild!.textContent = isGone ? `${label} (${gone})` : label;
			});
	}
	mark();

	/** Returns the product that all choices lead to, as far as the page's data knows it. */
	function chosenOf(): Variant | undefined {
		const isChosen = shownChoices[0] && chosen.size === choices.length;
		return isChosen ? matching(variants, texts())[0] : undefined;
	}

	function now(): Product {
		const is = { ...product };
		if (!choices[0] || chosen.size < choices.length) return is;
		const variant = chosenOf();
		const prices = new Set(variants.flatMap(({ price }) => price || []));
		// One of its own, or none: the price of another would be wrong. Nothing reads a word as an amount.
		if (variant ? prices.size : prices.size > 1)
			Object.assign(is, { price: variant?.price || 'none', was: variant?.was || 'none', net: 'none' });
		if (is.situation === 'choice') is.situation = 'plain';
		// What the shop does not tell of is not sold, as far as anybody can know.
		if (shownChoices[0] && (!variant || variant.isGone)) is.situation = 'sold_out';
		if (choices[0].isProduct) Object.assign(is, { sku: chosen.get(choices[0]), needsChoice: false });
		return is;
	}
	return { node, groups: all.map(({ set }) => set), now, picture: () => chosenOf()?.picture ?? '' };
}
const choices = { choose, kindsOf, pictureOf };
export type Choices = typeof choices;

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: Choices }) | null;
if (own) own.up = choices;
