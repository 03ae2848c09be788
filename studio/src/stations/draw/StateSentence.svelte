<script lang="ts">
	import type { Look, StateName, StateShown } from '$lib/api/types';
	import type { Desk } from '$lib/state/desk.svelte';
	import Colour from '$lib/ui/Colour.svelte';
	import Figure from '$lib/ui/Figure.svelte';
	import Float from '$lib/ui/Float.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import BorderField from './BorderField.svelte';
	import FillField from './FillField.svelte';
	import ShadowsField from './ShadowsField.svelte';

	type Props = {
		desk: Desk;
		/** The look that has the state. */
		look: Look;
		state: StateName;
		shown: StateShown;
		known: readonly string[];
	};
	let { desk, look, state, shown, known }: Props = $props();
	const when: Record<string, string> = {
		hover: 'When hovered',
		pressed: 'While pressed',
		focus: 'When focused',
		disabled: 'When it cannot be pressed',
		working: 'While working',
		added: 'Once added',
	};
	const own = $derived(look[state]);
	const motion = $derived(own.motion);
	const rest = $derived(look.motion);
	const opacity = $derived(own.opacity);
	const PARTS = ['fill', 'text_colour', 'border', 'shadows', 'opacity', 'motion'] as const;
	const differs = $derived(PARTS.filter((part) => !isByRule(own[part])));
	/** Whether nobody has set a value by hand. */
	function isByRule(value: unknown): boolean {
		const kind = value && typeof value === 'object' && 'kind' in value ? value.kind : value;
		return value == null || kind === 'rule';
	}
	const short = $derived(
		shown.contrast !== null && state !== 'disabled' && shown.contrast < (desk.view?.around.needed_contrast ?? 4.5),
	);
	const curves = ['linear', 'ease', 'ease-in', 'ease-out', 'ease-in-out'].map((curve) => ({
		value: curve,
		label: curve,
	}));
	const moved = (change: object) => desk.set(`look.${state}.motion`, { ...rest, ...motion, ...change });
</script>

<p data-state-of={state}>
	{when[state]}
	<FillField label="Fill {when[state]?.toLowerCase()}" path="look.{state}.fill" {desk} {known} ruled={shown.fill} />
	with
	<Colour
		label="Words {when[state]?.toLowerCase()}"
		value={own.text_colour}
		ruled={shown.words}
		{known}
		ramps={desk.kit?.ramps}
		seeThrough
		onfocus={() => desk.mark(`look.${state}.text_colour`)}
		onset={(to) => desk.set(`look.${state}.text_colour`, to)}
		onrule={() =>
			desk.isOwn(`look.${state}.text_colour`)
				? desk.reset(`look.${state}.text_colour`)
				: desk.set(`look.${state}.text_colour`, 'rule')}
	/>{#if shown.contrast !== null}
		<span class={['figure ml-1 text-sm whitespace-nowrap', short ? 'text-must' : 'text-soft']}
			>{short ? '▲ ' : ''}{(Math.floor(shown.contrast * 100) / 100).toFixed(2)} : 1</span
		>{/if}{#if state === 'focus'}, a ring of
		<Figure
			label="focus ring"
			value={look.focus.ring_width_px}
			least={1}
			most={12}
			marked={desk.marked === 'look.focus.ring_width_px'}
			onfocus={() => desk.mark('look.focus.ring_width_px')}
			onset={(to: number) => desk.set('look.focus.ring_width_px', to)}
		/> px in
		<Colour
			label="Focus ring"
			value={look.focus.ring_colour}
			ruled={desk.view?.around.ring}
			{known}
			ramps={desk.kit?.ramps}
			seeThrough
			onfocus={() => desk.mark('look.focus.ring_colour')}
			onset={(to) => desk.set('look.focus.ring_colour', to)}
			onrule={() => desk.reset('look.focus.ring_colour')}
		/>,
		<Figure
			label="focus ring offset"
			value={look.focus.ring_offset_px}
			least={-12}
			most={24}
			onfocus={() => desk.mark('look.focus.ring_offset_px')}
			onset={(to: number) => desk.set('look.focus.ring_offset_px', to)}
		/> away{/if}{#if state === 'working'},
		<Pick
			label="What moves while working"
			value={look.working.tell}
			options={[
				{ value: 'tick', label: 'a tick runs along the edge' },
				{ value: 'breath', label: 'the words breathe' },
				{ value: 'none', label: 'nothing moves' },
			]}
			onfocus={() => desk.mark('look.working.tell')}
			onpick={(to) => desk.set('look.working.tell', to)}
		/>{:else if state === 'added'},
		<Pick
			label="What moves once added"
			value={look.added.tell}
			options={[
				{ value: 'mark', label: 'a mark stands up' },
				{ value: 'ring', label: 'a ring goes out' },
				{ value: 'none', label: 'nothing moves' },
			]}
			onfocus={() => desk.mark('look.added.tell')}
			onpick={(to) => desk.set('look.added.tell', to)}
		/>{/if}
	<span class="whitespace-nowrap">
		<Float label="More {when[state]?.toLowerCase()}" wide>
			{#snippet trigger()}<span class="font-normal">{differs.length > 2 ? `+${differs.length - 2}` : '+'}</span
				>{/snippet}
			<p class="mb-2 text-md font-semibold">{when[state]}, besides its colours</p>
			<p class="leading-loose">
				It has <BorderField label="Border {when[state]?.toLowerCase()}" path="look.{state}.border" {desk} {known} /> and
				<ShadowsField label="Shadows {when[state]?.toLowerCase()}" path="look.{state}.shadows" {desk} {known} />, is
				with an opacity of
				<Figure
					label="opacity"
					unit="%"
					value={Math.round((opacity ?? look.opacity) * 100)}
					most={100}
					onset={(to: number) => desk.set(`look.${state}.opacity`, to / 100)}
				/> % and comes in
				<Figure
					label="duration"
					unit="ms"
					value={(motion ?? rest).duration_ms}
					most={3000}
					onset={(to: number) => moved({ duration_ms: Math.round(to) })}
				/>
				ms after
				<Figure
					label="delay"
					unit="ms"
					value={(motion ?? rest).delay_ms}
					most={3000}
					onset={(to: number) => moved({ delay_ms: Math.round(to) })}
				/> ms,
				<Pick label="Curve" value={(motion ?? rest).curve} options={curves} onpick={(curve) => moved({ curve })} />.
			</p>
			{#if differs.length}
				<p class="mt-3">
					<button
						class="value"
						onclick={() =>
							desk.resetAll(differs.map((part) => `look.${state}.${part}`).filter((path) => desk.isOwn(path)))}
					>
						reset all of it
					</button>
				</p>
			{/if}
		</Float>.</span
	>
</p>
