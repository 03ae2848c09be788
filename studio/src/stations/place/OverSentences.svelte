<script lang="ts">
	import type { DrawView, Over } from '$lib/api/types';
	import { LIMITS } from '$lib/pure/facts';
	import { spotWords } from '$lib/pure/spots';
	import type { Desk } from '$lib/state/desk.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import SentencesHead from './SentencesHead.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Field from '$lib/ui/Field.svelte';

	const { context } = useWorkshop();

	type Props = { desk: Desk; view: DrawView; onlayer: (layer: string) => void };
	let { desk, view, onlayer }: Props = $props();
	type Anchor = Over['anchor'];
	const ANCHORS: readonly Anchor[] = [
		'top_start',
		'top',
		'top_end',
		'start',
		'middle',
		'end',
		'bottom_start',
		'bottom',
		'bottom_end',
	];
	const over = $derived(view.document.over);
	const rtl = $derived(view.seen.rtl);
	const waits = $derived(over.reveal !== 'nothing');
	const hasIcon = $derived(view.document.icon.kind !== 'none');
	const isAside = $derived(over.anchor.endsWith('start') || over.anchor.endsWith('end'));
	const isDown = $derived(over.anchor.startsWith('top') || over.anchor.startsWith('bottom'));
	const reveals = $derived([
		{ value: 'nothing', label: 'All of it shows at once' },
		{ value: 'button', label: 'The whole button comes' },
		...(hasIcon || over.reveal === 'words' ? [{ value: 'words', label: 'Its icon shows, and its words come' }] : []),
	]);
	const curves = (['linear', 'ease', 'ease-in', 'ease-out', 'ease-in-out'] as const).map((curve) => ({
		value: curve,
		label: curve,
	}));
	/** Pixels as a number, a share of the picture as it is written. */
	const asInset = (text: string) => (text.trim().endsWith('%') ? text.trim() : Number(text.replace(/px$/, '')));
	const written = (inset: number | string) => (typeof inset === 'number' ? `${inset} px` : inset);

	function key(event: KeyboardEvent): void {
		const by = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -3, ArrowDown: 3 }[event.key];
		if (!by) return;
		event.preventDefault();
		const now = ANCHORS.indexOf(over.anchor);
		const way = Math.abs(by) === 1 && rtl ? -by : by;
		// Within its row, or within its column.
		const isOut = Math.abs(way) === 1 && Math.floor(now / 3) !== Math.floor((now + way) / 3);
		const next = ANCHORS[now + way];
		if (!next || isOut) return;
		void desk.set('over.anchor', next);
		(event.currentTarget as HTMLElement).querySelector<HTMLElement>(`[data-anchor=${next}]`)?.focus();
	}
</script>

<section aria-label="On pictures">
	<SentencesHead {view} name="button on pictures" {onlayer} />
	<div class="lies">
		<div class="frame" role="radiogroup" tabindex="-1" aria-label="Anchor" dir={rtl ? 'rtl' : 'ltr'} onkeydown={key}>
			{#each ANCHORS as anchor (anchor)}
				<button
					role="radio"
					data-anchor={anchor}
					aria-checked={anchor === over.anchor}
					tabindex={anchor === over.anchor ? 0 : -1}
					aria-label={spotWords(anchor, rtl)}
					onclick={() => desk.set('over.anchor', anchor)}
				></button>
			{/each}
		</div>
		<div>
			<p>
				It lies {spotWords(over.anchor, rtl)} of its picture{isAside || isDown ? ', ' : ''}{#if isAside}<Field
						mono
						label="Distance from the side"
						value={written(over.across)}
						usual="0 px"
						onset={(text) => desk.set('over.across', asInset(text))}
					/> from the side{isDown ? ' and ' : ''}{/if}{#if isDown}<Field
						mono
						label="Distance from the edge"
						value={written(over.down)}
						usual="0 px"
						onset={(text) => desk.set('over.down', asInset(text))}
					/> from the {over.anchor.startsWith('top') ? 'upper' : 'lower'} edge{/if}.
			</p>
			<p>
				<Pick
					label="What comes"
					value={over.reveal}
					options={reveals}
					onpick={(reveal) => desk.set('over.reveal', reveal)}
				/>{waits ? ' when the picture is hovered or the button has the focus, within ' : '.'}{#if waits}<Figure
						label="Comes within"
						value={over.reveal_ms / 1000}
						most={LIMITS['over.reveal_ms'][1] / 1000}
						unit="s"
						onset={(value) => desk.set('over.reveal_ms', Math.round(Number(value) * 1000))}
					/> s,
					<Pick label="Curve" value={over.curve} options={curves} onpick={(curve) => desk.set('over.curve', curve)} />.
					Fingers cannot hover: on touch all of it is always there.{/if}
				{#if over.reveal === 'words' && !hasIcon}It has no icon, so the whole button comes.{/if}
			</p>
			<p>
				Beside the button the picture’s own link still leads where it did. The button is drawn in
				<a class="underline" href={context.href('/draw/over_picture')}>Draw</a>;
				<a class="underline" href={context.href('/place/points', { point: '1' })}>point at</a> a picture to put one there.
			</p>
		</div>
	</div>
</section>

<style>
	p {
		line-height: 1.85;
		font-size: 14.5px;
	}
	.lies {
		display: grid;
		grid-template-columns: 112px minmax(0, 1fr);
		gap: 18px;
		margin-top: 6px;
	}
	.frame {
		display: grid;
		grid-template-columns: repeat(3, 1fr);
		grid-auto-rows: 1fr;
		width: 112px;
		height: 84px;
		border: 1px solid var(--color-ink);
		background: var(--color-leaf);
	}
	.frame button {
		display: grid;
		place-items: center;
		min-width: 24px;
		min-height: 24px;
	}
	/* A tick where it could lie, and the button itself where it does. */
	.frame button::after {
		content: '';
		width: 1px;
		height: 7px;
		background: var(--color-soft);
	}
	.frame button:hover::after {
		width: 3px;
		background: var(--color-ink);
	}
	.frame button[aria-checked='true'] {
		background: var(--color-marker);
	}
	.frame button[aria-checked='true']::after {
		width: 24px;
		height: 9px;
		background: var(--color-ink);
	}
</style>
