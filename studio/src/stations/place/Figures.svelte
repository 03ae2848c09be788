<script lang="ts">
	import type { AlongDevice } from '$lib/api/types';
	import { count, percent, px } from '$lib/pure/format';
	import type { PageSurvey } from '@storefront/studio/page_survey';

	type Props = { onDevice: AlongDevice; survey?: PageSurvey; onlook: (px: number) => void };
	let { onDevice, survey, onlook }: Props = $props();
	const along = $derived(onDevice.along);
	let open = $state('');
	const ofPositions = $derived(along.gaps.reduce((sum, [a, b]) => sum + b - a, 0));
	const figures = $derived([
		{
			key: 'reach',
			shown: percent(along.reach_share),
			says: 'of scrolling with a button in reach',
			from: `${count(along.way_px - ofPositions)} of ${count(along.way_px)} px of scroll; in reach is what is half seen, and covered by nothing that sticks.`,
			at: along.gaps[0]?.[0],
		},
		{
			key: 'first',
			shown: along.first_px === null ? 'none' : `${count(along.first_px)} px`,
			says: along.first_px === 0 ? 'to the first button, no scrolling' : 'of scrolling to the first button',
			from: `Of ${count(survey?.places.length ?? 0)} places on this page, by the one that comes first.`,
			at: along.first_px ?? undefined,
		},
		{
			key: 'cover',
			shown: percent(along.hung_share),
			says: 'of the window covered by what hangs',
			from: `With all that the shop has stuck it is ${percent(along.stuck_share)} at worst, at ${count(along.worst_at)} px.`,
			at: along.worst_at,
		},
		{
			key: 'shift',
			shown: along.shift.toFixed(3),
			says: 'layout shift as buttons came',
			from: `As the browser tells it, from when our line began until the page was measured. ${shiftSaid(along.shift)}`,
			at: undefined,
		},
	]);
	function shiftSaid(shift: number): string {
		if (shift === 0) return 'Nothing moved that could be seen.';
		return `Up to 0.1 counts as good (Core Web Vitals); ${shift > 0.1 ? 'this is more' : 'this is less'}.`;
	}
	const shown = $derived(figures.find(({ key }) => key === open));
</script>

<div class="figures">
	{#each figures as figure (figure.key)}
		<button aria-expanded={open === figure.key} onclick={() => (open = open === figure.key ? '' : figure.key)}>
			<span class="number">{figure.shown}</span>
			<span class="text-soft">{figure.says}</span>
		</button>
	{/each}
</div>
{#if shown}
	<p class="from">
		{shown.from}
		{#if shown.at !== undefined && along.way_px}
			<button class="underline" onclick={() => onlook(shown.at ?? 0)}>Look at {px(shown.at)} px</button>
		{/if}
	</p>
{/if}

<style>
	.figures {
		display: grid;
		grid-template-columns: repeat(4, minmax(0, 1fr));
		gap: 12px;
		margin-top: 14px;
		border-top: 1px solid var(--color-ink);
		padding-top: 8px;
	}
	.figures button {
		display: grid;
		justify-items: start;
		text-align: start;
	}
	.number {
		font-family: var(--font-mono);
		font-size: 24px;
		line-height: 1.25;
		border-bottom: 2px solid transparent;
	}
	.figures button:hover .number,
	.figures button[aria-expanded='true'] .number {
		border-color: var(--color-ink);
	}
	.from {
		margin-top: 6px;
		background: var(--color-leaf);
		padding: 4px 8px;
	}
</style>
