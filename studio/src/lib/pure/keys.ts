/** Where a key already does something: texts, lists, and what floats. Buttons and links take only Enter and Space. */
const OWNERS = [
	'input:not([type=checkbox], [type=radio], [type=button])',
	'textarea',
	'select',
	'[contenteditable]:not([contenteditable=false])',
	'[role=combobox]',
	'[role=listbox]',
	'[role=menu]',
	'[aria-haspopup=listbox]',
	'[data-popover-content]',
].join();
const OPEN_SHEET = '[role=dialog][data-dialog-content], [role=alertdialog]';
const STAYS_OPEN = ':not([data-state=closed])';

/** Tells whether a sheet is open: what lies behind it hears no keys. One that is just being taken away is closed. */
export function isSheetOpen(root: ParentNode = document): boolean {
	return root.querySelector(`:is(${OPEN_SHEET})${STAYS_OPEN}`) !== null;
}

/** Tells whether a key is free to be a shortcut: nothing that has the keyboard takes it, and no sheet is open. */
export function isFreeKey(event: KeyboardEvent, root: ParentNode = document): boolean {
	const { target } = event;
	return (
		!event.defaultPrevented &&
		!event.isComposing &&
		!(event.ctrlKey || event.metaKey || event.altKey) &&
		!(target instanceof Element && target.closest(OWNERS)) &&
		!isSheetOpen(root)
	);
}

/** Tells whether a shortcut with Ctrl is free: in a text the browser takes back letters, and behind a sheet nothing hears. */
export function isFreeChord(event: KeyboardEvent, root: ParentNode = document): boolean {
	const { target } = event;
	if (event.defaultPrevented || event.isComposing || event.altKey || isSheetOpen(root)) return false;
	if (target instanceof HTMLTextAreaElement) return false;
	// A number has no letters to take back.
	return !(target instanceof HTMLInputElement) || target.inputMode === 'decimal' || target.type === 'checkbox';
}
