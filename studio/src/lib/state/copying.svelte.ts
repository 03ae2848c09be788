/** How long it is told that something was copied, in milliseconds. */
const TOLD_MS = 2000;

/** Texts on their way to the system's clipboard. */
export class Copying {
	/** The text that was copied a moment ago. */
	copied = $state('');
	/** Why nothing was copied, with what can be done. */
	wrong = $state('');

	/** Copies a text, and says whether it was. */
	async copy(text: string): Promise<boolean> {
		const done = await written(text);
		this.wrong = done ? '' : 'This browser lets nothing be copied here. Select the text and copy it by keys.';
		this.copied = done ? text : '';
		if (done) setTimeout(() => (this.copied = this.copied === text ? '' : this.copied), TOLD_MS);
		return done;
	}
}

async function written(text: string): Promise<boolean> {
	try {
		await navigator.clipboard.writeText(text);
		return true;
	} catch {
		// A studio that is not served securely has no clipboard; what is selected can be copied all the same.
		const field = document.createElement('textarea');
		field.value = text;
		field.style.cssText = 'position:fixed;opacity:0';
		document.body.append(field);
		const before = document.activeElement as HTMLElement | null;
		field.select();
		const done = document.execCommand?.('copy') ?? false;
		field.remove();
		before?.focus();
		return done;
	}
}
