<script lang="ts">
	type Props = {
		label: string;
		value: string;
		onset: (value: string) => void;
		/** What stands there while it is empty. */
		empty?: string;
		secret?: boolean;
	};
	let { label, value, onset, empty = '', secret = false }: Props = $props();
	const wide = $derived(Math.max(3, (value || empty).length));
</script>

<!-- A text in a sentence: as wide as what it holds. -->
<input
	class="value figure"
	type={secret ? 'password' : 'text'}
	autocomplete="off"
	spellcheck="false"
	aria-label={label}
	placeholder={empty}
	{value}
	style:width="min(100%, {wide}ch + 5px)"
	onchange={(event) => onset(event.currentTarget.value.trim())}
/>
