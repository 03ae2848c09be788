<script lang="ts">
	import type { DrawView } from '$lib/api/types';
	import type { Ground } from '$lib/pure/length';
	import type { Desk } from '$lib/state/desk.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Colour from '$lib/ui/Colour.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import DeskFigure from './DeskFigure.svelte';
	import DeskPick from './DeskPick.svelte';
	import Part from './Part.svelte';
	import TextShadowsField from './TextShadowsField.svelte';

	type Props = { view: DrawView; desk: Desk; ground: Ground; known: string[] };
	let { view, desk, ground, known }: Props = $props();
	const workshop = useWorkshop();
	const WEIGHTS = [300, 400, 500, 600, 650, 700, 800, 900];
	const { look } = $derived(view.document);
	const { family } = $derived(look.type);
	const fonts = $derived(workshop.info?.fonts ?? []);
	const font = $derived(fonts.find((f) => f.family === family));
	const weights = $derived(
		WEIGHTS.filter((w) => font && w >= font.lightest && w <= font.heaviest).map((w) => ({
			value: String(w),
			label: String(w),
		})),
	);
	const rest = $derived(view.states.find(({ state }) => state === 'rest'));
	/** Whether it says something that is rarely said, which is then seen at once. */
	const saysRare = $derived(
		look.type.underline_px > 0 ||
			look.type.slant === 'italic' ||
			look.text_shadows.list.length > 0 ||
			look.centring === 'caps' ||
			look.type.case === 'upper',
	);

	function setFamily(to: string): void {
		const other = fonts.find((f) => f.family === to);
		const { weight } = look.type;
		const kept = other ? Math.min(other.heaviest, Math.max(other.lightest, weight)) : weight;
		void desk.set('look.type', { ...look.type, family: to, weight: kept });
	}
</script>

<Part name="Type" told={saysRare}>
	<Pick
		label="Type family"
		value={family}
		options={fonts.map((f) => ({ value: f.family, label: f.name }))}
		onfocus={() => desk.mark('look.type.family')}
		onpick={setFamily}
	/>, weight
	<Pick
		label="Type weight"
		value={String(look.type.weight)}
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
		><DeskPick
			{desk}
			label="Wrapping"
			path="look.wrap"
			options={[
				['none', 'stick out'],
				['lines', 'wrap onto more lines'],
				['ellipsis', 'end in an ellipsis'],
			]}
		/>.</span
	>
	{#snippet rare()}
		Set <DeskPick
			{desk}
			label="Italics"
			path="look.type.slant"
			options={[
				['upright', 'upright'],
				['italic', 'in italics'],
			]}
		/> and <DeskPick
			{desk}
			label="Capitals"
			path="look.type.case"
			options={[
				['as_written', 'as written'],
				['upper', 'in capitals'],
			]}
		/>, centred on <DeskPick
			{desk}
			label="Centring"
			path="look.centring"
			options={[
				['line', 'their line'],
				['caps', 'their capitals'],
			]}
		/>. Underline <DeskFigure {desk} {ground} label="underline" path="look.type.underline_px" /> px{#if look.type.underline_px},
			<DeskFigure {desk} {ground} label="underline distance" path="look.type.underline_offset_px" /> px below the words{/if}.
		The words cast
		<TextShadowsField {desk} {known} />.
	{/snippet}
</Part>
