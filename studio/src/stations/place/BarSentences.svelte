<script lang="ts">
	import type { Bar, Device, DrawView } from '$lib/api/types';
	import { DEVICES, LIMITS } from '$lib/pure/facts';
	import { yesOrNo } from '$lib/pure/picks';
	import { movedBy } from '$lib/pure/scroll';
	import type { Desk } from '$lib/state/desk.svelte';
	import Colour from '$lib/ui/Colour.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import ComesAndGoes from './ComesAndGoes.svelte';
	import SentencesHead from './SentencesHead.svelte';
	import WhoseProduct from './WhoseProduct.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Field from '$lib/ui/Field.svelte';

	const { context } = useWorkshop();

	type Props = { desk: Desk; view: DrawView; device: Device; onlayer: (layer: string) => void };
	let { desk, view, device, onlayer }: Props = $props();
	type Part = Bar['parts'][number];
	const bar = $derived(view.document.bar);
	const language = $derived(view.seen.language);
	const ALL: readonly Part[] = ['picture', 'heading', 'name', 'price', 'button'];
	/** Those that it holds, in their order, and then the others. */
	const row = $derived([...bar.parts, ...ALL.filter((part) => !bar.parts.includes(part))]);
	const known = $derived(
		[
			...new Set([bar.ground, bar.ink, ...view.states.flatMap((state) => [state.fill ?? '', state.words])]),
			view.around.page_colour,
		].filter((colour) => /^#[0-9a-f]{6}$/.test(colour)),
	);
	const without = (on: Device): readonly Part[] => bar[`${on}_without`];
	const holds = (part: Part, on: Device) => bar.parts.includes(part) && !without(on).includes(part);
	const yes = (path: string, value: boolean, words: readonly [string, string]) =>
		yesOrNo(value, words, (picked) => void desk.set(path, picked));

	/** Lets the bar hold a part on a device, or no longer. */
	function toggle(part: Part, on: Device): void {
		const isHeld = bar.parts.includes(part);
		const values: Record<string, unknown> = {};
		if (!isHeld) {
			const at = bar.parts.indexOf('button');
			values['bar.parts'] = [...bar.parts.slice(0, at), part, ...bar.parts.slice(at)];
			for (const other of DEVICES)
				if (other !== on && !without(other).includes(part)) values[`bar.${other}_without`] = [...without(other), part];
			if (without(on).includes(part)) values[`bar.${on}_without`] = without(on).filter((kept) => kept !== part);
		} else
			values[`bar.${on}_without`] = holds(part, on)
				? [...without(on), part]
				: without(on).filter((kept) => kept !== part);
		void desk.setAll(values);
	}
	const move = (part: Part, by: number) => void desk.set('bar.parts', movedBy(bar.parts, part, by));
</script>

<section aria-label="The bar">
	<SentencesHead {view} name="bar" {onlayer} />
	<WhoseProduct {desk} {view} />
	<p>
		Stands at the
		<Pick
			label="Edge"
			value={bar.edge}
			options={[
				{ value: 'bottom', label: 'lower edge' },
				{ value: 'top', label: 'upper edge, under the shop’s own header' },
			]}
			onpick={(edge) => desk.set('bar.edge', edge)}
		/>
		<ComesAndGoes {desk} root="bar" hanging={bar} says="comes" />, and slides in for
		<Figure
			label="Slides for"
			value={bar.slide_ms / 1000}
			most={LIMITS['bar.slide_ms'][1] / 1000}
			unit="s"
			onset={(value) => desk.set('bar.slide_ms', Math.round(Number(value) * 1000))}
		/> s.
	</p>
	<p>
		<ComesAndGoes {desk} root="bar" hanging={bar} says="goes" />. It
		<Pick
			label="Closing"
			value={bar.close_hours ? 'yes' : 'no'}
			options={[
				{ value: 'no', label: 'cannot be closed' },
				{ value: 'yes', label: 'can be closed' },
			]}
			onpick={(picked) => desk.set('bar.close_hours', picked === 'yes' ? 24 : 0)}
		/>{#if bar.close_hours}, and then stays away for
			<Figure
				label="Stays away"
				value={bar.close_hours}
				most={LIMITS['bar.close_hours'][1]}
				unit="h"
				onset={(value) => desk.set('bar.close_hours', value)}
			/> h{/if}.
	</p>
	<table>
		<caption class="sr-only">What the bar holds, in order, by device</caption>
		<thead>
			<tr>
				<th scope="col" class="font-normal text-soft">It holds</th>
				{#each row as part (part)}
					<th scope="col">
						{#if bar.parts.includes(part)}
							<button aria-label="Move {part} forward" onclick={() => move(part, -1)}>‹</button>{part}<button
								aria-label="Move {part} back"
								onclick={() => move(part, 1)}>›</button
							>
						{:else}<span class="text-soft">{part}</span>{/if}
					</th>
				{/each}
			</tr>
		</thead>
		<tbody>
			{#each DEVICES as on (on)}
				<tr class:now={on === device}>
					<th scope="row">{on}</th>
					{#each row as part (part)}
						<td>
							{#if part === 'button'}<span aria-label="always">|</span>{:else}
								<button aria-pressed={holds(part, on)} aria-label="{part} on a {on}" onclick={() => toggle(part, on)}
									>{holds(part, on) ? '|' : '·'}</button
								>
							{/if}
						</td>
					{/each}
				</tr>
			{/each}
		</tbody>
	</table>
	<p>
		{#if bar.parts.includes('heading')}
			Its heading in {language} is
			<Field
				mono
				label="Heading"
				value={bar.heading?.[language] ?? ''}
				usual="none yet"
				onset={(text) => desk.set(`bar.heading.${language}`, text || null)}
			/>.
		{/if}
		{#if bar.parts.includes('price')}
			Its price is <Pick label="Tax" {...yes('bar.taxed', bar.taxed, ['with tax', 'without tax'])} />.
		{/if}
		What it holds is
		<Pick
			label="Spread"
			value={bar.spread}
			options={[
				{ value: 'apart', label: 'spread apart' },
				{ value: 'together', label: 'set together' },
				{ value: 'middle', label: 'set in the middle' },
			]}
			onpick={(spread) => desk.set('bar.spread', spread)}
		/>, in <Colour label="Bar’s ink" value={bar.ink} {known} onset={(colour) => desk.set('bar.ink', colour)} /> on
		<Colour label="Bar’s ground" value={bar.ground} {known} onset={(colour) => desk.set('bar.ground', colour)} />,
		<Pick label="Shadow" {...yes('bar.shadow', bar.shadow, ['its shadow away from the edge', 'without a shadow'])} />.
		Its button is drawn in <a class="underline" href={context.href('/draw/sticky_bar')}>Draw</a>.
	</p>
</section>

<style>
	p {
		line-height: 1.85;
		font-size: 14.5px;
	}
	table {
		margin: 4px 0 6px;
		border-collapse: collapse;
	}
	th,
	td {
		padding: 1px 10px 1px 0;
		text-align: center;
		font-weight: 600;
		white-space: nowrap;
	}
	th[scope='row'],
	th:first-child {
		text-align: start;
		font-weight: 400;
	}
	tr.now th[scope='row'] {
		font-weight: 650;
	}
	td button,
	td span {
		display: inline-block;
		min-width: 40px;
		min-height: 24px;
		font-family: var(--font-mono);
		border-bottom: 1px solid var(--color-hair);
	}
	td button[aria-pressed='true'],
	td span {
		font-weight: 700;
		background: var(--color-leaf);
		border-color: var(--color-ink);
	}
	thead button {
		min-width: 20px;
		min-height: 24px;
		color: var(--color-soft);
	}
	thead button:hover {
		color: var(--color-ink);
	}
</style>
