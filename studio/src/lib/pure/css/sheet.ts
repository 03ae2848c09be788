import { parted, unnested, withAttributes } from './states';

/** A rule for elements, with its whole selector, and the conditions under which it counts. */
export type Ruled = { rule: CSSStyleRule | CSSRule; style: CSSStyleDeclaration; selectors: string[]; media: string[] };

/** What of a stylesheet can be seen only by looking through its rules. */
export type Sheet = { rules: Ruled[]; told: string[] };

type Grouping = CSSRule & { cssRules?: CSSRuleList; conditionText?: string; style?: CSSStyleDeclaration };

/** Returns the rules of a stylesheet in their order, after the states in its selectors have been made attributes. */
export function rulesOf(sheet: CSSStyleSheet, supports: (condition: string) => boolean): Sheet {
	const rules: Ruled[] = [];
	const notes: string[] = [];
	const walk = (list: CSSRuleList, within: string, media: string[]): void => {
		for (const rule of Array.from(list) as Grouping[]) {
			const kind = rule.constructor.name;
			if ('selectorText' in rule) {
				const styled = rule as CSSStyleRule;
				const wanted = withAttributes(styled.selectorText);
				if (wanted !== styled.selectorText) styled.selectorText = wanted;
				const selectors = parted(styled.selectorText).map((selector) =>
					within ? unnested(selector, within) : selector,
				);
				rules.push({ rule: styled, style: styled.style, selectors, media });
				if (styled.cssRules?.length) walk(styled.cssRules, selectors.join(','), media);
			} else if (kind === 'CSSNestedDeclarations' && rule.style) {
				rules.push({ rule, style: rule.style, selectors: within ? [within] : [], media });
			} else if (kind === 'CSSMediaRule') {
				walk(rule.cssRules!, within, [...media, rule.conditionText ?? '']);
			} else if (kind === 'CSSSupportsRule') {
				if (supports(rule.conditionText ?? '')) walk(rule.cssRules!, within, media);
			} else if (kind === 'CSSImportRule') {
				notes.push('@import: other files are not fetched; bring their text too');
			} else if (kind === 'CSSStartingStyleRule') {
				notes.push('@starting-style: how it comes in');
			} else if (rule.cssRules && kind !== 'CSSKeyframesRule') {
				walk(rule.cssRules, within, media);
			}
		}
	};
	walk(sheet.cssRules, '', []);
	return { rules, told: notes };
}

/** Tells whether an element is one of those that a rule is for; a selector that no browser knows is for none. */
export function isFor(rule: Ruled, element: Element): boolean {
	return rule.selectors.some((selector) => {
		try {
			return element.matches(selector);
		} catch {
			return false;
		}
	});
}
