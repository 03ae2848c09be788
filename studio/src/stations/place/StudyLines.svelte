<script lang="ts">
	import type { Device, PlacesView } from '$lib/api/types';
	import { onMount } from 'svelte';
	import { DEVICES, WINDOW_HEIGHTS_PX, WINDOWS_PX } from '$lib/pure/facts';
	import { many, moment, percent } from '$lib/pure/format';
	import { rank, type Study, type StudyLine } from '$lib/state/study.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Progress from '$lib/ui/Progress.svelte';

	type Props = {
		study: Study;
		pages: PlacesView['pages'];
		language: string;
		onopen: (path: string, device: Device) => void;
		onclose: () => void;
	};
	let { study, pages, language, onopen, onclose }: Props = $props();
	onMount(() => void study.open());
	const signs = ['?', '▲', '◇', '–', '·'];
	const worst = ({ findings }: StudyLine) =>
		['must_fix', 'look_again', 'note'].flatMap(
			(weight) => findings?.filter((finding) => finding.weight === weight) ?? [],
		)[0];
	/** The lines of each page, the worst first. */
	const byPage = $derived(
		[...new Set(study.lines.map(({ page }) => page))].map((page) => ({
			page,
			lines: study.lines.filter((line) => line.page === page),
		})),
	);
	const mustFix = $derived(study.lines.filter((line) => rank(line) === 1).length);
	const lookAgain = $derived(study.lines.filter((line) => rank(line) === 2).length);
	const fine = $derived(study.lines.length - mustFix - lookAgain - study.lines.filter((line) => !rank(line)).length);
	function tone(line: StudyLine): string {
		return ['text-must', 'text-must', 'text-look', 'text-soft', 'text-soft'][rank(line)] ?? '';
	}
</script>

<section class="study" aria-label="Study of the whole shop">
	<h2 class="text-md">
		{#if study.isRunning}
			<span class="figure">{study.done}</span> of <span class="figure">{study.of}</span> pages looked at, on three devices.
		{:else if study.lines.length}
			{many(mustFix, 'view')} must be fixed, {many(lookAgain, 'view')} looked at again, {fine} as they should be.
		{:else}One page of each kind, and products that differ, on three devices.{/if}
	</h2>
	{#if study.isRunning}<Progress label="Study of the whole shop" done={study.done} of={study.of} />{/if}
	{#if study.kept}
		<p class="text-soft">Studied by {study.kept.by}, {moment(study.kept.made_at)}.</p>
	{/if}
	{#if study.isStale}
		<p class="text-look">◇ The draft has changed since. Study it again to know.</p>
	{/if}
	<p class="my-2 flex gap-2">
		{#if study.isRunning}
			<Press small onpress={() => study.stop()}>Stop</Press>
		{:else}
			<Press small onpress={() => study.run(pages, language)}
				>{study.lines.length ? 'Study it again' : `Study ${many(pages.length, 'page')}`}</Press
			>
			<Press small onpress={onclose}>Back to the page</Press>
			{#if study.tookMs && study.lines.length}<span class="text-soft"
					>shares are of scrolling with a button in reach; it took <span class="figure"
						>{(study.tookMs / 1000).toFixed(1)}</span
					> s</span
				>{/if}
		{/if}
	</p>
	<table>
		{#if byPage.length}
			<thead>
				<tr>
					<th scope="col"><span class="sr-only">Page</span></th>
					{#each DEVICES as name (name)}<th scope="col">{name}</th>{/each}
					<th scope="col">what is wrong</th>
				</tr>
			</thead>
		{/if}
		<tbody>
			{#each byPage as { page, lines } (page.path)}
				{@const first = lines[0]}
				<tr>
					<th scope="row"
						><button class="underline" onclick={() => onopen(page.path, first?.device ?? 'phone')}>{page.name}</button
						></th
					>
					{#each DEVICES as name (name)}
						{@const line = lines.find(({ device }) => device === name)}
						<td class="figure">
							{#if line?.findings}
								<button onclick={() => onopen(page.path, name)} aria-label="{page.name} on a {name}">
									<b class={tone(line)}>{signs[rank(line)]}</b>
									{percent(line.reach)}
								</button>
							{:else}<span class="text-must">does not answer</span>{/if}
						</td>
					{/each}
					<td class={first && rank(first) < 3 ? '' : 'text-soft'}>
						{#if first?.findings && worst(first)}{worst(first)?.title}, on a {first.device}
						{:else if first?.findings}As it should be{/if}
					</td>
				</tr>
			{/each}
		</tbody>
	</table>
</section>
<!-- Within the window, since what a browser need not draw it does not lay out in time. -->
<div class="beside" aria-hidden="true" inert>
	{#each study.windows as windows, n (n)}
		{#each DEVICES as name (name)}
			<iframe
				bind:this={windows[name].frame}
				title="A page of the shop on a {name}"
				width={WINDOWS_PX[name]}
				height={WINDOW_HEIGHTS_PX[name]}
				tabindex="-1"
			></iframe>
		{/each}
	{/each}
</div>

<style>
	table {
		width: 100%;
		border-collapse: collapse;
	}
	th {
		text-align: start;
		font-weight: 400;
		color: var(--color-soft);
	}
	tbody th {
		color: inherit;
	}
	td,
	th {
		padding: 5px 16px 5px 0;
		border-bottom: 1px solid var(--color-hair);
		vertical-align: baseline;
	}
	.beside {
		position: fixed;
		left: 0;
		top: 0;
		z-index: -1;
		opacity: 0;
	}
	.beside iframe {
		position: absolute;
		border: 0;
	}
</style>
