<script lang="ts">
	import type { Bar, Floating } from '$lib/api/types';
	import { LIMITS } from '$lib/pure/facts';
	import { yesOrNo } from '$lib/pure/picks';
	import type { Desk } from '$lib/state/desk.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Pick from '$lib/ui/Pick.svelte';

	/** When something that hangs at the window comes, or when it goes; `root` is the part of the document that says so. */
	type Props = {
		desk: Desk;
		root: 'bar' | 'floating';
		hanging: Bar | Floating;
		says: 'comes' | 'goes';
	};
	let { desk, root, hanging, says }: Props = $props();
	type Comes = Bar['comes'];
	const comes = $derived(hanging.comes);
	const comesSaid = { own_left: 'the page’s own button', share: 'a share', distance: 'a distance' } as const;
	const yes = (name: 'only_up' | 'returns', words: readonly [string, string]) =>
		yesOrNo(hanging[name], words, (value) => void desk.set(`${root}.${name}`, value));

	function come(kind: Comes['kind']): void {
		const ways: Record<Comes['kind'], Comes> = {
			own_left: { kind: 'own_left' },
			share: { kind: 'share', share: 0.12 },
			distance: { kind: 'distance', px: 200 },
		};
		void desk.set(`${root}.comes`, ways[kind]);
	}
</script>

{#if says === 'comes'}
	once
	<Pick
		label="Comes"
		value={comes.kind}
		options={(['own_left', 'share', 'distance'] as const).map((kind) => ({ value: kind, label: comesSaid[kind] }))}
		onpick={come}
	/>
	{#if comes.kind === 'share'}
		of <Figure
			label="Share of the way"
			value={Math.round(comes.share * 100)}
			most={95}
			unit="%"
			onset={(value) => desk.set(`${root}.comes`, { kind: 'share', share: Number(value) / 100 })}
		/> % is scrolled,
	{:else if comes.kind === 'distance'}
		of <Figure
			label="Distance"
			value={comes.px}
			most={20000}
			onset={(value) => desk.set(`${root}.comes`, { kind: 'distance', px: Number(value) })}
			ontry={(value) => desk.tryOut({ [`${root}.comes`]: { kind: 'distance', px: Number(value) } })}
		/> px is scrolled,
	{:else if desk.view?.document.placement.product}is out of the window, or at once where the page has none,
	{:else}is out of the window,{/if}
	<Pick label="Direction" {...yes('only_up', ['on the way up only', 'either way'])} />
{:else}
	It <Pick
		label="While the own button is seen"
		{...yes('returns', ['goes while the page’s own is back', 'stays once it has come'])}
	/>{#if hanging.foot_px}, and goes
		<Figure
			label="Before the end"
			value={hanging.foot_px}
			most={LIMITS[`${root}.foot_px`][1]}
			onset={(value) => desk.set(`${root}.foot_px`, value)}
		/> px before the page’s end{:else}, and
		<button class="value" onclick={() => desk.set(`${root}.foot_px`, 240)}>stands to the page’s end</button>{/if}
{/if}
