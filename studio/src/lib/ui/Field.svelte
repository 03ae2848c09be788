<script lang="ts">
	type Props = {
		/** What the text is, for those who cannot see where it stands. */
		label: string;
		value: string;
		/** What holds while nothing is there. */
		usual?: string;
		most?: number;
		secret?: boolean;
		/** An address or a code, in letters of one width. */
		mono?: boolean;
		onfocus?: () => void;
		/** Called with what was typed, without spaces around it, when that is another text than before. */
		onset: (text: string) => void;
	};
	let { label, value, usual = '', most = 2000, secret = false, mono = false, onfocus, onset }: Props = $props();
	let typed = $state<string | null>(null);
	const shown = $derived(typed ?? value);

	function commit(): void {
		const text = typed?.trim();
		typed = null;
		if (text !== undefined && text !== value) onset(text);
	}
</script>

<!-- A text in a sentence: as wide as what it holds. -->
<input
	class={['value', mono && 'figure']}
	type={secret ? 'password' : 'text'}
	autocomplete="off"
	spellcheck={!mono}
	aria-label={label}
	placeholder={usual}
	maxlength={most}
	style:width="min(100%, {Math.min(mono ? 200 : 28, Math.max(mono ? 3 : 6, (shown || usual).length + 1))}ch)"
	value={shown}
	oninput={(event) => (typed = event.currentTarget.value)}
	onkeydown={(event) => {
		if (event.key === 'Enter') commit();
		else if (event.key === 'Escape') typed = null;
	}}
	onblur={commit}
	{onfocus}
/>
