<script lang="ts">
	import type { DrawView } from '$lib/api/types';
	import { valueAt } from '$lib/pure/patch';
	import type { Desk } from '$lib/state/desk.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Colour from '$lib/ui/Colour.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Pick from '$lib/ui/Pick.svelte';

	type Props = { view: DrawView; desk: Desk };
	let { view, desk }: Props = $props();
	const workshop = useWorkshop();
	const at = (path: string) => valueAt(view.document, path);
	const text = (path: string) => String(at(path) ?? '');
	const size = $derived(text('look.size.kind'));
	const icon = $derived(view.document.icon as { kind: string; name?: string; side?: string });
	const family = $derived(text('look.type.family'));
	const fonts = $derived(workshop.info?.fonts ?? []);
	const font = $derived(fonts.find((f) => f.family === family));
	const weights = $derived(
		[300, 400, 500, 600, 650, 700, 800, 900]
			.filter((w) => font && w >= font.lightest && w <= font.heaviest)
			.map((w) => ({ value: String(w), label: String(w) })),
	);
	const icons = $derived([
		{ value: '', label: 'no icon' },
		...Object.keys(workshop.info?.icons ?? {}).map((name) => ({ value: name, label: name })),
	]);
	const colours = $derived(
		[
			...new Set(
				[
					'look.fill.colour',
					'look.text_colour',
					'look.hover.fill.colour',
					'look.hover.text_colour',
					'look.focus.ring_colour',
					'look.disabled.fill.colour',
					'look.disabled.text_colour',
				].map(text),
			),
			'#ffffff',
		].filter((c, n, all) => all.indexOf(c) === n),
	);

	const quantity = $derived(view.document.quantity as { kind: string });
	const boxed = { kind: 'box', least: 1, most: 99, step: 1, start: 1, width_px: 64 };
	const yes = (path: string, said: readonly [string, string]) => ({
		value: String(at(path)),
		options: [
			{ value: 'true', label: said[0] },
			{ value: 'false', label: said[1] },
		],
		onfocus: () => desk.mark(path),
		onpick: (value: string) => void desk.set(path, value === 'true'),
	});

	function setSize(kind: string): void {
		const { needs_width_px, outer } = view.drawing;
		const whole = { kind, width: Math.ceil(needs_width_px), height: Math.ceil(outer.height) };
		void desk.set('look.size', kind === 'fixed' ? whole : { kind });
	}
	function setFamily(to: string): void {
		const other = fonts.find((f) => f.family === to);
		const weight = Number(at('look.type.weight'));
		const kept = other ? Math.min(other.heaviest, Math.max(other.lightest, weight)) : weight;
		void desk.set('look.type', { ...(at('look.type') as object), family: to, weight: kept });
	}
	function setIcon(name: string): void {
		const plain = { kind: 'shipped', side: 'before', size_px: 18, gap_px: 8 };
		void desk.set('icon', name ? { ...(icon.kind === 'shipped' ? icon : plain), name } : { kind: 'none' });
	}
</script>

{#snippet colour(label: string, path: string)}
	<Colour
		{label}
		value={text(path)}
		known={colours}
		onfocus={() => desk.mark(path)}
		onset={(value) => desk.set(path, value)}
	/>
{/snippet}
{#snippet pieces(label: string, path: string, most: number)}
	<Figure
		{label}
		unit="pieces"
		value={Number(at(path))}
		least={1}
		{most}
		marked={desk.marked === path}
		onfocus={() => desk.mark(path)}
		onset={(value) => desk.set(path, Math.round(value))}
	/>
{/snippet}
{#snippet figure(label: string, path: string, least: number, most: number)}
	<Figure
		{label}
		value={Number(at(path))}
		{least}
		{most}
		marked={desk.marked === path}
		onfocus={() => desk.mark(path)}
		onset={(value) => desk.set(path, value)}
	/>
{/snippet}

<p class="sentences text-md">
	A button of
	<Pick
		label="Size"
		value={size}
		options={[
			{ value: 'natural', label: 'natural size' },
			{ value: 'full', label: 'full width' },
			{ value: 'fixed', label: 'fixed size' },
		]}
		onfocus={() => desk.mark('look.size')}
		onpick={setSize}
	/>{#if size === 'fixed'}, {@render figure('width', 'look.size.width', 16, 1200)} by {@render figure(
			'height',
			'look.size.height',
			16,
			400,
		)} px{/if}, corners {@render figure('corner radius', 'look.radius', 0, 400)}, filled {@render colour(
		'Fill',
		'look.fill.colour',
	)}. Words in
	<Pick
		label="Type family"
		value={family}
		options={fonts.map((f) => ({ value: f.family, label: f.name }))}
		onfocus={() => desk.mark('look.type.family')}
		onpick={setFamily}
	/>
	{@render figure('type size', 'look.type.size_px', 8, 72)} px, weight
	<Pick
		label="Type weight"
		value={text('look.type.weight')}
		options={weights}
		onfocus={() => desk.mark('look.type.weight')}
		onpick={(value) => desk.set('look.type.weight', Number(value))}
	/>, {@render colour('Words', 'look.text_colour')}.
	{#if icon.kind === 'shipped'}A{:else}There is{/if}
	<Pick label="Icon" value={icon.name ?? ''} options={icons} onfocus={() => desk.mark('icon')} onpick={setIcon} />
	{#if icon.kind === 'shipped'}
		stands
		<Pick
			label="Side"
			value={icon.side ?? 'before'}
			options={[
				{ value: 'before', label: 'before' },
				{ value: 'after', label: 'after' },
			]}
			onfocus={() => desk.mark('icon.side')}
			onpick={(value) => desk.set('icon.side', value)}
		/>
		them, {@render figure('icon size', 'icon.size_px', 8, 96)} tall, {@render figure('icon gap', 'icon.gap_px', 0, 64)} apart{/if}.
	When hovered {@render colour('Fill when hovered', 'look.hover.fill.colour')} with
	{@render colour('Words when hovered', 'look.hover.text_colour')}; when focused
	{@render colour('Fill when focused', 'look.focus.fill.colour')} with
	{@render colour('Words when focused', 'look.focus.text_colour')} inside a ring of
	{@render colour('Focus ring', 'look.focus.ring_colour')}; sold out
	{@render colour('Fill when sold out', 'look.disabled.fill.colour')} with
	{@render colour('Words when sold out', 'look.disabled.text_colour')}.
	<Pick
		label="Quantity box"
		value={quantity.kind}
		options={[
			{ value: 'none', label: 'No quantity box' },
			{ value: 'box', label: 'A quantity box' },
		]}
		onfocus={() => desk.mark('quantity')}
		onpick={(kind) => desk.set('quantity', kind === 'box' ? boxed : { kind })}
	/>
	{#if quantity.kind === 'box'}
		before it takes {@render pieces('least', 'quantity.least', 9999)} to {@render pieces('most', 'quantity.most', 9999)} in
		steps of {@render pieces('step', 'quantity.step', 999)}, {@render pieces('at first', 'quantity.start', 9999)} at first.
	{:else}
		stands before it.
	{/if}
	It <Pick label="Standing" {...yes('placement.shown', ['stands', 'does not stand'])} /> here{#if view.placement === 'sticky_bar'},
		with <Pick label="Name" {...yes('placement.name', ['the name', 'no name'])} /> and
		<Pick label="Price" {...yes('placement.price', ['the price', 'no price'])} /> beside it{/if}. Once pressed, the
	shopper
	<Pick
		label="Afterwards"
		value={text('afterwards.kind')}
		options={[
			{ value: 'stay', label: 'stays and it says so' },
			{ value: 'basket', label: 'goes to the basket' },
			{ value: 'checkout', label: 'goes to the checkout' },
		]}
		onfocus={() => desk.mark('afterwards')}
		onpick={(kind) => desk.set('afterwards', { kind })}
	/>.
</p>

<style>
	.sentences {
		line-height: 1.85;
	}
</style>
