<script lang="ts">
	import type { Gradient } from '$lib/api/types';
	import { paintOf, placeOf, typedPlace, type Stop } from '$lib/pure/fill';
	import type { Desk } from '$lib/state/desk.svelte';
	import Colour from '$lib/ui/Colour.svelte';
	import type { Ramp } from '$lib/ui/ColourPanel.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Pick from '$lib/ui/Pick.svelte';

	type Props = {
		fill: Gradient;
		/** Where the gradient stands in the document. */
		path: string;
		desk: Desk;
		known: readonly string[];
		ramps: readonly Ramp[];
		/** The colour that a new stop has where there is no other. */
		base: string;
	};
	let { fill, path, desk, known, ramps, base }: Props = $props();
	const stops = $derived(fill.stops);
	const write = (next: readonly Stop[]) => desk.set(`${path}.stops`, next);
	const change = (n: number, to: Partial<Stop>) => write(stops.map((stop, m) => (m === n ? { ...stop, ...to } : stop)));
	function add(): void {
		const end = stops.at(-1) ?? { at: 100, colour: base };
		void write([...stops.slice(0, -1), { at: null, colour: end.colour }, end]);
	}
	let wrong = $state('');
	function place(n: number, text: string): void {
		const at = typedPlace(text);
		wrong =
			at === undefined
				? 'A stop stands at a percentage as 40%, at pixels as 12px, or evenly where nothing is said.'
				: '';
		if (at !== undefined) void change(n, { at });
	}
	const ways = [
		{ value: '', label: 'an angle' },
		{ value: 'top right', label: 'the corner above right' },
		{ value: 'bottom right', label: 'the corner below right' },
		{ value: 'bottom left', label: 'the corner below left' },
		{ value: 'top left', label: 'the corner above left' },
	];
	const extents = [
		{ value: 'farthest-corner', label: 'the farthest corner' },
		{ value: 'farthest-side', label: 'the farthest side' },
		{ value: 'closest-corner', label: 'the closest corner' },
		{ value: 'closest-side', label: 'the closest side' },
	];
</script>

<div class="strip" style:background={paintOf(fill)}></div>
<p class="my-3 leading-loose">
	{#if fill.kind === 'linear'}
		Toward <Pick
			label="Toward"
			value={fill.toward ?? ''}
			options={ways}
			onpick={(to) => desk.set(path, { ...fill, toward: to || null })}
		/>{#if !fill.toward}: <Figure
				label="direction"
				unit="degrees"
				value={fill.angle_deg}
				most={360}
				onset={(to: number) => desk.set(`${path}.angle_deg`, to)}
			/>°{/if},
	{:else}
		From <Figure
			label="centre across"
			unit="%"
			value={fill.x}
			most={100}
			onset={(to: number) => desk.set(`${path}.x`, to)}
		/> % across and <Figure
			label="centre down"
			unit="%"
			value={fill.y}
			most={100}
			onset={(to: number) => desk.set(`${path}.y`, to)}
		/> % down, as
		<Pick
			label="Shape"
			value={fill.shape}
			options={[
				{ value: 'ellipse', label: 'an ellipse' },
				{ value: 'circle', label: 'a circle' },
			]}
			onpick={(to) => desk.set(`${path}.shape`, to)}
		/> to
		<Pick label="How far" value={fill.extent} options={extents} onpick={(to) => desk.set(`${path}.extent`, to)} />,
	{/if}
	<Pick
		label="Once or again"
		value={String(fill.repeats)}
		options={[
			{ value: 'false', label: 'once' },
			{ value: 'true', label: 'again and again' },
		]}
		onpick={(to) => desk.set(`${path}.repeats`, to === 'true')}
	/>, mixed in
	<Pick
		label="Colours mixed in"
		value={fill.space}
		options={[
			{ value: 'oklch', label: 'OKLCH, even to the eye' },
			{ value: 'oklab', label: 'OKLab, without turns of hue' },
			{ value: 'srgb', label: 'sRGB, as older sites do' },
		]}
		onpick={(to) => desk.set(`${path}.space`, to)}
	/>.
</p>
<ul class="grid gap-2" aria-label="Stops">
	{#each stops as stop, n (n)}
		<li class="flex items-baseline gap-3">
			<input
				class="field figure w-20"
				aria-label="Place of stop {n + 1}"
				placeholder="evenly"
				value={placeOf(stop)}
				onchange={(event) => place(n, event.currentTarget.value)}
			/>
			<Colour
				label="Stop {n + 1}"
				value={stop.colour}
				{known}
				{ramps}
				seeThrough
				onset={(colour) => change(n, { colour })}
			/>
			{#if stops.length > 2}
				<button
					class="value ml-auto"
					aria-label="Remove stop {n + 1}"
					onclick={() => write(stops.filter((_, m) => m !== n))}
				>
					remove
				</button>
			{/if}
		</li>
	{/each}
</ul>
{#if wrong}<p role="alert" class="mt-1 text-sm text-must">{wrong}</p>{/if}
{#if stops.length < 8}<p class="mt-3"><button class="value" onclick={add}>one more stop</button></p>{/if}

<style>
	.strip {
		height: 24px;
		border: 1px solid var(--color-soft);
	}
</style>
