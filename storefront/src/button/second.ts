import { setAria } from '../base/aria';
import type { PaintSecond } from '../base/shop';

/** Stands the second button after the first one, or takes it away: to the checkout, or to a closer look. */
export const paintSecond: PaintSecond = (root, { made, second, inactive, press }) => {
	let button = root.querySelector<HTMLButtonElement>('.s');
	if (!made.second || !second) {
		button?.remove();
		return;
	}
	if (!button) {
		button = document.createElement('button');
		button.type = 'button';
		button.className = 's';
		root.append(button);
	}
	button.textContent = second;
	// What cannot be bought can be looked at.
	setAria(button, 'disabled', !!inactive && !made.looks);
	button.onclick = () => press?.(made.looks ? 'closer' : 'checkout');
};
