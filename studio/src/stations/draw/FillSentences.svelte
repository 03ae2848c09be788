<script lang="ts">
	import type { DrawView } from '$lib/api/types';
	import type { Desk } from '$lib/state/desk.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import BorderField from './BorderField.svelte';
	import FillField from './FillField.svelte';
	import Part from './Part.svelte';
	import ShadowsField from './ShadowsField.svelte';

	type Props = { view: DrawView; desk: Desk; known: string[] };
	let { view, desk, known }: Props = $props();
	const { look } = $derived(view.document);
	const rest = $derived(view.states.find(({ state }) => state === 'rest'));
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
</script>

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
