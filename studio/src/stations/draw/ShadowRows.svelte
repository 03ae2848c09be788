<script lang="ts" generics="S extends TextShadow">
	import { many } from '$lib/pure/format';
	import type { TextShadow } from '$lib/api/types';
	import type { Desk } from '$lib/state/desk.svelte';
	import Colour from '$lib/ui/Colour.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Float from '$lib/ui/Float.svelte';
	import type { Snippet } from 'svelte';

	type Change = (to: Partial<S>) => void;
	type Props = {
		label: string;
		title?: string;
		/** What one of them is called, for those who cannot see where it stands. */
		name: string;
		path: string;
		list: readonly S[];
		/** Its lengths: key, word, least and most, in px. */
		sizes: readonly (readonly [key: string & keyof S, says: string, least: number, most: number])[];
		/** What is said where there is none, and what a new one is. */
		none: string;
		plain: S;
		write: (list: readonly S[]) => unknown;
		desk: Desk;
		known: readonly string[];
		/** What stands before the lengths of one. */
		kind?: Snippet<[S, Change]>;
	};
	let { label, title = label, name, path, list, sizes, none, plain, write, desk, known, kind }: Props = $props();
	const summary = $derived(list.length ? many(list.length, 'shadow') : 'no shadow');
	const capital = $derived(name.charAt(0).toUpperCase() + name.slice(1));
	const change =
		(n: number): Change =>
		(to) =>
			void write(list.map((shadow, m) => (m === n ? { ...shadow, ...to } : shadow)));
</script>

<Float label="{label}: {summary}" wide onfocus={() => desk.mark(path)}>
	{#snippet trigger()}{summary}{/snippet}
	<p class="mb-2 text-md font-semibold">{title}</p>
	{#each list as shadow, n (n)}
		{@const set = change(n)}
		<p class="border-t border-hair py-2 leading-loose">
			{@render kind?.(shadow, set)}
			{#each sizes as [key, says, least, most] (key)}
				<Figure
					label="{name} {n + 1} {says}"
					value={shadow[key] as number}
					{least}
					{most}
					onset={(to: number) => set({ [key]: to } as Partial<S>)}
				/>
				{says},
			{/each}
			<Colour
				label="{capital} {n + 1}"
				value={shadow.colour}
				{known}
				ramps={desk.kit?.ramps}
				onset={(colour) => set({ colour } as Partial<S>)}
			/> at
			<Figure
				label="{name} {n + 1} opacity"
				unit="%"
				value={Math.round(shadow.opacity * 100)}
				most={100}
				onset={(to: number) => set({ opacity: to / 100 } as Partial<S>)}
			/> %
			<button
				class="value ml-2"
				aria-label="Remove {name} {n + 1}"
				onclick={() => write(list.filter((_, m) => m !== n))}>remove</button
			>
		</p>
	{:else}
		<p class="text-soft">{none}</p>
	{/each}
	{#if list.length < 6}
		<p class="mt-2">
			<button class="value" onclick={() => write([...list, plain])}>one {list.length ? 'more ' : ''}shadow</button>
		</p>
	{/if}
</Float>
