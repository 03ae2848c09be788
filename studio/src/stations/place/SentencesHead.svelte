<script lang="ts">
	import type { DrawView } from '$lib/api/types';
	import Pick from '$lib/ui/Pick.svelte';

	/** Which layer the edits of a placement go to. */
	type Props = { view: DrawView; name: string; onlayer: (layer: string) => void };
	let { view, name, onlayer }: Props = $props();
</script>

<p class="text-soft">
	Edits go to
	<Pick
		label="Edits go to"
		value={view.editing.layer}
		options={view.editing.layers.map((layer) => ({ value: layer.layer, label: layer.title }))}
		onpick={onlayer}
	/>{#if !view.document.placement.shown}; for this product no {name} stands here{/if}.
</p>
