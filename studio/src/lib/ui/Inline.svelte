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
	const wide = $derived(Math.max(4, (value || empty).length + 1));
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
	style:width="{wide}ch"
	onchange={(event) => onset(event.currentTarget.value.trim())}
/>
