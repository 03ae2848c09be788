<svelte:options namespace="svg" />

<script lang="ts">
	import type { PageSurvey } from '@storefront/studio/page_survey';
	import { STRIP, type StripPlan } from '$lib/pure/strip';

	type Props = { survey: PageSurvey; plan: StripPlan };
	let { survey, plan }: Props = $props();
	const high = $derived(plan.pageHigh * plan.scale);
</script>

<defs>
	<clipPath id="strip"><rect x="0" y={STRIP.top} width={STRIP.page} height={high} /></clipPath>
</defs>
<g clip-path="url(#strip)">
	<rect x="0" y={STRIP.top} width={STRIP.page} height={high} fill={survey.ground} />
	{#each survey.blocks as block, n (n)}
		{@const box = {
			x: block.box.x * plan.across,
			y: plan.y(block.box.y),
			width: Math.max(1, block.box.wide * plan.across),
			height: Math.max(1, block.box.high * plan.scale),
		}}
		{#if block.kind === 'picture' && block.src}
			<image {...box} href={block.src} preserveAspectRatio="xMidYMid slice" />
		{:else if block.kind === 'heading'}
			<rect {...box} height={Math.max(1.5, box.height * 0.7)} fill={survey.ink} />
		{:else}
			<rect {...box} height={Math.max(1, box.height * 0.6)} fill={survey.ink} opacity="0.28" />
		{/if}
	{/each}
	{#each survey.places as place, n (n)}
		<rect
			x={place.box.x * plan.across}
			y={plan.y(place.box.y)}
			width={Math.max(2, place.box.wide * plan.across)}
			height={Math.max(2, place.box.high * plan.scale)}
			class={place.stands ? 'ours' : 'shops'}
		/>
	{/each}
</g>
<rect class="edge" x="0.5" y={STRIP.top + 0.5} width={STRIP.page - 1} height={high - 1} />

<style>
	.edge {
		fill: none;
		stroke: var(--color-hair);
	}
	.ours {
		fill: var(--color-ink);
	}
	.shops {
		fill: none;
		stroke: var(--color-ink);
		stroke-dasharray: 2 2;
	}
</style>
