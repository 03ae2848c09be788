<script lang="ts">
	import type { Device, DrawView, Floating } from '$lib/api/types';
	import { DEVICES, LIMITS } from '$lib/pure/facts';
	import type { Desk } from '$lib/state/desk.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import Press from '$lib/ui/Press.svelte';
	import ComesAndGoes from './ComesAndGoes.svelte';
	import SentencesHead from './SentencesHead.svelte';
	import WhoseProduct from './WhoseProduct.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';

	const { context } = useWorkshop();

	type Props = {
		desk: Desk;
		view: DrawView;
		device: Device;
		onlayer: (layer: string) => void;
		/** Takes the floating button out of the draft. */
		onremove: () => void;
	};
	let { desk, view, device, onlayer, onremove }: Props = $props();
	const floating = $derived(view.document.floating);
	/** Where one reads from right to left, its corner is the other one. */
	const [end, start] = $derived(view.seen.rtl ? ['left', 'right'] : ['right', 'left']);
	const corners = $derived(
		(['bottom_end', 'bottom_start', 'top_end', 'top_start'] as const).map((corner) => ({
			value: corner,
			label: `${corner.startsWith('top') ? 'upper' : 'lower'} ${corner.endsWith('end') ? end : start} corner`,
		})),
	);
	const sides = [
		{ name: 'side_px', says: 'from the side' },
		{ name: 'edge_px', says: 'from the edge' },
	] as const;
	const inset = (on: Device): Floating['phone'] => floating[on];
</script>

<section aria-label="The floating button">
	<SentencesHead {view} name="floating button" {onlayer} />
	<WhoseProduct {desk} {view} />
	<p>
		Floats in the
		<Pick
			label="Corner"
			value={floating.corner}
			options={corners}
			onpick={(corner) => desk.set('floating.corner', corner)}
		/>
		<ComesAndGoes {desk} root="floating" hanging={floating} says="comes" />, and appears within
		<Figure
			label="Appears within"
			value={floating.appear_ms / 1000}
			most={LIMITS['floating.appear_ms'][1] / 1000}
			unit="s"
			onset={(value) => desk.set('floating.appear_ms', Math.round(Number(value) * 1000))}
		/> s.
		<ComesAndGoes {desk} root="floating" hanging={floating} says="goes" />.
	</p>
	<table>
		<caption class="sr-only">How far from the window’s side and edge, by device</caption>
		<tbody>
			{#each DEVICES as on (on)}
				<tr class:now={on === device}>
					<th scope="row">on a {on}</th>
					{#each sides as { name, says } (name)}
						<td>
							<Figure
								label="{says}, on a {on}"
								value={inset(on)[name]}
								most={400}
								onset={(value) => desk.set(`floating.${on}.${name}`, value)}
								ontry={(value) => desk.tryOut({ [`floating.${on}.${name}`]: value })}
							/> px {says}
						</td>
					{/each}
				</tr>
			{/each}
		</tbody>
	</table>
	<p>
		Its button is drawn in <a class="underline" href={context.href('/draw/floating')}>Draw</a>.
		<Press small onpress={onremove}>Take the floating button away</Press>
	</p>
</section>

<style>
	p {
		line-height: 1.85;
		font-size: 14.5px;
	}
	table {
		margin: 2px 0 6px;
	}
	th,
	td {
		padding: 1px 18px 1px 0;
		text-align: start;
		font-weight: 400;
		white-space: nowrap;
	}
	tr.now th {
		font-weight: 650;
	}
</style>
