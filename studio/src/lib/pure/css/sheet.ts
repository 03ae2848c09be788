import { parted, unnested, withAttributes } from './states';

/** A rule for elements, with its whole selector, and the conditions under which it counts. */
export type Ruled = { rule: CSSStyleRule | CSSRule; style: CSSStyleDeclaration; selectors: string[]; media: string[] };

/** What of a stylesheet can be seen only by looking through its rules. */
export type Sheet = { rules: Ruled[]; told: string[] };

type Grouping = CSSRule & { cssRules?: CSSRuleList; conditionText?: string; style?: CSSStyleDeclaration };

/** Returns the rules of a stylesheet in their order, after the states in its selectors have been made attributes. */
export function rulesOf(sheet: CSSStyleSheet, supports: (condition: string) => boolean): Sheet {
	const rules: Ruled[] = [];
	const told: string[] = [];
	const walk = (list: CSSRuleList, within: string, media: string[]): void => {
		for (const one of Array.from(list) as Grouping[]) {
			const kind = one.constructor.name;
			if ('selectorText' in one) {
				const styled = one as CSSStyleRule;
				const wanted = withAttributes(styled.selectorText);
				if (wanted !== styled.selectorText) styled.selectorText = wanted;
				const selectors = parted(styled.selectorText).map((said) => (within ? unnested(said, within) : said));
				rules.push({ rule: styled, style: styled.style, selectors, media });
				if (styled.cssRules?.length) walk(styled.cssRules, selectors.join(','), media);
			} else if (kind === 'CSSNestedDeclarations' && one.style) {
				rules.push({ rule: one, style: one.style, selectors: within ? [within] : [], media });
			} else if (kind === 'CSSMediaRule') {
				walk(one.cssRules!, within, [...media, one.conditionText ?? '']);
			} else if (kind === 'CSSSupportsRule') {
				if (supports(one.conditionText ?? '')) walk(one.cssRules!, within, media);
			} else if (kind === 'CSSImportRule') {
				told.push('@import: other files are not fetched; bring their text too');
			} else if (kind === 'CSSStartingStyleRule') {
				told.push('@starting-style: how it comes in');
			} else if (one.cssRules && kind !== 'CSSKeyframesRule') {
				walk(one.cssRules, within, media);
			}
		}
	};
	walk(sheet.cssRules, '', []);
	return { rules, told };
}

/** Tells whether an element is one of those that a rule is for; a selector that no browser knows is for none. */
export function isFor(one: Ruled, element: Element): boolean {
	return one.selectors.some((selector) => {
		try {
			return element.matches(selector);
		} catch {
			return false;
		}
	});
}
