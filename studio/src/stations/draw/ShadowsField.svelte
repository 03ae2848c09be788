<script lang="ts">
	import type { Shadow, ShadowsPath } from '$lib/api/types';
	import { valueAt } from '$lib/pure/patch';
	import type { Desk } from '$lib/state/desk.svelte';
	import ShadowRows from './ShadowRows.svelte';

	type Props = {
		label: string;
		/** `look.shadows`, or those of a state. */
		path: ShadowsPath;
		desk: Desk;
		known: readonly string[];
	};
	let { label, path, desk, known }: Props = $props();
	const own = $derived(valueAt(desk.view?.document, path));
	const list = $derived<readonly Shadow[]>(
		own?.kind === 'cast' ? own.list : (desk.view?.document.look.shadows.list ?? []),
	);
	const plain: Shadow = { x_px: 0, y_px: 2, blur_px: 6, spread_px: 0, colour: '#000000', opacity: 0.2, inner: false };
</script>

<ShadowRows
	{label}
	name="shadow"
	{path}
	{list}
	sizes={[
		['x_px', 'across', -400, 400],
		['y_px', 'down', -400, 400],
		['blur_px', 'blurred', 0, 400],
		['spread_px', 'spread', -400, 2000],
	]}
	none="It lies flat on the page."
	{plain}
	write={(next) => desk.set(path, { kind: 'cast', list: next })}
	{desk}
	{known}
>
	{#snippet kind(shadow, set)}
		<button class="value" onclick={() => set({ inner: !shadow.inner })}>{shadow.inner ? 'inside' : 'outside'}</button>,
	{/snippet}
</ShadowRows>
