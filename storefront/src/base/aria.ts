/** Tells a screen reader something of an element. By attribute: the property of the same name is younger than many browsers. */
export function setAria(element: Element, name: string, value: string | number | boolean): void {
	if (value === false) element.removeAttribute(`aria-${name}`);
	else element.setAttribute(`aria-${name}`, `${value}`);
}
