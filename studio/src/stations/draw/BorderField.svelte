<script lang="ts">
	import type { Border, BorderPath, LineBorder } from '$lib/api/types';
	import { valueAt } from '$lib/pure/patch';
	import type { Desk } from '$lib/state/desk.svelte';
	import Colour from '$lib/ui/Colour.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Float from '$lib/ui/Float.svelte';
	import Pick from '$lib/ui/Pick.svelte';

	type Props = {
		label: string;
		/** `look.border`, or that of a state. */
		path: BorderPath;
		desk: Desk;
		known: readonly string[];
	};
	let { label, path, desk, known }: Props = $props();
	const own = $derived(valueAt(desk.view?.document, path));
	const rest = $derived<Border>(valueAt(desk.view?.document, 'look.border') ?? { kind: 'none' });
	const border = $derived<Border>(own && own.kind !== 'rule' ? own : rest);
	const isState = $derived(path !== 'look.border');
	const said = $derived(border.kind === 'line' ? `a border of ${border.width_px} px` : 'no border');
	const change = (to: Partial<LineBorder>) =>
		desk.set(path, { width_px: 1, style: 'solid', ...border, ...to, kind: 'line' });
	const styles = (['solid', 'dashed', 'dotted', 'double'] as const).map((style) => ({ value: style, label: style }));
</script>

<Float label="{label}: {said}" onfocus={() => desk.mark(path)}>
	{#snippet trigger()}{said}{/snippet}
	<p class="mb-2 text-md font-semibold">{label}</p>
	{#if border.kind === 'line'}
		<p class="leading-loose">
			{#if !isState}
				<Figure
					label="border width"
					value={border.width_px}
					least={0.5}
					most={24}
					onset={(width_px: number) => change({ width_px })}
				/> px,
			{/if}
			<Pick label="Style" value={border.style} options={styles} onpick={(style) => change({ style })} />,
			<Colour
				label="Border"
				value={border.colour}
				ruled={border.colour ?? '#000000'}
				{known}
				ramps={desk.kit?.ramps}
				onset={(colour) => change({ colour })}
				onrule={() => change({ colour: null })}
			/>
		</p>
		{#if isState}<p class="text-sm text-soft">
				Its width stays that of rest: a button that grows would move the page.
			</p>{/if}
		<p class="mt-2"><button class="value" onclick={() => desk.set(path, { kind: 'none' })}>no border</button></p>
	{:else}
		<p><button class="value" onclick={() => change({})}>a border of 1 px</button></p>
	{/if}
</Float>
