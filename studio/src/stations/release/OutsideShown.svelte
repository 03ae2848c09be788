<script lang="ts">
	import type { OutsideCode } from '$lib/api/types';
	import type { OutsideMaking } from '$lib/state/outside.svelte';
	import { px } from '$lib/pure/format';
	import Copy from '$lib/ui/Copy.svelte';
	import Press from '$lib/ui/Press.svelte';

	type Props = { making: OutsideMaking };
	let { making }: Props = $props();
	const made = $derived(making.made);
	const grounds = [
		{ name: 'On a light page', colour: '#ffffff', ink: '#1b1b1b' },
		{ name: 'On a dark page', colour: '#14181c', ink: '#eeeeee' },
	];
	const SCALES = [1, 2, 3];
	/** What is made stands in a page of its own, without scripts, as it will on somebody else's. */
	const pageOf = (shown: string, ground: (typeof grounds)[number]) =>
		`<!doctype html><body style="margin:20px;background:${ground.colour};color:${ground.ink};font:15px sans-serif">${shown}`;
	/** One page to a kind of code: what is printed is on white paper. */
	const seen = $derived(made?.kind === 'print' ? grounds.slice(0, 1) : grounds);
	/** A sheet is seen as wide as a mail is, made smaller where there is less room. */
	const SHEET_PX = 600;
	let room = $state(SHEET_PX);
	const isSheet = $derived(Boolean(made && made.buttons.length > 1 && made.kind !== 'link' && made.kind !== 'print'));
	const scale = $derived(isSheet ? Math.min(1, room / SHEET_PX) : 1);
	const wide = $derived(isSheet ? Math.max(SHEET_PX, room) : room);
	const HIGH_PX: Partial<Record<OutsideCode['kind'], number>> = { form: 150, print: 230 };
	const high = $derived(isSheet ? 420 : ((made && HIGH_PX[made.kind]) ?? 112));
</script>

{#if making.wrong}
	<p class="mt-4" role="alert"><b class="text-must">▲</b> {making.wrong}</p>
	{#if making.order.kind === 'form'}
		<p class="mt-2"><Press small onpress={() => making.want({ kind: 'web' })}>Make HTML for a page</Press></p>
	{:else if making.order.leads === 'basket'}
		<p class="mt-2"><Press small onpress={() => making.want({ leads: 'page' })}>Lead to its page</Press></p>
	{/if}
{/if}
{#if made}
	<div class="grounds mt-4" data-many={seen.length > 1}>
		{#each seen as ground, n (ground.name)}
			<figure>
				<figcaption class="figure text-soft">
					{made.kind === 'print' ? 'On paper' : ground.name}{#if made.kind !== 'print' && made.kind !== 'link'}, words
						{Math.min(...made.buttons.map(({ readable }) => readable[n] ?? 21)).toFixed(1)} : 1{/if}{#if scale < 1},
						drawn {scale.toFixed(2)} : 1{/if}
				</figcaption>
				<div class="frame" bind:clientWidth={room} style:height="{high * scale}px">
					<iframe
						sandbox=""
						title={ground.name}
						srcdoc={pageOf(made.shown, ground)}
						style:width="{wide}px"
						style:height="{high}px"
						style:transform="scale({scale})"
					></iframe>
				</div>
			</figure>
		{/each}
	</div>
	<ul class="mt-2">
		{#each made.notes as note, n (n)}<li>– {note}</li>{/each}
	</ul>
	{#each made.buttons as { id, picture, product } (id)}
		{#if picture}
			<p class="mt-2">
				<span class="figure">{px(picture.width)} × {px(picture.height)} px</span> for {product.name}. Keep it as
				<a
					href="data:image/svg+xml,{encodeURIComponent(picture.svg)}"
					download="{product.sku}-{id}.svg"
					onclick={() => making.handOut()}>SVG</a
				>{#each picture.png as png, n (n)}{n === picture.png.length - 1 ? ' or ' : ', '}<a
						href="data:image/png;base64,{png}"
						download="{product.sku}-{id}@{SCALES[n]}x.png"
						onclick={() => making.handOut()}>PNG {SCALES[n]}×</a
					>{/each}.
			</p>
		{/if}
	{/each}
	<div class="mt-4 flex items-center gap-3">
		<Copy
			main
			text={made.code}
			says="Copy the code"
			disabled={!making.isUpToDate}
			oncopied={() => void making.handOut()}
		/>
		<span class="figure text-soft">{made.code.length.toLocaleString('en-GB')} characters</span>
	</div>
	<textarea class="field mt-2 w-full font-mono text-sm" rows="7" readonly aria-label="The code" value={made.code}
	></textarea>
{:else if !making.wrong}
	<p class="mt-6 text-soft">Choose a product, and its button’s code stands here.</p>
{/if}

<style>
	.grounds[data-many='true'] {
		display: grid;
		grid-template-columns: repeat(2, minmax(0, 1fr));
		gap: 16px;
	}
	.frame {
		overflow: hidden;
		border: 1px solid var(--color-hair);
		margin-top: 4px;
	}
	iframe {
		display: block;
		border: 0;
		transform-origin: 0 0;
	}
</style>
