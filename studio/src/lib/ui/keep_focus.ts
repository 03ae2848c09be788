const CONTROLS = 'a[href], button:not(:disabled), input:not(:disabled), select, textarea, [tabindex="0"]';

/**
 * An attachment for a part whose controls come and go: where the one that has the keyboard is taken away by what it did,
 * the one in its place has it then, and not the page as a whole.
 */
export function keepFocus(part: HTMLElement): () => void {
	let focused: EventTarget | null = null;
	let place = 0;
	const controls = () => [...part.querySelectorAll<HTMLElement>(CONTROLS)];
	const enter = ({ target }: FocusEvent): void => {
		focused = target;
		place = controls().indexOf(target as HTMLElement);
	};
	const leave = ({ target }: FocusEvent): void => {
		// Some browsers say so before they take an element away, others do not.
		setTimeout(() => {
			if (focused === target && (target as Element).isConnected) focused = null;
		});
	};
	const changes = new MutationObserver(() => {
		if (!(focused instanceof Element) || focused.isConnected) return;
		focused = null;
		if (document.activeElement !== document.body) return;
		const next = controls().at(Math.min(place, controls().length - 1));
		next?.focus();
		// As Tab would find it: what is typed takes the place of what is there.
		if (next instanceof HTMLInputElement && next.type !== 'checkbox') next.select();
	});
	part.addEventListener('focusin', enter);
	part.addEventListener('focusout', leave);
	changes.observe(part, { childList: true, subtree: true });
	return () => {
		changes.disconnect();
		part.removeEventListener('focusin', enter);
		part.removeEventListener('focusout', leave);
	};
}
