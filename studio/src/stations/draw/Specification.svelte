<script lang="ts">
	import { LIMITS, STATES } from '$lib/pure/facts';
	import type { DrawView } from '$lib/api/types';
	import type { Ground, Length } from '$lib/pure/length';
	import { valueAt } from '$lib/pure/patch';
	import type { Desk } from '$lib/state/desk.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Colour from '$lib/ui/Colour.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import BesideSentences from './BesideSentences.svelte';
	import BorderField from './BorderField.svelte';
	import FillField from './FillField.svelte';
	import IconField from './IconField.svelte';
	import ShadowsField from './ShadowsField.svelte';
	import MessageSentences from './MessageSentences.svelte';
	import Part from './Part.svelte';
	import SheetSentences from './SheetSentences.svelte';
	import TextShadowsField from './TextShadowsField.svelte';
	import StateSentence from './StateSentence.svelte';
	import Field from '$lib/ui/Field.svelte';

	type Props = { view: DrawView; desk: Desk; ground: Ground };
	let { view, desk, ground }: Props = $props();
	const workshop = useWorkshop();
	const { context } = workshop;
	const AFTERWARDS = [
		{ value: 'stay', label: 'stays, and the button says so' },
		{ value: 'count', label: 'stays, and only the count rises' },
		{ value: 'show', label: 'sees the basket' },
		{ value: 'basket', label: 'goes to the basket' },
		{ value: 'checkout', label: 'goes to the checkout' },
		{ value: 'message', label: 'opens a message' },
		{ value: 'notify', label: 'stays, and is told when what is sold out is back' },
	] as const;
	/** A common path; the shop's own is said there. */
	const TELL = { kind: 'notify', path: '/restock' };
	const tells = $derived(view.document.afterwards.kind === 'notify' ? view.document.afterwards : null);
	/** A message is asked for, and it is not yet said to whom. */
	let asking = $state(false);
	const at = (path: string) => valueAt(view.document, path);
	const text = (path: string) => String(at(path) ?? '');
	const { icon, look } = $derived(view.document);
	const size = $derived(look.size);
	const family = $derived(look.type.family);
	const fonts = $derived(workshop.info?.fonts ?? []);
	const font = $derived(fonts.find((f) => f.family === family));
	const weights = $derived(
		[300, 400, 500, 600, 650, 700, 800, 900]
			.filter((w) => font && w >= font.lightest && w <= font.heaviest)
			.map((w) => ({ value: String(w), label: String(w) })),
	);
	const rest = $derived(view.states.find((one) => one.state === 'rest'));
	const known = $derived(
		[
			...new Set([
				...view.states.flatMap((one) => [one.fill ?? '', one.words]),
				view.around.ring,
				view.around.page_colour,
				'#ffffff',
			]),
		].filter(Boolean),
	);
	const wordless = $derived(
		(icon.kind !== 'none' && icon.side === 'alone') || (look.fill.kind === 'picture' && look.fill.instead),
	);
	/** What a designer calls the body; choosing another changes fill and border together. */
	const body = $derived.by(() => {
		if (look.fill.kind === 'picture') return 'picture';
		if (look.fill.kind !== 'none') return 'filled';
		return look.border.kind === 'line' ? 'outlined' : 'words';
	});
	function setBody(to: string): void {
		const ink = rest?.fill ?? rest?.words ?? '#1b1b1b';
		const line = { kind: 'line', width_px: 2, style: 'solid', colour: ink };
		if (to === 'filled') void desk.setAll({ 'look.fill': { kind: 'solid', colour: ink }, 'look.text_colour': 'rule' });
		else if (to === 'outlined')
			void desk.setAll({ 'look.fill': { kind: 'none' }, 'look.border': line, 'look.text_colour': ink });
		else if (to === 'words')
			void desk.setAll({ 'look.fill': { kind: 'none' }, 'look.border': { kind: 'none' }, 'look.text_colour': ink });
	}
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
		const { needs_width_px, outer } = view.shown.drawing;
		const whole = { kind, width: Math.ceil(needs_width_px), height: Math.ceil(outer.height) };
		void desk.set('look.size', kind === 'fixed' ? whole : { kind });
	}
	function setFamily(to: string): void {
		const other = fonts.find((f) => f.family === to);
		const { weight } = look.type;
		const kept = other ? Math.min(other.heaviest, Math.max(other.lightest, weight)) : weight;
		void desk.set('look.type', { ...look.type, family: to, weight: kept });
	}
</script>

{#snippet figure(label: string, path: string, least: number, most: number, unit = 'px', keepsUnits = false)}
	<Figure
		{label}
		value={(at(path) ?? 0) as Length}
		{least}
		{most}
		{unit}
		{ground}
		{keepsUnits}
		marked={desk.marked === path}
		onfocus={() => desk.mark(path)}
		onset={(value: Length) => desk.set(path, value)}
		ontry={(value: Length) => desk.tryOut({ [path]: value })}
	/>
{/snippet}
{#snippet limited(label: string, path: keyof typeof LIMITS)}
	{@render figure(label, path, LIMITS[path][0], LIMITS[path][1])}
{/snippet}
{#snippet pick(
	label: string,
	path: string,
	options: readonly (readonly [string, string])[],
	onpick?: (value: string) => void,
)}
	<Pick
		{label}
		value={text(path)}
		options={options.map(([value, said]) => ({ value, label: said }))}
		onfocus={() => desk.mark(path)}
		onpick={onpick ?? ((value) => desk.set(path, value))}
	/>
{/snippet}

<div class="text-md">
	<Part name="Size">
		It is
		{@render pick(
			'Size',
			'look.size.kind',
			[
				['natural', 'as wide as its words'],
				['full', 'as wide as its container'],
				['fixed', 'of a fixed size'],
			],
			setSize,
		)}{#if size.kind === 'fixed'}: {@render figure('fixed width', 'look.size.width', 16, 1200, 'px', true)} wide,
			{@render figure('fixed height', 'look.size.height', 16, 400)} px high{/if}.
		{#if size.kind === 'natural'}At least
			{@render figure('least width', 'look.size.least', 0, 400, 'px', true)} px wide.{/if}
		{#if size.kind !== 'fixed'}
			{#if size.least_height_px}
				It is at least {@render figure('least height', 'look.size.least_height_px', 0, 400)} px high.
			{:else}
				<button
					class="value"
					onclick={() => desk.set('look.size.least_height_px', Math.ceil(view.shown.drawing.outer.height))}
					>set a least height…</button
				>
			{/if}
			{#if size.most != null}At most
				{@render figure('most width', 'look.size.most', 16, 1200, 'px', true)} px wide
				<button
					class="value"
					aria-label="No maximum width"
					onclick={() => desk.set('look.size', { ...size, most: undefined })}>×</button
				>{:else}<button
					class="value"
					onclick={() => desk.set('look.size.most', Math.max(16, Math.ceil(view.shown.drawing.outer.width)))}
					>set a maximum width…</button
				>{/if}
		{/if}
	</Part>

	<Part name="Fill" told={look.opacity < 1}>
		It is
		<Pick
			label="Body"
			value={body}
			options={[
				{ value: 'filled', label: 'filled' },
				{ value: 'outlined', label: 'outlined' },
				{ value: 'words', label: 'words only' },
				...(body === 'picture' ? [{ value: 'picture', label: 'a picture' }] : []),
			]}
			onfocus={() => desk.mark('look.fill')}
			onpick={setBody}
		/>: <FillField label="Fill" path="look.fill" {desk} {known} />, with
		<BorderField label="Border" path="look.border" {desk} {known} /> and
		<ShadowsField label="Shadows" path="look.shadows" {desk} {known} />.
		{#snippet rare()}
			Opacity
			<Figure
				label="opacity"
				unit="%"
				value={Math.round(look.opacity * 100)}
				most={100}
				marked={desk.marked === 'look.opacity'}
				onfocus={() => desk.mark('look.opacity')}
				onset={(to: number) => desk.set('look.opacity', to / 100)}
			/> %.
		{/snippet}
	</Part>

	<Part
		name="Type"
		told={look.type.underline_px > 0 ||
			look.type.slant === 'italic' ||
			look.text_shadows.list.length > 0 ||
			look.centring === 'caps' ||
			look.type.case === 'upper'}
	>
		<Pick
			label="Type family"
			value={family}
			options={fonts.map((f) => ({ value: f.family, label: f.name }))}
			onfocus={() => desk.mark('look.type.family')}
			onpick={setFamily}
		/>, weight
		<Pick
			label="Type weight"
			value={text('look.type.weight')}
			options={weights}
			onfocus={() => desk.mark('look.type.weight')}
			onpick={(value) => desk.set('look.type.weight', Number(value))}
		/>, in
		<Colour
			label="Words"
			value={look.text_colour}
			ruled={rest?.words}
			{known}
			ramps={desk.kit?.ramps}
			seeThrough
			onfocus={() => desk.mark('look.text_colour')}
			onset={(to) => desk.set('look.text_colour', to)}
			onrule={() =>
				desk.isOwn('look.text_colour') ? desk.reset('look.text_colour') : desk.set('look.text_colour', 'rule')}
		/>{#if rest?.contrast != null}
			<span
				class={[
					'figure ml-1 text-sm whitespace-nowrap',
					rest.contrast < view.around.needed_contrast ? 'text-must' : 'text-soft',
				]}
				>{rest.contrast < view.around.needed_contrast ? '▲ ' : ''}{(Math.floor(rest.contrast * 100) / 100).toFixed(2)} : 1</span
			>{/if}. Words that are too long
		<span class="whitespace-nowrap"
			>{@render pick('Wrapping', 'look.wrap', [
				['none', 'stick out'],
				['lines', 'wrap onto more lines'],
				['ellipsis', 'end in an ellipsis'],
			])}.</span
		>
		{#snippet rare()}
			Set {@render pick('Italics', 'look.type.slant', [
				['upright', 'upright'],
				['italic', 'in italics'],
			])} and {@render pick('Capitals', 'look.type.case', [
				['as_written', 'as written'],
				['upper', 'in capitals'],
			])}, centred on {@render pick('Centring', 'look.centring', [
				['line', 'their line'],
				['caps', 'their capitals'],
			])}. Underline {@render limited('underline', 'look.type.underline_px')} px{#if look.type.underline_px},
				{@render limited('underline distance', 'look.type.underline_offset_px')} px below the words{/if}. The words cast
			<TextShadowsField {desk} {known} />.
		{/snippet}
	</Part>

	<Part name="Icon">
		{#if icon.kind !== 'none'}The{/if}
		<IconField {desk} />{#if icon.kind !== 'none'}&#32; icon stands
			{@render pick('Side', 'icon.side', [
				['before', 'before the words'],
				['after', 'after the words'],
				['above', 'above the words'],
				['alone', 'alone'],
			])}, {@render figure('icon size', 'icon.size_px', 8, 96)} px tall{#if icon.side !== 'alone'},
				{@render figure('icon gap', 'icon.gap_px', 0, 64)} px apart{/if}.{:else}.{/if}
		{#if wordless}
			Screen readers call it
			<Field
				label="Name for screen readers"
				usual={view.shown.text}
				value={text(`spoken.${view.seen.language}`)}
				onset={(name) => desk.set(`spoken.${view.seen.language}`, name || null)}
			/>.
		{/if}
		{#if icon.kind !== 'none'}
			Centred by {@render pick('Icon centring', 'icon.centring', [
				['box', 'its square'],
				['mass', 'its mass'],
			])}; in right-to-left languages
			<Pick label="From right to left" {...yes('icon.mirror', ['mirrored', 'not mirrored'])} />.
		{/if}
	</Part>

	<Part name="States">
		{#each STATES as state (state)}
			{@const shown = view.states.find((one) => one.state === state)}
			{#if shown}<StateSentence {desk} {look} {state} {shown} {known} />{/if}
		{/each}
	</Part>

	<Part name="Beside it">
		<BesideSentences {view} {desk} {known} />
		The button <Pick label="Standing" {...yes('placement.shown', ['is shown', 'is not shown'])} />
		here{#if view.seen.placement === 'sticky_bar'}; <a class="underline" href={context.href('/place')}>Place</a> says when
			its bar comes, and what it holds{/if}. After a press the shopper
		<Pick
			label="Afterwards"
			value={asking ? 'message' : text('afterwards.kind')}
			options={AFTERWARDS}
			onfocus={() => desk.mark('afterwards.kind')}
			onpick={(kind) => {
				asking = kind === 'message';
				if (!asking) void desk.set('afterwards', kind === 'notify' ? TELL : { kind });
			}}
		/>{#if asking || view.document.afterwards.kind === 'message'}<MessageSentences {view} {desk} />{:else if tells}: the
			mail address goes to <Field
				label="Path of the shop that takes mail addresses"
				most={300}
				value={tells.path}
				onset={(path) => desk.set('afterwards', { ...tells, path })}
			/> alone, as <Field
				label="Name of the address’s field"
				most={60}
				value={tells.mail_field ?? 'email'}
				onset={(mail_field) => desk.set('afterwards', { ...tells, mail_field })}
			/>, with the product’s code as <Field
				label="Name of the product’s field"
				most={60}
				value={tells.product_field ?? 'product'}
				onset={(product_field) => desk.set('afterwards', { ...tells, product_field })}
			/>.{:else if view.document.afterwards.kind !== 'show'}.{/if}
		<SheetSentences {view} {desk} {known} />
	</Part>
</div>
