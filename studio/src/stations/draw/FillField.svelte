<script lang="ts">
	import type { FillPath, Gradient, StateFill } from '$lib/api/types';
	import { layersOf, leadColour, paintOf, stopsOf } from '$lib/pure/fill';
	import { many } from '$lib/pure/format';
	import { valueAt } from '$lib/pure/patch';
	import type { Desk } from '$lib/state/desk.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Chip from '$lib/ui/Chip.svelte';
	import Colour from '$lib/ui/Colour.svelte';
	import ColourPanel from '$lib/ui/ColourPanel.svelte';
	import Float from '$lib/ui/Float.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import GradientField from './GradientField.svelte';
	import PictureField from './PictureField.svelte';

	type Props = {
		label: string;
		/** `look.fill`, or that of a state. */
		path: FillPath;
		desk: Desk;
		known: readonly string[];
		/** The colour that the rule gives; a state has one. */
		ruled?: string | null;
	};
	let { label, path, desk, known, ruled }: Props = $props();
	const workshop = useWorkshop();
	const isState = $derived(path !== 'look.fill');
	const fill = $derived<StateFill>(valueAt(desk.view?.document, path) ?? { kind: 'rule' });
	const rest = $derived<StateFill>(valueAt(desk.view?.document, 'look.fill') ?? { kind: 'none' });
	const ramps = $derived(desk.kit?.ramps ?? []);
	const base = $derived(leadColour(fill) ?? ruled ?? leadColour(rest) ?? '#3a2a12');
	const kinds = $derived([
		...(isState ? [{ value: 'rule', label: 'by rule' }] : []),
		{ value: 'solid', label: 'one colour' },
		{ value: 'linear', label: 'a linear gradient' },
		{ value: 'radial', label: 'a radial gradient' },
		{ value: 'layers', label: 'gradients over a colour' },
		{ value: 'picture', label: 'a picture' },
		{ value: 'none', label: 'nothing' },
	]);
	const preview = $derived(fill.kind === 'rule' ? (ruled ?? 'none') : paintOf(fill));
	const summary = $derived(
		{
			solid: leadColour(fill) ?? '',
			linear: 'linear gradient',
			radial: 'radial gradient',
			layers: many(layersOf(fill).length, 'layer'),
			picture: 'picture',
			none: 'nothing',
			rule: 'by rule',
		}[fill.kind] ?? fill.kind,
	);

	/** Lighter above, nothing below. */
	const sheen: Gradient = {
		kind: 'linear',
		angle_deg: 180,
		space: 'srgb',
		repeats: false,
		stops: [
			{ at: 0, colour: '#ffffff40' },
			{ at: 100, colour: '#ffffff00' },
		],
	};
	function become(kind: string): void {
		// A gradient into its own colour could not be seen.
		const dark = [7, 5].map((n) => ramps[0]?.shades[n]?.colour ?? '#1b1b1b').find((colour) => colour !== base);
		const plain = [
			{ at: 0, colour: base },
			{ at: 100, colour: dark ?? '#1b1b1b' },
		];
		const stops = stopsOf(fill).length ? stopsOf(fill) : plain;
		const fills: Record<string, unknown> = {
			solid: { kind, colour: base },
			linear: { kind, angle_deg: 90, space: 'oklch', stops },
			radial: { kind, x: 50, y: 50, space: 'oklch', stops },
			layers: { kind, list: layersOf(fill).length ? layersOf(fill) : [sheen], ground: base },
			picture: { kind, picture: desk.kit?.pictures[0]?.hash, x: 50, y: 50, scrim: { colour: '#000000', opacity: 0.4 } },
			none: { kind },
			rule: isState && desk.isOwn(path) ? null : { kind },
		};
		// A picture has to be there first; the field below takes one.
		if (kind === 'picture' && !desk.kit?.pictures.length) wantsPicture = true;
		else void desk.set(path, fills[kind]);
	}
	let wantsPicture = $state(false);
	let open = $state(false);
	let layer = $state(0);
	/** Lays a sheen over what is there. */
	function over(): void {
		layer = 0;
		const ground = fill.kind === 'layers' ? fill.ground : null;
		void desk.set(path, { kind: 'layers', list: [sheen, ...layersOf(fill)], ...(ground ? { ground } : {}) });
	}
	function without(n: number): void {
		if (fill.kind !== 'layers') return;
		const list = fill.list.filter((_, m) => m !== n);
		layer = 0;
		if (list.length) void desk.set(path, { ...fill, list });
		else void desk.set(path, fill.ground ? { kind: 'solid', colour: fill.ground } : { kind: 'none' });
	}
</script>

<Float label="{label}: {summary}" bind:open wide onfocus={() => desk.mark(path)}>
	{#snippet trigger()}
		<Chip of={preview} /><span class="font-mono font-medium">{summary}</span>
	{/snippet}
	<p class="mb-3 text-md font-semibold">
		{label}: <Pick label="Kind of fill" value={wantsPicture ? 'picture' : fill.kind} options={kinds} onpick={become} />
	</p>
	{#if fill.kind === 'solid' && !wantsPicture}
		<ColourPanel
			{label}
			value={fill.colour}
			{known}
			{ramps}
			seeThrough
			onset={(to) => desk.set(`${path}.colour`, to)}
			onrule={isState ? () => become('rule') : undefined}
			ondone={() => (open = false)}
		/>
	{:else if (fill.kind === 'linear' || fill.kind === 'radial') && !wantsPicture}
		<GradientField {fill} {path} {desk} {known} {ramps} {base} />
		<p class="mt-3"><button class="value" onclick={over}>lay another gradient over it</button></p>
	{:else if fill.kind === 'layers' && !wantsPicture}
		<div class="strip" style:background={preview}></div>
		<ol class="mt-3 grid gap-1" aria-label="Layers, the uppermost first">
			{#each fill.list as fillLayer, n (n)}
				<li class="flex items-baseline gap-3">
					<button class="value" aria-pressed={layer === n} onclick={() => (layer = n)}
						><Chip of={paintOf(fillLayer)} />{layer === n ? '▸ ' : ''}{fillLayer.kind} gradient</button
					>
					<button class="value ml-auto" aria-label="Remove layer {n + 1}" onclick={() => without(n)}>remove</button>
				</li>
			{/each}
			<li>
				over <Colour
					label="Colour under the gradients"
					value={fill.ground ?? '#ffffff00'}
					{known}
					{ramps}
					seeThrough
					onset={(to) => desk.set(`${path}.ground`, to)}
				/>
			</li>
		</ol>
		{@const chosen = fill.list[Math.min(layer, fill.list.length - 1)]}
		{#if chosen}
			<div class="mt-3 border-t border-hair pt-3">
				<GradientField
					fill={chosen}
					path={`${path}.list.${Math.min(layer, fill.list.length - 1)}`}
					{desk}
					{known}
					{ramps}
					{base}
				/>
			</div>
		{/if}
		{#if fill.list.length < 6}
			<p class="mt-3"><button class="value" onclick={over}>one more layer over it</button></p>
		{/if}
	{:else if fill.kind === 'picture' || wantsPicture}
		<PictureField {path} {desk} {known} store={workshop.store} ontaken={() => (wantsPicture = false)} />
	{:else if fill.kind === 'rule'}
		<p class="text-soft">
			Derived from rest: the fill moves away from the words in lightness, so that they stay readable.
		</p>
	{:else}
		<p class="text-soft">The page shows through; words and border carry the button.</p>
	{/if}
</Float>

<style>
	.strip {
		height: 24px;
		border: 1px solid var(--color-soft);
	}
</style>
