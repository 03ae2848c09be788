<script lang="ts">
	import type { DrawView, Moment } from '$lib/api/types';
	import { MOMENTS } from '$lib/pure/facts';
	import { waits } from '$lib/pure/moments';
	import { px, said } from '$lib/pure/format';
	import TrueButton from '$lib/ui/TrueButton.svelte';

	type Props = {
		view: DrawView;
		chosen: Moment;
		/** Words of the second button, where there is one. */
		second: string;
		/** Room that the button stands in, in CSS pixels. */
		room: number;
		onpick: (moment: Moment) => void;
	};
	let { view, chosen, second, room, onpick }: Props = $props();
	const looks = ['hover', 'pressed', 'focus'] as const;
	const lookNames = { hover: 'hovered', pressed: 'pressed', focus: 'focused' };
	/** Room for the widest of the moments, with what stands beside the button. */
	const column = $derived.by(() => {
		const widths = view.moments.map(({ drawing }) => {
			const { outer, second, quantity } = drawing;
			const from = Math.min(0, second?.outer.x ?? 0, quantity?.x ?? 0);
			const ends = [
				outer.width,
				second ? second.outer.x + second.outer.width : 0,
				quantity ? quantity.x + quantity.width : 0,
			];
			return Math.max(...ends) - from;
		});
		return Math.max(190, (view.shown.button.wide ? room : Math.max(0, ...widths)) + 12);
	});
</script>

<section class="below border-l border-hair px-4 py-3" aria-label="Moments">
	<h2 class="mb-2 text-base">
		Moments
		<span class="font-normal text-soft"> at true size; press one to draw it, [ and ] step </span>
	</h2>
	<div class="moments" style:--wide="{column}px">
		{#each MOMENTS as moment (moment)}
			{@const shown = view.moments.find((m) => m.moment === moment)}
			{#if shown}
				<button class="moment" aria-pressed={moment === chosen} onclick={() => onpick(moment)}>
					<span class="tag">{said(moment)}</span>
					<span class="fit"
						><TrueButton
							button={view.shown.button}
							{moment}
							text={shown.text}
							rtl={view.seen.rtl}
							inactive={waits(moment, view.seen.placement)}
							{second}
							{room}
						/></span
					>
					{#if shown.drawing.too_wide_px}<span class="text-sm text-must"
							>▲ {px(shown.drawing.too_wide_px)} px too wide</span
						>{/if}
				</button>
			{/if}
		{/each}
		{#each looks as look (look)}
			<div class="moment">
				<span class="tag">{lookNames[look]}</span>
				<span class="fit"
					><TrueButton
						button={view.shown.button}
						moment="ready"
						text={view.shown.text}
						rtl={view.seen.rtl}
						{second}
						{room}
						{look}
					/></span
				>
			</div>
		{/each}
	</div>
</section>

<style>
	.below {
		overflow: auto;
		scrollbar-width: thin;
	}
	.moments {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(min(100%, var(--wide)), 1fr));
		gap: 0 12px;
	}
	.moment {
		display: grid;
		justify-items: start;
		align-content: start;
		text-align: left;
	}
	.tag {
		font: 12px/1.3 var(--font-mono);
		margin-left: 4px;
		color: var(--color-soft);
	}
	.moment[aria-pressed='true'] .tag {
		background: var(--color-marker);
		color: var(--color-ink);
		box-shadow: inset 0 -2px var(--color-ink);
	}
	.fit {
		display: block;
		padding: 4px;
	}
</style>
