<script lang="ts">
	type Props = {
		/** What the text is, to screen readers. */
		label: string;
		value: string;
		/** What holds while nothing is said. */
		usual?: string;
		most?: number;
		onfocus?: () => void;
		/** Called with what was typed, without spaces around it, when that is another text than before. */
		onset: (text: string) => void;
	};
	let { label, value, usual = '', most = 120, onfocus, onset }: Props = $props();
	let typed = $state<string | null>(null);
	const shown = $derived(typed ?? value);

	function commit(): void {
		if (typed !== null && typed.trim() !== value) onset(typed.trim());
		typed = null;
	}
</script>

<input
	class="value"
	aria-label={label}
	placeholder={usual}
	maxlength={most}
	style:width="{Math.min(28, Math.max(6, (shown || usual).length + 1))}ch"
	value={shown}
	oninput={(event) => (typed = event.currentTarget.value)}
	onkeydown={(event) => event.key === 'Enter' && commit()}
	onblur={commit}
	{onfocus}
/>
