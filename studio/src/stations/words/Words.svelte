<script lang="ts">
	import { untrack } from 'svelte';
	import { SvelteMap } from 'svelte/reactivity';
	import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
	import type { Moment, Placement, WordCell, WordRow } from '$lib/api/types';
	import { capital, px, said } from '$lib/pure/format';
	import { patchAt } from '$lib/pure/patch';
	import { addActions } from '$lib/state/actions.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Empty from '$lib/ui/Empty.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import Press from '$lib/ui/Press.svelte';
	import TrueButton from '$lib/ui/TrueButton.svelte';
	import VirtualRows from '$lib/ui/VirtualRows.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';
	import Languages from './Languages.svelte';
	import TakeTexts from './TakeTexts.svelte';
	import TextCell from './TextCell.svelte';
	import TokenField from '../../shared/exceptions/TokenField.svelte';
	import Why from '../../shared/exceptions/Why.svelte';

	const workshop = useWorkshop();
	const { context } = workshop;
	const language = $derived(workshop.shownLanguage);
	const words = createQuery(() => ({ ...workshop.ask.words(language), placeholderData: keepPreviousData }));
	const spoken = $derived(words.data?.spoken ?? []);
	const others = $derived(spoken.filter((other) => other.language !== language));
	const name = $derived(spoken.find((entry) => entry.language === language)?.name ?? language);

	let at = $state<{ moment: Moment; exception: string; placement: Placement }>({
		moment: context.moment || 'ready',
		exception: '',
		placement: context.placement || 'product_page',
	});
	let typed = $state<string | null>(null);
	let inCell = $state(false);
	/** Texts that were refused, by where they were to stand: they are there again when one comes back. */
	const unkept = new SvelteMap<string, string>();
	const keyOf = ({ moment, exception, placement }: typeof at) => [moment, exception, placement, language].join(' ');
	const row = $derived(words.data?.rows.find((r) => r.moment === at.moment && r.exception === at.exception));
	const cell = $derived(row?.cells.find((c) => c.placement === at.placement) ?? row?.cells[0]);
	const field = $derived(`wording.${at.moment}.${language}`);
	const rtl = $derived(words.data?.rtl ?? false);
	const asked = $derived({
		placement: cell?.placement ?? at.placement,
		field,
		language,
		exception: at.exception || undefined,
		device: cell?.device,
	});
	const why = createQuery(() => ({ ...workshop.ask.trace(asked), placeholderData: keepPreviousData }));

	function goTo(to: typeof at): void {
		at = to;
		typed = unkept.get(keyOf(at)) ?? null;
		inCell = false;
	}
	function choose({ moment, exception }: WordRow, { placement }: WordCell): void {
		if (moment === at.moment && exception === at.exception && placement === at.placement) return;
		goTo({ moment, exception, placement });
		tellWhere();
	}
	function tellWhere(): void {
		context.look({ moment: at.moment, placement: at.placement }, { isPassing: true });
	}
	// A link, or the way back, may lead to another text of this station.
	$effect(() => {
		const { moment, placement } = context;
		// Only the address is followed: what is chosen here is told to it.
		untrack(() => {
			const to = { moment: moment || at.moment, placement: placement || at.placement };
			if (context.isMoving || (to.moment === at.moment && to.placement === at.placement)) return;
			goTo({ ...to, exception: '' });
		});
	});
	async function keep(): Promise<void> {
		if (typed === null || !cell || typed === cell.template) {
			inCell = false;
			return;
		}
		const [text, where, wasInCell] = [typed, at, inCell];
		inCell = false;
		// What has been typed meanwhile is not lost.
		if (await workshop.change(cell.layer, patchAt(field, text.trim() || null))) {
			unkept.delete(keyOf(where));
			if (typed === text) typed = null;
			return;
		}
		unkept.set(keyOf(where), text);
		// Nor is what was refused, wherever one has gone meanwhile; nobody has begun another text there.
		if (at === where || typed !== null) return;
		[at, typed, inCell] = [where, text, wasInCell];
		tellWhere();
	}
	function leave(): void {
		unkept.delete(keyOf(at));
		typed = null;
		inCell = false;
	}
	function differently(): void {
		if (!cell || !why.data) return;
		workshop.opened.newException = {
			placement: cell.placement,
			language,
			device: cell.device,
			product: why.data.product,
			moment: at.moment,
			text: cell.template,
			onmade: (id) => (at = { ...at, exception: id }),
		};
	}
	async function removeException(): Promise<void> {
		if (await workshop.removeException(at.exception)) at = { ...at, exception: '' };
	}
	addActions('In Words', [
		{ title: 'Why the chosen text is what it is', keys: ['w'], run: () => (workshop.opened.trace = { ...asked }) },
		{ title: 'New exception for the chosen text', run: differently, when: () => Boolean(cell && why.data) },
	]);
</script>

{#snippet textsOf(one: WordRow)}
	<th title={one.reach_words || undefined}>
		{#if one.exception}<span class="flex gap-1"
				><span class="text-soft">↳</span>
				<button class="text-left font-semibold" onclick={() => (workshop.opened.exception = one.exception)}
					>{one.exception_name}</button
				></span
			>{:else}{capital(said(one.moment))}{/if}
	</th>
	{#each Object.keys(words.data?.rooms ?? {}) as place (place)}
		{@const of = one.cells.find((c) => c.placement === place)}
		<td>
			{#if of}
				<TextCell
					{of}
					{rtl}
					chosen={of === cell && one === row}
					name="{said(one.moment)}, {said(of.placement)}{one.exception_name ? `, ${one.exception_name}` : ''}"
					typed={of === cell && one === row && inCell ? (typed ?? of.template) : null}
					onchoose={() => choose(one, of)}
					onedit={() => {
						choose(one, of);
						inCell = true;
					}}
					ontype={(text) => (typed = text)}
					onkeep={keep}
					onleave={leave}
				/>
			{:else}
				<span class="block px-2 pt-2 text-soft">as above</span>
			{/if}
		</td>
	{/each}
{/snippet}

{#if words.data}
	<div class="words">
		<section class="px-6 pt-4 pb-6" aria-label="Sheet of texts">
			<div class="tools"><Languages /> <TakeTexts {language} {name} /></div>
			<h1 class="text-md font-normal">
				What every button says, in
				<Pick
					label="Language"
					value={language}
					options={workshop.languageOptions}
					onpick={(to) => {
						context.look({ language: to });
						leave();
					}}
				/>
				<span class="text-soft">
					{#each others as other (other.language)}
						<span class="me-1 inline-block whitespace-nowrap">
							· {other.name}
							<span class={['figure', other.texts < other.of && 'text-look']}>
								{other.texts === other.of ? other.of : `${other.texts} of ${other.of}`}
							</span>
						</span>
					{/each}
				</span>
			</h1>
			<p class="mb-2 text-soft">As the longest product of each reach fills it, in the narrowest container.</p>
			<table class="texts" aria-rowcount={words.data.rows.length + 1}>
				<thead>
					<tr>
						<th><span class="sr-only">Moment</span></th>
						{#each Object.entries(words.data.rooms) as [place, room] (place)}
							<th>{capital(said(place))} <span class="figure text-soft">{px(room)}</span></th>
						{/each}
					</tr>
				</thead>
				<tbody>
					<VirtualRows
						items={words.data.rows}
						key={(words) => `${words.moment}/${words.exception}`}
						tag="tr"
						about={64}
						rowClass={(words) => (words.exception ? 'narrowed' : undefined)}
						keep={(words) => words === row}
						row={textsOf}
						rowsBefore={1}
					/>
				</tbody>
			</table>
		</section>

		<aside class="border-l border-hair px-5 pt-4 pb-6" aria-label="The chosen text">
			{#if cell && row}
				<p class="mb-2 text-soft">
					{said(row.moment)} · {said(cell.placement)}{row.exception_name ? ` · ${row.exception_name}` : ''} · {name}
				</p>
				{#if cell.stands_in}
					<p class="mb-2 text-look">◇ {name} has no text here: {spoken[0]?.name} stands in.</p>
				{/if}
				<TokenField
					label="Text"
					value={typed ?? cell.template}
					{rtl}
					onchange={(text) => (typed = text)}
					onkeep={keep}
					onleave={leave}
				/>
				<p class="mt-2 text-soft">
					Type &lbrace; for a live value: price, name, count… Emptied, it says again what the wider rule says.
				</p>

				<h2 class="mt-4 text-base">As shoppers read it</h2>
				<ul class="divide-y divide-hair">
					{#each why.data?.filled ?? [] as filled (filled.product.sku)}
						<li class="flex items-center gap-3 py-2">
							<span class="reading"><TrueButton {...filled.shown} room={190} /></span>
							<span class="min-w-0 flex-1 text-soft">{filled.product.name}</span>
							<span class={['figure whitespace-nowrap', filled.width_px > filled.room_px && 'text-must']}
								>{px(filled.width_px)} of {px(filled.room_px)}</span
							>
						</li>
					{:else}
						<Empty tag="li">No product of the catalogue comes here now.</Empty>
					{/each}
				</ul>

				<h2 class="mt-4 text-base">Why these words</h2>
				{#if why.data}<Why
						lines={why.data.lines}
						onjump={(to) => {
							const [kind, place] = to.split(':');
							if (kind === 'place') {
								at = { ...at, exception: '', placement: place as Placement };
								tellWhere();
							} else context.go(`/draw/${asked.placement}`, { layer: to });
						}}
					/>{/if}
				<p class="mt-4 flex flex-wrap gap-2">
					<Press onpress={differently}>New exception…</Press>
					{#if at.exception}
						<Press onpress={removeException}>Remove this exception</Press>
					{:else if cell.from_layer === cell.layer}
						<Press onpress={() => workshop.change(cell.layer, patchAt(field, null))}>Reset to the wider rule</Press>
					{/if}
				</p>
			{/if}
		</aside>
	</div>
{:else}
	<Waiting what="Loading the words" error={words.error} onretry={() => words.refetch()} />
{/if}

<style>
	.words {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 400px;
		min-height: calc(100vh - 67px);
	}
	.tools {
		float: right;
		display: inline-flex;
		gap: 6px;
	}
	.texts {
		width: 100%;
		border-collapse: collapse;
		table-layout: fixed;
	}
	.texts th {
		padding: 6px 8px 6px 0;
		text-align: left;
		vertical-align: top;
		font-weight: 650;
	}
	.texts thead th:first-child {
		width: 116px;
	}
	.texts tbody th {
		padding-top: 10px;
		font-size: 15px;
	}
	.texts td {
		padding: 2px 0;
		vertical-align: top;
	}
	.texts :global(tbody tr) {
		border-top: 1px solid var(--color-hair);
	}
	.texts :global(.narrowed) {
		border-top-style: dashed;
	}
	:global(.texts .narrowed) th {
		border-left: 1px solid var(--color-soft);
		padding-left: 8px;
		font-size: 13px;
	}
	.reading {
		zoom: 0.7;
	}
	@media (max-width: 1000px) {
		.words {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
