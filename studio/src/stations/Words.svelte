<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { client, data } from '$lib/api/client';
	import type { Moment, Placement, WordCell, WordRow } from '$lib/api/types';
	import { capital, px, said } from '$lib/pure/format';
	import { patchAt } from '$lib/pure/patch';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Press from '$lib/ui/Press.svelte';
	import TrueButton from '$lib/ui/TrueButton.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';
	import NewException from './parts/NewException.svelte';
	import Why from './parts/Why.svelte';

	const workshop = useWorkshop();
	const live = ['price', 'name', 'count'];
	const words = createQuery(() => ({
		queryKey: ['words', workshop.store],
		queryFn: () => data(client.GET('/api/stores/{store}/words', { params: { path: workshop.path } })),
	}));
	$effect(() => {
		if (words.data) workshop.sees(words.data.draft);
	});

	let at = $state<{ moment: Moment; exception: string; placement: Placement }>({
		moment: 'ready',
		exception: '',
		placement: 'product_page',
	});
	let making = $state(false);
	let typed = $state<string | null>(null);
	let editor = $state<HTMLInputElement>();
	const row = $derived(words.data?.rows.find((r) => r.moment === at.moment && r.exception === at.exception));
	const cell = $derived(row?.cells.find((c) => c.placement === at.placement) ?? row?.cells[0]);
	const layer = $derived(at.exception ? `exception:${at.exception}` : `place:${at.placement}`);
	const field = $derived(`wording.${at.moment}.${workshop.language}`);
	const why = createQuery(() => ({
		queryKey: ['trace', workshop.store, at, workshop.draft?.version],
		queryFn: () =>
			data(
				client.GET('/api/stores/{store}/trace', {
					params: {
						path: workshop.path,
						query: { placement: at.placement, field, exception: at.exception || undefined },
					},
				}),
			),
	}));

	function choose(one: WordRow, of: WordCell): void {
		at = { moment: one.moment, exception: one.exception, placement: of.placement };
		typed = null;
	}
	async function keep(): Promise<void> {
		if (typed === null || typed === cell?.template) return;
		const text = typed;
		// What has been typed meanwhile is not lost.
		if ((await workshop.change(layer, patchAt(field, text.trim() || null))) && typed === text) typed = null;
	}
	/** Whoever goes to a live value is still writing. */
	const inLive = (to: EventTarget | null) => to instanceof Element && to.closest('[data-live]') !== null;
	function insert(name: string): void {
		const text = typed ?? cell?.template ?? '';
		const from = editor?.selectionStart ?? text.length;
		typed = `${text.slice(0, from)}{${name}}${text.slice(editor?.selectionEnd ?? from)}`;
		editor?.focus();
	}
	async function removeException(): Promise<void> {
		const rule = at.exception;
		const done = await workshop.act((headers) =>
			data(
				client.DELETE('/api/stores/{store}/exceptions/{rule}', {
					params: { path: { ...workshop.path, rule } },
					headers,
				}),
			),
		);
		if (done) at = { ...at, exception: '' };
	}
</script>

{#if words.data}
	<div class="words">
		<section class="px-6 pt-4" aria-label="Sheet of texts">
			<h1 class="mb-3 text-md font-normal">
				What every button says, in <b>{words.data.language}</b>
				<span class="text-soft">· as the longest product of each reach fills it, in the narrowest container</span>
			</h1>
			<table class="texts">
				<thead>
					<tr>
						<th><span class="sr-only">Moment</span></th>
						{#each Object.entries(words.data.rooms) as [place, room] (place)}
							<th>{capital(said(place))} <span class="figure text-soft">{px(room)} px</span></th>
						{/each}
					</tr>
				</thead>
				<tbody>
					{#each words.data.rows as one (`${one.moment}/${one.exception}`)}
						<tr class:narrowed={one.exception}>
							<th>
								{#if one.exception}<span class="text-soft">↳</span> {one.exception_name}{:else}{capital(
										said(one.moment),
									)}{/if}
							</th>
							{#each Object.keys(words.data.rooms) as place (place)}
								{@const of = one.cells.find((c) => c.placement === place)}
								<td>
									{#if of}
										<button
											class="text"
											aria-pressed={of === cell}
											onclick={() => choose(one, of)}
											aria-label="{said(one.moment)}, {said(of.placement)}{one.exception_name
												? `, ${one.exception_name}`
												: ''}: {of.text}"
										>
											<span class="block text-md font-semibold">{of.text}</span>
											<span class="gauge" data-over={of.width_px > of.room_px}>
												<svg viewBox="0 0 120 10" width="120" height="10" aria-hidden="true">
													<path class="rail" d="M0 5H119M119 1v8" />
													<path class="taken" d="M0 5H{Math.min(119, (119 * of.width_px) / of.room_px)}" />
												</svg>
												<span class="figure">{px(of.width_px)}</span>
												{#if of.width_px > of.room_px}<b>▲ {px(of.width_px - of.room_px)} over</b>{/if}
											</span>
										</button>
									{:else}
										<span class="px-2 text-soft">as above</span>
									{/if}
								</td>
							{/each}
						</tr>
					{/each}
				</tbody>
			</table>
		</section>

		<aside class="border-l border-hair px-6 pt-4 pb-6" aria-label="The chosen text">
			{#if cell && row}
				<p class="mb-2 text-soft">
					{said(row.moment)} · {said(cell.placement)}{row.exception_name ? ` · ${row.exception_name}` : ''} · {workshop.language}
				</p>
				<form
					onsubmit={(event) => {
						event.preventDefault();
						void keep();
					}}
				>
					<input
						bind:this={editor}
						class="field w-full border-2 text-lg font-semibold"
						aria-label="Text"
						maxlength="200"
						value={typed ?? cell.template}
						oninput={(event) => (typed = event.currentTarget.value)}
						onkeydown={(event) => event.key === 'Escape' && (typed = null)}
						onblur={(event) => inLive(event.relatedTarget) || keep()}
					/>
				</form>
				<p class="mt-2 flex flex-wrap items-center gap-2 text-soft" data-live>
					Live values:
					{#each live as name (name)}
						<Press small onpress={() => insert(name)}>&lbrace;{name}&rbrace;</Press>
					{/each}
				</p>
				<p class="mt-1 text-soft">Emptied, it says again what the wider rule says.</p>

				<h2 class="mt-5 text-base">As shoppers read it</h2>
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
						<li class="py-2 text-soft">No product of the catalogue comes here now.</li>
					{/each}
				</ul>

				<h2 class="mt-5 text-base">Why these words</h2>
				{#if why.data}<Why candidates={why.data.candidates} say={(value) => `“${value}”`} />{/if}
				<p class="mt-4 flex flex-wrap gap-2">
					<Press onpress={() => (making = true)}>Say it differently for…</Press>
					{#if at.exception}
						<Press onpress={removeException}>Remove this exception</Press>
					{:else if cell.is_own}
						<Press onpress={() => workshop.change(layer, patchAt(field, null))}>Reset to the wider rule</Press>
					{/if}
				</p>
			{/if}
		</aside>
	</div>
	{#if making && cell}
		<NewException
			moment={at.moment}
			placement={at.placement}
			text={cell.template}
			onclose={() => (making = false)}
			onmade={(id) => {
				making = false;
				at = { ...at, exception: id };
			}}
		/>
	{/if}
{:else}
	<Waiting what="Setting the words" error={words.error} onretry={() => words.refetch()} />
{/if}

<style>
	.words {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 420px;
		min-height: calc(100vh - 67px);
	}
	.texts {
		width: 100%;
		border-collapse: collapse;
	}
	.texts th {
		padding: 6px 8px 6px 0;
		text-align: left;
		vertical-align: top;
		font-weight: 650;
	}
	.texts tbody th {
		width: 168px;
		padding-top: 14px;
		font-size: 15px;
	}
	.texts td {
		padding: 6px 0;
		vertical-align: top;
	}
	.texts tbody tr {
		border-top: 1px solid var(--color-hair);
	}
	.texts .narrowed {
		border-top-style: dashed;
	}
	.texts .narrowed th {
		border-left: 1px solid var(--color-soft);
		padding-left: 10px;
		font-size: 13px;
	}
	.text {
		padding: 7px 8px;
		text-align: left;
		border: 2px solid transparent;
	}
	.text:hover {
		background: var(--color-leaf);
	}
	.text[aria-pressed='true'] {
		border-color: var(--color-ink);
		background: var(--color-leaf);
	}
	.text[aria-pressed='true'] > span:first-child {
		background: linear-gradient(var(--color-marker) 0 0) 0 100% / 100% 40% no-repeat;
	}
	.gauge {
		display: flex;
		align-items: center;
		gap: 8px;
		margin-top: 4px;
		color: var(--color-soft);
	}
	.gauge path {
		fill: none;
		stroke: var(--color-soft);
	}
	.gauge .taken {
		stroke-width: 3;
		stroke: var(--color-ink);
	}
	.gauge[data-over='true'] {
		color: var(--color-must);
	}
	.gauge[data-over='true'] .taken {
		stroke: var(--color-must);
	}
	.reading {
		zoom: 0.75;
	}
	@media (max-width: 1000px) {
		.words {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
