<script lang="ts">
	import { Copying } from '$lib/state/copying.svelte';
	import Press from './Press.svelte';

	type Props = {
		/** What is copied. */
		text: string;
		says?: string;
		main?: boolean;
		small?: boolean;
		disabled?: boolean;
		/** Called once it was copied. */
		oncopied?: () => void;
	};
	let { text, says = 'Copy', main, small, disabled, oncopied }: Props = $props();
	const copying = new Copying();
	async function copy(): Promise<void> {
		if (await copying.copy(text)) oncopied?.();
	}
</script>

<Press {main} {small} {disabled} onpress={copy}>{copying.copied === text && text ? 'Copied' : says}</Press>
{#if copying.wrong}<span role="alert" class="text-must">{copying.wrong}</span>{/if}
