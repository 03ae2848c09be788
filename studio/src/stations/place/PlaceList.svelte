<script lang="ts">
	import type { PointedPlace } from '$lib/api/types';
	import { capital, many, moment, said } from '$lib/pure/format';
	import { pagesSaid, WHERE } from '$lib/pure/places';
	import { LivePages } from '$lib/state/live_pages.svelte';
	import type { PointingAt } from '$lib/state/pointing.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Press from '$lib/ui/Press.svelte';
	const { context } = useWorkshop();

	type Props = { at: PointingAt; places: Record<string, PointedPlace> };
	let { at, places }: Props = $props();
	const all = $derived(Object.entries(places));
	const live = new LivePages(useWorkshop());
	void live.read();
	/** What the newest look at the live pages found wrong with places: a new theme may have lost them. */
	const lost = $derived(
		(live.report?.pages ?? []).flatMap(({ path, lines }) =>
			lines.filter(({ about, weight }) => about === 'places' && weight === 'broken').map((line) => ({ path, ...line })),
		),
	);
</script>

<h1 class="text-xl">
	{#if all.length}{all.length === 1 ? 'One place was' : `${all.length} places were`} pointed at.
	{:else}No place was pointed at.{/if}
</h1>
<p class="mt-2 text-soft">
	Buttons stand where the shop’s code says <code class="figure">data-up-place</code>. Where nobody can change that code,
	point at the spot.
</p>
<ul class="mt-4">
	{#each all as [id, place] (id)}
		<li class="border-b border-hair py-3">
			<p>
				<b>{capital(said(place.placement))}</b>, {WHERE[place.where]}
				<code class="figure">{place.selector}</code>, {pagesSaid(place.pages)}{place.row
					? place.row.seen
						? ', with what the browser saw last'
						: `, with ${many(place.row.products?.length ?? 0, 'product')}`
					: ''}.
			</p>
			<p class="mt-1 flex gap-2">
				<Press small onpress={() => at.open(id, place)} label="Look at {place.selector}">Look at it</Press>
				{#if place.row && !place.row.seen}
					<Press small onpress={() => at.again(place)} label="Make {place.selector} again for another product"
						>Make it again</Press
					>
				{/if}
				<Press small onpress={() => at.remove(id)} label="Remove {place.selector}">Remove</Press>
			</p>
		</li>
	{/each}
</ul>
{#if lost.length && live.report}
	<section class="mt-4" aria-label="Seen on the live pages">
		<p>
			<b class="text-must">▲ On the live pages, looked at {moment(live.report.made_at)}:</b>
		</p>
		<ul>
			{#each lost as line (line.path + line.says)}
				<li class="py-1">
					<button class="figure underline" onclick={() => (at.path = line.path)}>{line.path}</button>
					{line.says} <span class="text-soft">{line.to_do}</span>
				</li>
			{/each}
		</ul>
	</section>
{/if}
<p class="mt-4"><Press main onpress={() => at.point()}>Point at a place</Press></p>
{#if !at.isAnswering}
	<p class="mt-4">
		<b class="text-must">▲ The page does not answer.</b> Our line is not on it, or it may not be framed here. The line
		is on
		<a href={context.href('/release')}>Release</a>; a shop that forbids frames must allow this studio:
		<code class="figure">frame-ancestors 'self' {location.origin}</code>.
	</p>
{/if}
