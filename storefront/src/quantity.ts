import type { Compiled } from './types';

/** Stands a number of pieces before a button, or takes it away; what a shopper has typed stays. */
export function paintQuantity(root: ShadowRoot, button: Element, quantity: Compiled['quantity'], name = ''): void {
	let box = root.querySelector('input');
	if (!quantity) {
		box?.remove();
		return;
	}
	if (!box) {
		box = document.createElement('input');
		box.type = 'number';
		box.className = 'q';
		box.value = `${quantity.start}`;
		button.before(box);
	}
	box.min = `${quantity.least}`;
	box.max = `${quantity.most}`;
	box.step = `${quantity.step}`;
	box.ariaLabel = `Quantity, ${name}`;
}
