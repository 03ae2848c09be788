import { client, data } from '$lib/api/client';
import type { CarryView, Device } from '$lib/api/types';
import { Attempt } from './attempt.svelte';
import type { Carried } from './clipboard.svelte';
import type { Desk } from './desk.svelte';
import type { Workshop } from './workshop.svelte';

/** A look from somewhere else, brought to the button that is drawn: looked at first, and applied as far as is wished. */
export class Bringing {
	readonly attempt = new Attempt();
	source = $state.raw<Carried | null>(null);
	/** What the source comes to on this button. */
	brought = $state.raw<CarryView | null>(null);
	/** Which of its parts are wished. */
	parts = $state<string[]>([]);
	/** Devices on which the look's own values shall count. */
	devices = $state<Device[]>([]);
	/** A stylesheet whose button has still to be chosen. */
	stylesheet = $state.raw<string | null>(null);
	/** Its only button has been read already: whoever comes back wants another one. */
	cameBack = $state(false);
	readonly #workshop: Workshop;
	readonly #desk: Desk;
	#asked = 0;

	constructor(workshop: Workshop, desk: Desk) {
		this.#workshop = workshop;
		this.#desk = desk;
	}

	get #layer(): string {
		return this.#desk.kept?.editing.layer ?? '';
	}

	/** Works out what a source would change; without parts, all of it. */
	async bring(source: Carried, parts: string[] = []): Promise<void> {
		const mine = ++this.#asked;
		const body = { ...source, parts, layer: this.#layer };
		const params = this.#desk.params;
		const brought = await this.attempt.run(() =>
			data(client.POST('/api/stores/{store}/draw/{placement}/bring', { params, body })),
		);
		// Of several questions only the newest is answered; what has been chosen meanwhile stays.
		if (!brought || mine !== this.#asked) return;
		this.source = source;
		this.brought = brought;
		if (parts.length) return;
		this.parts = [...brought.parts];
		this.devices = brought.by_device.map(({ device }) => device);
	}

	/** Reads a text: braces around names in quotes are tokens, everything else is taken for CSS, which the browser reads. */
	async read(text: string): Promise<void> {
		this.attempt.wrong = '';
		if (text.trimStart().startsWith('{')) return this.bring({ kind: 'tokens', value: text, selector: '' });
		this.cameBack = false;
		this.stylesheet = text;
	}

	/** Lays values of a file onto fields; an empty field takes none. */
	lay(fields: Record<string, string>): void {
		const laid = Object.fromEntries(Object.entries(fields).filter(([, field]) => field));
		if (this.source) void this.bring({ ...this.source, laid });
	}

	choose(part: string, on: boolean): void {
		this.parts = on ? [...this.parts, part] : this.parts.filter((other) => other !== part);
		if (this.source && this.parts.length) void this.bring(this.source, this.parts);
		else this.#asked++;
	}

	chooseDevice(device: Device, on: boolean): void {
		this.devices = on ? [...this.devices, device] : this.devices.filter((other) => other !== device);
	}

	back(): void {
		this.brought = this.source = null;
		this.cameBack = true;
	}

	/** Applies what is wished to the layer that takes the edits. */
	async take(): Promise<boolean> {
		const { source, parts, devices } = this;
		if (!source) return false;
		const body = { ...source, parts, layer: this.#layer, devices };
		const params = this.#desk.params;
		return this.#workshop.act(async (headers) => {
			const drawn = await data(client.POST('/api/stores/{store}/draw/{placement}/carry', { params, headers, body }));
			this.#desk.take(drawn);
			return drawn.draft;
		}, 'The look was not applied.');
	}
}
