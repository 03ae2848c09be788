<script lang="ts">
	import type { TextShadow } from '$lib/api/types';
	import type { Desk } from '$lib/state/desk.svelte';
	import ShadowRows from './ShadowRows.svelte';

	type Props = { desk: Desk; known: readonly string[] };
	let { desk, known }: Props = $props();
	const path = 'look.text_shadows';
	const plain: TextShadow = { x_px: 0, y_px: 1, blur_px: 0, colour: '#000000', opacity: 0.4 };
</script>

<ShadowRows
	label="Words’ shadows"
	title="Shadows of the words"
	name="words’ shadow"
	{path}
	list={desk.view?.document.look.text_shadows.list ?? []}
	sizes={[
		['x_px', 'across', -100, 100],
		['y_px', 'down', -100, 100],
		['blur_px', 'blurred', 0, 200],
	]}
	none="They cast none."
	{plain}
	write={(list) => desk.set(path, { kind: 'words', list })}
	{desk}
	{known}
/>
