import { createContext, onMount } from 'svelte';
import { isFreeChord, isFreeKey } from '$lib/pure/keys';

/** Something that can be done by a key, from the search, or both. */
export type Action = {
	title: string;
	/** As `KeyboardEvent.key` names them; `Mod+` before one means Ctrl, or Command on a Mac. */
	keys?: readonly string[];
	run: () => void;
	/** Says whether it can be done now; without it, always. */
	when?: () => boolean;
};
/** The actions of one part of the studio. */
export type ActionGroup = { title: string; actions: readonly Action[] };

/** Every action that can be done where one is: each is declared once, by the part that does it. */
export class Actions {
	groups = $state.raw<readonly ActionGroup[]>([]);

	/** `singleKeys` says whether shortcuts of one key are switched on. */
	constructor(readonly singleKeys: () => boolean) {}

	/** Adds a group; what is returned takes it away again. */
	add(group: ActionGroup): () => void {
		this.groups = [...this.groups, group];
		return () => (this.groups = this.groups.filter((other) => other !== group));
	}

	/** What can be done now. */
	get available(): readonly Action[] {
		return this.groups.flatMap((group) => group.actions).filter((action) => action.when?.() ?? true);
	}

	/** Does what a key stands for, unless something that has the keyboard needs that key; the newest group comes first. */
	press(event: KeyboardEvent): void {
		const chord = chordOf(event);
		if (chord.startsWith('Mod+') ? !isFreeChord(event) : !this.singleKeys() || !isFreeKey(event)) return;
		const action = this.available.findLast((action) => action.keys?.includes(chord));
		if (!action) return;
		event.preventDefault();
		action.run();
	}
}

/** Returns a key as `Action.keys` writes it; beside Ctrl or Command, which are `Mod+`, letters are small. */
export function chordOf(event: KeyboardEvent): string {
	if (!event.ctrlKey && !event.metaKey) return event.key;
	return `Mod+${event.shiftKey ? 'Shift+' : ''}${event.key.toLowerCase()}`;
}

/** Returns a key as people read it: `Mod+Shift+z` as `Ctrl Shift Z`. */
export function readable(keys: string): string {
	if (keys === '-') return '−';
	if (!keys.includes('+') || keys === '+') return keys;
	return keys
		.split('+')
		.map((part) => (part === 'Mod' ? 'Ctrl' : part.length === 1 ? part.toUpperCase() : part))
		.join(' ');
}

/** Adds the actions of a component for as long as it is shown. */
export function addActions(title: string, actions: readonly Action[]): void {
	const all = useActions();
	onMount(() => all.add({ title, actions }));
}

export const [useActions, provideActions] = createContext<Actions>();
