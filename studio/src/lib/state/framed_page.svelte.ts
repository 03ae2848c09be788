import { onMount } from 'svelte';
import type { FromFrame, ToFrame } from '@storefront/studio/messages';

export type Told<Kind extends FromFrame['up']> = Extract<FromFrame, { up: Kind }>;
/** How long a page may take until its script answers. */
const PAGE_MS = 8000;
/** One page in a frame: what is said to it, and what it answers. */
export class FramedPage {
	readonly #origin: () => string;
	readonly #heard: (message: FromFrame) => void;
	#waiting: { up: string; done: (message: FromFrame | null) => void }[] = [];
	/** Its script has answered since it was loaded. */
	isReady = $state(false);
	frame = $state<HTMLIFrameElement>();

	constructor(origin: () => string, heard: (message: FromFrame) => void) {
		this.#origin = origin;
		this.#heard = heard;
		onMount(() => {
			const hear = (event: MessageEvent) => this.#hear(event);
			addEventListener('message', hear);
			return () => removeEventListener('message', hear);
		});
	}

	tell(message: ToFrame): void {
		// A frame that has not answered yet may hold anything.
		if (this.isReady) this.frame?.contentWindow?.postMessage(message, this.#origin());
	}

	/** Says something and waits for an answer; null where none comes in time. */
	ask<Kind extends FromFrame['up']>(message: ToFrame, up: Kind): Promise<Told<Kind> | null> {
		const answer = this.next(up);
		this.tell(message);
		return answer;
	}

	next<Kind extends FromFrame['up']>(up: Kind): Promise<Told<Kind> | null> {
		return new Promise((done) => {
			const asked = {
				up,
				done: (message: FromFrame | null) => (clearTimeout(clock), done(message as Told<Kind> | null)),
			};
			const clock = setTimeout(() => {
				this.#waiting = this.#waiting.filter((other) => other !== asked);
				done(null);
			}, PAGE_MS);
			this.#waiting.push(asked);
		});
	}

	#hear({ source, origin, data: message }: MessageEvent<FromFrame>): void {
		if (source !== this.frame?.contentWindow || origin !== this.#origin() || !message?.up) return;
		this.isReady = true;
		const [those, others] = [
			this.#waiting.filter(({ up }) => up === message.up),
			this.#waiting.filter(({ up }) => up !== message.up),
		];
		this.#waiting = others;
		those.forEach(({ done }) => done(message));
		this.#heard(message);
	}
}
