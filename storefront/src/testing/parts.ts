import { vi } from 'vitest';

/** Loads a part of the script as a page does: it hands itself over on the element that loads it. */
export async function handedOver<Part>(load: () => Promise<unknown>): Promise<Part> {
	vi.resetModules();
	const script = document.createElement('script');
	Object.defineProperty(document, 'currentScript', { value: script, configurable: true });
	await load();
	return (script as unknown as { up: Part }).up;
}

/** Answers requests for pages of the shop by their paths, as documents; returns those that were asked for. */
export function answerWith(pages: Readonly<Record<string, string>>): string[] {
	const asked: string[] = [];
	vi.stubGlobal(
		'XMLHttpRequest',
		class {
			status = 200;
			response: Document | null = null;
			onload = () => undefined;
			onerror = () => undefined;
			#path = '';
			open(_: string, path: string) {
				this.#path = path;
			}
			send() {
				asked.push(this.#path);
				const page = pages[this.#path];
				if (page === undefined) return setTimeout(() => this.onerror());
				this.response = new DOMParser().parseFromString(page, 'text/html');
				return setTimeout(() => this.onload());
			}
		},
	);
	return asked;
}
