<script lang="ts">
	import { many } from '$lib/pure/format';
	import type { Shadow, ShadowsPath } from '$lib/api/types';
	import { valueAt } from '$lib/pure/patch';
	import type { Desk } from '$lib/state/desk.svelte';
	import Colour from '$lib/ui/Colour.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Float from '$lib/ui/Float.svelte';

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
	const write = (next: readonly Shadow[]) => desk.set(path, { kind: 'cast', list: next });
	const change = (n: number, to: Partial<Shadow>) => write(list.map((one, m) => (m === n ? { ...one, ...to } : one)));
	const sizes = [
		['x_px', 'across', -400, 400],
		['y_px', 'down', -400, 400],
		['blur_px', 'blurred', 0, 400],
		['spread_px', 'spread', -400, 2000],
	] as const;
	const said = $derived(list.length ? many(list.length, 'shadow') : 'no shadow');
</script>

<Float label="{label}: {said}" wide onfocus={() => desk.mark(path)}>
	{#snippet trigger()}{said}{/snippet}
	<p class="mb-2 text-md font-semibold">{label}</p>
	{#each list as shadow, n (n)}
		<p class="border-t border-hair py-2 leading-loose">
			<button class="value" onclick={() => change(n, { inner: !shadow.inner })}
				>{shadow.inner ? 'inside' : 'outside'}</button
			>,
			{#each sizes as [key, says, least, most] (key)}
				<Figure
					label="shadow {n + 1} {says}"
					value={shadow[key]}
					{least}
					{most}
					onset={(to: number) => change(n, { [key]: to })}
				/>
				{says},
			{/each}
			<Colour
				label="Shadow {n + 1}"
				value={shadow.colour}
				{known}
				ramps={desk.kit?.ramps}
				onset={(colour) => change(n, { colour })}
			/> at
			<Figure
				label="shadow {n + 1} opacity"
				unit="%"
				value={Math.round(shadow.opacity * 100)}
				most={100}
				onset={(to: number) => change(n, { opacity: to / 100 })}
			/> %
			<button
				class="value ml-2"
				aria-label="Remove shadow {n + 1}"
				onclick={() => write(list.filter((_, m) => m !== n))}>remove</button
			>
		</p>
	{:else}
		<p class="text-soft">It lies flat on the page.</p>
	{/each}
	{#if list.length < 6}
		<p class="mt-2">
			<button class="value" onclick={() => write([...list, plain])}>one {list.length ? 'more ' : ''}shadow</button>
		</p>
	{/if}
</Float>
