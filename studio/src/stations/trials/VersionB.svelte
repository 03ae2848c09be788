<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import type { ButtonDocument, Patch, TrialView } from '$lib/api/types';
	import { leadColour } from '$lib/pure/fill';
	import { patchAt, valueAt } from '$lib/pure/patch';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Colour from '$lib/ui/Colour.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import Press from '$lib/ui/Press.svelte';

	type Props = {
		view: TrialView;
		/** The document of A, which B starts from. */
		base: ButtonDocument;
		onpatch: (patch: Patch) => void;
	};
	let { view, base, onpatch }: Props = $props();
	const workshop = useWorkshop();
	const language = $derived(workshop.language);
	const layer = $derived(view.trial.layer);
	const words = $derived(`wording.ready.${language}`);
	const now = (path: string) => valueAt(layer, path) ?? valueAt(base, path);
	/** What B says of a field that layers replace whole, or else A. */
	function narrowed<T>(path: string, ofA: T): T {
		return (valueAt(layer, path) as T | undefined) ?? ofA;
	}
	const icons = createQuery(() => workshop.ask.icons(''));
	const FILLS: Record<string, string> = {
		linear: 'with a gradient',
		radial: 'with a gradient',
		picture: 'with a picture',
		none: 'with nothing',
	};
	const fill = $derived(narrowed('look.fill', base.look.fill));
	const radius = $derived(narrowed('look.radius', base.look.radius));
	let typed = $state<string | null>(null);
	const icon = $derived(narrowed('icon', base.icon));
	const colours = $derived([
		...new Set(['look.fill.colour', 'look.text_colour', 'look.focus.ring_colour'].map(now).filter(Boolean).map(String)),
		'#ffffff',
	]);
	const names: Record<string, string> = {
		'wording.ready': 'its words',
		'look.fill': 'its fill',
		'look.text_colour': 'the words’ colour',
		'look.radius': 'its corners',
		'look.type': 'its type',
		icon: 'its icon',
	};
	const changed = $derived(Object.keys(names).filter((path) => valueAt(layer, path) !== undefined));

	function setIcon(name: string): void {
		const plain = { kind: 'shipped', side: 'before', size_px: 18, gap_px: 8 };
		onpatch({ icon: name ? { ...(icon.kind === 'shipped' ? icon : plain), name } : { kind: 'none' } });
	}
	function keep(): void {
		if (typed !== null && typed.trim() && typed !== now(words)) onpatch(patchAt(words, typed.trim()));
		typed = null;
	}
</script>

<p class="text-md leading-loose">
	B says
	<input
		class="value w-64"
		aria-label="B's words"
		maxlength="200"
		value={typed ?? String(now(words) ?? '')}
		oninput={(event) => (typed = event.currentTarget.value)}
		onkeydown={(event) => event.key === 'Enter' && keep()}
		onblur={keep}
	/>, filled
	{#if fill.kind !== 'solid'}
		<span>{FILLS[fill.kind] ?? fill.kind}, or with one colour</span>
	{/if}
	<Colour
		label="B's fill"
		value={leadColour(fill) ?? '#ffffff'}
		known={colours}
		onset={(colour) => onpatch({ look: { fill: { kind: 'solid', colour } } })}
	/>
	with words
	<Colour
		label="B's words' colour"
		value={String(now('look.text_colour'))}
		known={colours}
		onset={(colour) => onpatch({ look: { text_colour: colour } })}
	/>, corners
	{#if typeof radius === 'object'}
		each by itself, <Press small onpress={() => onpatch({ look: { radius: radius.top_left } })}>all as the first</Press>
	{:else}
		<Figure label="B's corner radius" value={radius} onset={(value) => onpatch({ look: { radius: value } })} />
	{/if}, type
	<Figure
		label="B's type size"
		value={Number(now('look.type.size_px'))}
		least={8}
		most={72}
		onset={(value) => onpatch({ look: { type: { size_px: value } } })}
	/>
	px, with
	<Pick
		label="B's icon"
		value={icon.kind === 'shipped' ? (icon.name ?? '') : ''}
		options={[
			{ value: '', label: 'no icon' },
			...(icons.data ?? []).map(({ name }) => ({ value: name, label: `the ${name}` })),
		]}
		onpick={setIcon}
	/>.
</p>
{#if changed.length}
	<p class="mt-1 flex flex-wrap items-center gap-2 text-soft">
		As A again:
		{#each changed as path (path)}
			<Press small onpress={() => onpatch(patchAt(path, null))}>{names[path]}</Press>
		{/each}
	</p>
{/if}
