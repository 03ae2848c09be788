<script lang="ts">
	import { stepOf, typedNumber, within } from '$lib/pure/number';

	type Props = {
		/** What the number is, for those who cannot see where it stands. */
		label: string;
		value: number;
		least?: number;
		most?: number;
		unit?: string;
		onset: (value: number) => void;
		onfocus?: () => void;
		/** Struck with the marker while it is the one being worked on. */
		marked?: boolean;
	};
	let { label, value, least = 0, most = 400, unit = 'px', onset, onfocus, marked = false }: Props = $props();
	let typed = $state<string | null>(null);
	let wrong = $state(false);
	const shown = $derived(typed ?? String(Math.round(value * 100) / 100));

	function commit(): void {
		if (typed === null) return;
		const number = typedNumber(typed);
		wrong = number === null || number < least || number > most;
		if (wrong || number === null) return;
		typed = null;
		if (number !== value) onset(within(number, least, most));
	}

	function onkeydown(event: KeyboardEvent): void {
		const way = { ArrowUp: 1, ArrowDown: -1 }[event.key];
		if (way) {
			event.preventDefault();
			commit();
			typed = null;
			const next = within(value + way * stepOf(event), least, most);
			if (next !== value) onset(next);
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
