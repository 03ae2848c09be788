<script lang="ts">
	import { inPx, stepped, typedLength, type Ground, type Length } from '$lib/pure/length';
	import { stepOf } from '$lib/pure/number';

	type Props = {
		/** What the number is, for those who cannot see where it stands. */
		label: string;
		value: Length;
		least?: number;
		most?: number;
		unit?: string;
		/** What %, em and vw are of; without it only pixels are taken. */
		ground?: Ground;
		/** Keeps %, em and vw as they are typed; else they come to pixels. */
		keepsUnits?: boolean;
		/** Keeps the number; while it does, the number is shown as if it were kept. */
		onset: (value: never) => unknown;
		/** Shows the number without keeping it, while an arrow key is held: then it is kept once, when that is let go. */
		ontry?: (value: never) => void;
		onfocus?: () => void;
		/** Struck with the marker while it is the one being worked on. */
		marked?: boolean;
	};
	const plain: Ground = { container: 0, window: 0, type: 16 };
	let {
		label,
		value,
		least = 0,
		most = 400,
		unit = 'px',
		ground = plain,
		keepsUnits = false,
		onset,
		ontry,
		onfocus,
		marked = false,
	}: Props = $props();
	const id = $props.id();
	let typed = $state<string | null>(null);
	let wrong = $state(false);
	let wanted = $state<Length | null>(null);
	let held: Length | null = null;
	const now = $derived(wanted ?? value);
	const shown = $derived(typed ?? (typeof now === 'number' ? String(Math.round(now * 100) / 100) : now));

	async function keep(next: Length): Promise<void> {
		wanted = next;
		await onset(next as never);
		// A later press may want more than what has just been kept.
		if (wanted === next) wanted = null;
	}

	function commit(): void {
		if (typed === null) return;
		const length = typedLength(typed, ground, keepsUnits);
		wrong = length === null || (typeof length === 'number' && (length < least || length > most));
		if (wrong || length === null) return;
		typed = null;
		if (length !== now) void keep(length);
	}

	function release(): void {
		if (held === null) return;
		const next = held;
		held = null;
		void keep(next);
	}

	function onkeydown(event: KeyboardEvent): void {
		const way = { ArrowUp: 1, ArrowDown: -1 }[event.key];
		if (way) {
			event.preventDefault();
			commit();
			typed = null;
			const next = stepped(now, way * stepOf(event), least, most);
			if (next === now) return;
			wanted = held = next;
			if (event.repeat) ontry?.(next as never);
		} else if (event.key === 'Enter') commit();
		else if (event.key === 'Escape') {
			typed = null;
			wrong = false;
		}
	}
</script>

<span class="inline-block">
	<input
		class={['value number', marked && 'marked']}
		role="spinbutton"
		aria-label="{label}, {unit}"
		aria-valuenow={inPx(now, ground)}
		aria-valuemin={least}
		aria-valuemax={most}
		aria-valuetext={typeof now === 'number' ? `${shown} ${unit}` : shown}
		aria-invalid={wrong}
		aria-describedby={wrong ? `${id}-allowed` : undefined}
		title={wrong ? `${label} must be from ${least} to ${most} ${unit}` : undefined}
		inputmode="decimal"
		autocomplete="off"
		spellcheck="false"
		style:width="{Math.max(2, shown.length) + 0.6}ch"
		value={shown}
		oninput={(event) => (typed = event.currentTarget.value)}
		onblur={() => {
			commit();
			release();
		}}
		{onkeydown}
		onkeyup={release}
		{onfocus}
	/>{#if wrong}<span id="{id}-allowed" role="alert" class="text-sm text-must"> {least} to {most}</span>{/if}
</span>
