import { afterAll, vi } from 'vitest';

// What jsdom lacks: it draws nothing, and has neither constructed style sheets nor CSS.escape. What these do is tested in
// the real browser.
for (const root of [ShadowRoot.prototype, document])
	Object.defineProperty(root, 'adoptedStyleSheets', { value: [], writable: true, configurable: true });
CSSStyleSheet.prototype.replaceSync = () => undefined;
globalThis.CSS ??= { escape: (text: string) => text } as typeof CSS;

// Files share one page and one clock: what a file has changed of them ends with it.
afterAll(() => {
	vi.useRealTimers();
	vi.restoreAllMocks();
	vi.unstubAllGlobals();
	document.head.innerHTML = '';
	document.body.innerHTML = '';
	localStorage.clear();
	sessionStorage.clear();
	for (const { name } of [...document.documentElement.attributes]) document.documentElement.removeAttribute(name);
});
