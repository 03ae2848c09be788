<script lang="ts">
	import { many } from '$lib/pure/format';
	import type { TextShadow } from '$lib/api/types';
	import type { Desk } from '$lib/state/desk.svelte';
	import Colour from '$lib/ui/Colour.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Float from '$lib/ui/Float.svelte';

	type Props = { desk: Desk; known: readonly string[] };
	let { desk, known }: Props = $props();
	const path = 'look.text_shadows';
	const list = $derived<readonly TextShadow[]>(desk.view?.document.look.text_shadows.list ?? []);
	const plain: TextShadow = { x_px: 0, y_px: 1, blur_px: 0, colour: '#000000', opacity: 0.4 };
	const write = (next: readonly TextShadow[]) => desk.set(path, { kind: 'words', list: next });
	const change = (n: number, to: Partial<TextShadow>) =>
		write(list.map((one, m) => (m === n ? { ...one, ...to } : one)));
	const sizes = [
		['x_px', 'across', -100, 100],
		['y_px', 'down', -100, 100],
		['blur_px', 'blurred', 0, 200],
	] as const;
	const said = $derived(list.length ? many(list.length, 'shadow') : 'no shadow');
</script>

<Float label="Words’ shadows: {said}" wide onfocus={() => desk.mark(path)}>
	{#snippet trigger()}{said}{/snippet}
	<p class="mb-2 text-md font-semibold">Shadows of the words</p>
	{#each list as shadow, n (n)}
		<p class="border-t border-hair py-2 leading-loose">
			{#each sizes as [key, says, least, most] (key)}
				<Figure
					label="words’ shadow {n + 1} {says}"
					value={shadow[key]}
					{least}
					{most}
					onset={(to: number) => change(n, { [key]: to })}
				/>
				{says},
			{/each}
			<Colour
				label="Words’ shadow {n + 1}"
				value={shadow.colour}
				{known}
				ramps={desk.kit?.ramps}
				onset={(colour) => change(n, { colour })}
			/> at
			<Figure
				label="words’ shadow {n + 1} opacity"
				unit="%"
				value={Math.round(shadow.opacity * 100)}
				most={100}
				onset={(to: number) => change(n, { opacity: to / 100 })}
			/> %
			<button
				class="value ml-2"
				aria-label="Remove words’ shadow {n + 1}"
				onclick={() => write(list.filter((_, m) => m !== n))}>remove</button
			>
		</p>
	{:else}
		<p class="text-soft">They cast none.</p>
	{/each}
	{#if list.length < 6}
		<p class="mt-2">
			<button class="value" onclick={() => write([...list, plain])}>one {list.length ? 'more ' : ''}shadow</button>
		</p>
	{/if}
</Float>
