<script lang="ts">
	import type { FillPath, StateFill } from '$lib/api/types';
	import { leadColour, paintOf, stopsOf, type Stop } from '$lib/pure/fill';
	import { valueAt } from '$lib/pure/patch';
	import type { Desk } from '$lib/state/desk.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Chip from '$lib/ui/Chip.svelte';
	import Colour from '$lib/ui/Colour.svelte';
	import ColourPanel from '$lib/ui/ColourPanel.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Float from '$lib/ui/Float.svelte';
	import Pick from '$lib/ui/Pick.svelte';
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
		{ value: 'picture', label: 'a picture' },
		{ value: 'none', label: 'nothing' },
	]);
	const preview = $derived(fill.kind === 'rule' ? (ruled ?? 'none') : paintOf(fill));
	const said = $derived(
		{
			solid: leadColour(fill) ?? '',
			linear: 'linear gradient',
			radial: 'radial gradient',
			picture: 'picture',
			none: 'nothing',
			rule: 'by rule',
		}[fill.kind] ?? fill.kind,
	);

	function become(kind: string): void {
		const plain = [
			{ at: 0, colour: base },
			{ at: 100, colour: ramps[0]?.shades[7]?.colour ?? '#1b1b1b' },
		];
		const stops = stopsOf(fill).length ? stopsOf(fill) : plain;
		const made: Record<string, unknown> = {
			solid: { kind, colour: base },
			linear: { kind, angle_deg: 90, space: 'oklch', stops },
			radial: { kind, x: 50, y: 50, space: 'oklch', stops },
			picture: { kind, picture: desk.kit?.pictures[0]?.hash, x: 50, y: 50, scrim: { colour: '#000000', opacity: 0.4 } },
			none: { kind },
			rule: isState && desk.isOwn(path) ? null : { kind },
		};
		// A picture has to be there first; the field below takes one.
		if (kind === 'picture' && !desk.kit?.pictures.length) wantsPicture = true;
		else void desk.set(path, made[kind]);
	}
	let wantsPicture = $state(false);
	let open = $state(false);
	const stops = $derived(stopsOf(fill));
	const write = (next: readonly Stop[]) => desk.set(`${path}.stops`, next);
	function add(): void {
		const last = stops.at(-2) ?? { at: 0 };
		const end = stops.at(-1) ?? { at: 100, colour: base };
		void write([...stops.slice(0, -1), { at: Math.round((last.at + end.at) / 2), colour: end.colour }, end]);
	}
</script>

<Float label="{label}: {said}" bind:open wide onfocus={() => desk.mark(path)}>
	{#snippet trigger()}
		<Chip of={preview} /><span class="font-mono font-medium">{said}</span>
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
			onset={(to) => desk.set(`${path}.colour`, to)}
			onrule={isState ? () => become('rule') : undefined}
			ondone={() => (open = false)}
		/>
	{:else if (fill.kind === 'linear' || fill.kind === 'radial') && !wantsPicture}
		<div class="strip" style:background={preview}></div>
		<p class="my-3">
			{#if fill.kind === 'linear'}
				Toward <Figure
					label="direction"
					unit="degrees"
					value={fill.angle_deg}
					most={360}
					onset={(to: number) => desk.set(`${path}.angle_deg`, to)}
				/>°,
			{:else}
				From <Figure
					label="centre across"
					unit="%"
					value={fill.x ?? 50}
					most={100}
					onset={(to: number) => desk.set(`${path}.x`, to)}
				/> % across and <Figure
					label="centre down"
					unit="%"
					value={fill.y ?? 50}
					most={100}
					onset={(to: number) => desk.set(`${path}.y`, to)}
				/> % down,
			{/if}
			mixed in
			<Pick
				label="Colours mixed in"
				value={fill.space ?? 'oklch'}
				options={[
					{ value: 'oklch', label: 'OKLCH, even to the eye' },
					{ value: 'srgb', label: 'sRGB, as older sites do' },
				]}
				onpick={(to) => desk.set(`${path}.space`, to)}
			/>.
		</p>
		<ul class="grid gap-2" aria-label="Stops">
			{#each stops as stop, n (n)}
				<li class="flex items-baseline gap-3">
					<Figure
						label="stop {n + 1}"
						unit="%"
						value={stop.at}
						least={stops[n - 1]?.at ?? 0}
						most={stops[n + 1]?.at ?? 100}
						onset={(to: number) => write(stops.map((one, m) => (m === n ? { ...one, at: to } : one)))}
					/>
					%
					<Colour
						label="Stop {n + 1}"
						value={stop.colour}
						{known}
						{ramps}
						onset={(to) => write(stops.map((one, m) => (m === n ? { ...one, colour: to } : one)))}
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
		{#if stops.length < 8}<p class="mt-3"><button class="value" onclick={add}>one more stop</button></p>{/if}
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
