import { afterAll, vi } from 'vitest';

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
