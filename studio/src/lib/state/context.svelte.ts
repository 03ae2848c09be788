import type { Device, Moment, Placement } from '$lib/api/types';
import { DEVICES, MOMENTS } from '$lib/pure/facts';
import { addressOf, navigate, param, pathname, search } from './way';

/** What of the shop is looked at, by its name in every address. A station's own values are `layer`, `page` and `point`. */
type Kept = 'product' | 'device' | 'language' | 'placement' | 'moment';
/** New values by name; an empty one takes the name out of the address. */
export type Changes = Partial<Record<Kept | 'layer' | 'page' | 'point', string>>;
type Target = { path: string; values: Record<string, string> };

/**
 * What of the shop is looked at. It is written in the address and nowhere else: it stays when one changes stations, every
 * link carries it, and back and forward step through it. What was never chosen is empty, and each station has a usual one.
 */
export class Context {
	/** Where the last change leads, until the router is there: a change that follows it at once builds on it. */
	#leads: Target | null = null;

	get product(): string {
		return this.own('product');
	}

	get device(): Device | '' {
		return DEVICES.find((device) => device === this.own('device')) ?? '';
	}

	get language(): string {
		return this.own('language');
	}

	get placement(): Placement | '' {
		return (param('placement') ?? this.own('placement')) as Placement | '';
	}

	get moment(): Moment | '' {
		return MOMENTS.find((moment) => moment === this.own('moment')) ?? '';
	}

	/** Whether a change has been asked for that the address does not show yet. */
	get isMoving(): boolean {
		return this.#leads !== null;
	}

	/** Returns a value of the address as it is written; empty where it has none. */
	own(name: keyof Changes): string {
		return search().get(name) ?? '';
	}

	/** Looks at something else at the same station. `isPassing` leaves no step to go back to. */
	look(changes: Changes, { isPassing = false } = {}): void {
		const { path, values } = this.#leads ?? { path: pathname(), values: Object.fromEntries(search()) };
		void this.#to(changed(path, values, changes), { replace: isPassing, stays: true });
	}

	/** Goes to another station, where the same is looked at but for the changes. */
	go(path: string, changes: Changes = {}): void {
		void this.#to(changed(path, this.#kept, changes), {});
	}

	/** Returns the address of another station, where the same is looked at but for the changes. */
	href(path: string, changes: Changes = {}): string {
		const at = changed(path, this.#kept, changes);
		return addressOf(at.path, at.values);
	}

	get #kept(): Record<Kept, string> {
		const { product, device, language, placement, moment } = this;
		return { product, device, language, placement, moment };
	}

	async #to(target: Target, how: Parameters<typeof navigate>[2]): Promise<void> {
		this.#leads = target;
		await navigate(target.path, target.values, how);
		if (this.#leads === target) this.#leads = null;
	}
}

/** Returns where changes lead. In Draw the path itself names the placement. */
function changed(path: string, before: Record<string, string>, changes: Changes): Target {
	const all: Record<string, string> = { ...before, ...changes };
	const [, station, named = ''] = path.split('/');
	if (station === 'draw') {
		const placement = changes.placement || named || all.placement;
		path = placement ? `/draw/${placement}` : '/draw';
		all.placement = '';
	}
	return { path, values: Object.fromEntries(Object.entries(all).filter(([, value]) => value)) };
}
