<script lang="ts">
	import { stepOf, typedNumber, within } from '$lib/pure/number';

	type Props = {
		/** What the number is, for those who cannot see where it stands. */
		label: string;
		value: number;
		least?: number;
		most?: number;
		unit?: string;
		/** Keeps the number; while it does, the number is shown as if it were kept. */
		onset: (value: number) => unknown;
		onfocus?: () => void;
		/** Struck with the marker while it is the one being worked on. */
		marked?: boolean;
	};
	let { label, value, least = 0, most = 400, unit = 'px', onset, onfocus, marked = false }: Props = $props();
	let typed = $state<string | null>(null);
	let wrong = $state(false);
	let wanted = $state<number | null>(null);
	const now = $derived(wanted ?? value);
	const shown = $derived(typed ?? String(Math.round(now * 100) / 100));

	async function keep(next: number): Promise<void> {
		if (next === now) return;
		wanted = next;
		await onset(next);
		// A later press may want more than what has just been kept.
		if (wanted === next) wanted = null;
	}

	function commit(): void {
		if (typed === null) return;
		const number = typedNumber(typed);
		wrong = number === null || number < least || number > most;
		if (wrong || number === null) return;
		typed = null;
		void keep(within(number, least, most));
	}

	function onkeydown(event: KeyboardEvent): void {
		const way = { ArrowUp: 1, ArrowDown: -1 }[event.key];
		if (way) {
			event.preventDefault();
			commit();
			typed = null;
			void keep(within(now + way * stepOf(event), least, most));
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
		aria-label="{label}, {unit}"
		aria-invalid={wrong}
		title={wrong ? `${label} must be from ${least} to ${most} ${unit}` : undefined}
		inputmode="decimal"
		autocomplete="off"
		style:width="{Math.max(2, shown.length) + 0.6}ch"
		value={shown}
		oninput={(event) => (typed = event.currentTarget.value)}
		onblur={commit}
		{onkeydown}
		{onfocus}
	/>{#if wrong}<span role="alert" class="text-sm text-must"> {least} to {most}</span>{/if}
</span>
