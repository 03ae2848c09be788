/** Marks an element whose content is wider than itself with `data-cut`, as long as that is so: it fades at its end. */
export function markCut(element: HTMLElement): () => void {
	const sizes = new ResizeObserver(() =>
		element.toggleAttribute('data-cut', element.scrollWidth > element.clientWidth + 1),
	);
	for (const box of [element, ...element.children]) sizes.observe(box);
	return () => sizes.disconnect();
}
