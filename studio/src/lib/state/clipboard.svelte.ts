/** A look on its way from somewhere to a button. */
export type Carried = {
	kind: 'button' | 'start' | 'look' | 'css' | 'computed' | 'tokens';
	value: string;
	selector: string;
	laid?: Record<string, string>;
};

/** What was copied in the studio: the look of one button. */
export class Clipboard {
	look = $state.raw<Carried | null>(null);

	copyButton(address: string): void {
		this.look = { kind: 'button', value: address, selector: '' };
	}

	holdsButton(address: string): boolean {
		return this.look?.kind === 'button' && this.look.value === address;
	}
}
