<script lang="ts">
	import type { Border, BorderPath, LineBorder, SideLine } from '$lib/api/types';
	import { valueAt } from '$lib/pure/patch';
	import type { Desk } from '$lib/state/desk.svelte';
	import Colour from '$lib/ui/Colour.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Float from '$lib/ui/Float.svelte';
	import Pick from '$lib/ui/Pick.svelte';

	type Side = 'top' | 'right' | 'bottom' | 'left';
	const SIDES: readonly (readonly [Side, string])[] = [
		['top', 'above'],
		['right', 'at the end'],
		['bottom', 'below'],
		['left', 'at the start'],
	];
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
	const summary = $derived(
		border.kind === 'line'
			? `a border of ${border.width_px} px`
			: border.kind === 'sides'
				? `a border of ${SIDES.map(([side]) => border[side].width_px).join(' ')} px`
				: 'no border',
	);
	const change = (to: Partial<LineBorder>) =>
		void desk.set(path, {
			width_px: 1,
			style: 'solid',
			...(border.kind === 'line' ? border : {}),
			...to,
			kind: 'line',
		});
	const changeSide = (side: Side, to: Partial<SideLine>) => {
		if (border.kind === 'sides') void desk.set(path, { ...border, [side]: { ...border[side], ...to } });
	};
	/** Gives every side what all of them had. */
	function bySides(): void {
		if (border.kind !== 'line') return;
		const { width_px, style, colour } = border;
		const line = { width_px, style, ...(colour ? { colour } : {}) };
		void desk.set(path, { kind: 'sides', top: line, right: line, bottom: line, left: line });
	}
	/** Gives all sides what the thickest has. */
	function alike(): void {
		if (border.kind !== 'sides') return;
		const lines = SIDES.map(([side]) => border[side]);
		const { width_px, style, colour } = lines.reduce((a, b) => (b.width_px > a.width_px ? b : a));
		if (width_px > 0) change({ width_px, style, colour });
		else void desk.set(path, { kind: 'none' });
	}
	const styles = (['solid', 'dashed', 'dotted', 'double'] as const).map((style) => ({ value: style, label: style }));
</script>

<Float label="{label}: {summary}" wide={border.kind === 'sides'} onfocus={() => desk.mark(path)}>
	{#snippet trigger()}{summary}{/snippet}
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
				seeThrough
				onset={(colour) => change({ colour })}
				onrule={() => change({ colour: null })}
			/>
		</p>
		{#if isState}<p class="text-sm text-soft">
				Its width stays that of rest: a button that grows would move the page.
			</p>{/if}
		<p class="mt-2 flex gap-4">
			<button class="value" onclick={() => desk.set(path, { kind: 'none' })}>no border</button>
			<button class="value" onclick={bySides}>each side by itself</button>
		</p>
	{:else if border.kind === 'sides'}
		<ul class="leading-loose">
			{#each SIDES as [side, says] (side)}
				{@const line = border[side]}
				<li>
					<span class="inline-block w-24">{says}</span>
					{#if !isState}<Figure
							label="border {says}"
							value={line.width_px}
							most={24}
							onset={(width_px: number) => changeSide(side, { width_px })}
						/> px,{/if}
					<Pick
						label="Style {says}"
						value={line.style}
						options={styles}
						onpick={(style) => changeSide(side, { style })}
					/>,
					<Colour
						label="Border {says}"
						value={line.colour}
						ruled={line.colour ?? '#000000'}
						{known}
						ramps={desk.kit?.ramps}
						seeThrough
						onset={(colour) => changeSide(side, { colour })}
						onrule={() => changeSide(side, { colour: null })}
					/>
				</li>
			{/each}
		</ul>
		{#if isState}<p class="text-sm text-soft">
				Its widths stay those of rest: a button that grows would move the page.
			</p>{/if}
		<p class="mt-2 flex gap-4">
			<button class="value" onclick={() => desk.set(path, { kind: 'none' })}>no border</button>
			<button class="value" onclick={alike}>all sides alike</button>
		</p>
	{:else}
		<p><button class="value" onclick={() => change({})}>a border of 1 px</button></p>
	{/if}
</Float>
