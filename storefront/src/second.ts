import { setAria } from './aria';

/** Stands the button that goes straight to the checkout after the first one, or takes it away. */
export function paintSecond(root: ShadowRoot, text: string | null | undefined, inactive = false): void {
	let button = root.querySelector<HTMLButtonElement>('.s');
	if (!text) {
		button?.remove();
		return;
	}
	if (!button) {
		button = document.createElement('button');
		button.type = 'button';
		button.className = 's';
		root.append(button);
	}
	button.textContent = text;
	setAria(button, 'disabled', inactive);
}
