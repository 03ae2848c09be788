<script lang="ts" module>
	/** The placements that say themselves how they stand, as far as the draft has them. */
	export const OWN_STANDING = {
		sticky_bar: 'The bar',
		floating: 'The floating button',
		over_picture: 'On pictures',
	} as const;
	export type OwnStanding = keyof typeof OWN_STANDING;
</script>

<script lang="ts">
	import type { ComponentProps } from 'svelte';
	import type { Device } from '$lib/api/types';
	import { together } from '$lib/pure/edit';
	import { patchAt } from '$lib/pure/patch';
	import type { AlongThePage } from '$lib/state/along.svelte';
	import type { Desk } from '$lib/state/desk.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Press from '$lib/ui/Press.svelte';
	import BarSentences from './BarSentences.svelte';
	import FloatingSentences from './FloatingSentences.svelte';
	import OverSentences from './OverSentences.svelte';
	import WhereItStands from './WhereItStands.svelte';

	type Props = {
		at: AlongThePage;
		device: Device;
		desk: Desk;
		/** The one that is edited, and all that the draft has. */
		standing?: OwnStanding;
		standings: readonly OwnStanding[];
		language: string;
		/** The product of the page, where it is one's own; and where the page is. */
		product: string;
		path: string;
		/** Whether it is known what the draft has. */
		isKnown: boolean;
		/** Whether a button on a picture was met along this page. */
		isOnPicture: boolean;
		onstep: ComponentProps<typeof WhereItStands>['onstep'];
	};
	let { at, device, desk, standing, standings, language, product, path, isKnown, isOnPicture, onstep }: Props =
		$props();
	const workshop = useWorkshop();
	const { context } = workshop;
	const onDevice = $derived(at.on(device));
	/** Why the one that is picked stands nowhere on this page. */
	const awaySaid = $derived.by(() => {
		// What comes later than the first look along the page counts as well.
		const isMet = () => isOnPicture || onDevice?.along.lanes.some(({ key }) => key === 'over_picture');
		if (standing === 'over_picture') return isMet() ? '' : 'No picture of this page has a button on it.';
		if (product || desk.view?.document.placement.product) return '';
		return `No ${standing === 'floating' ? 'floating button' : 'bar'} stands on this page: it is no product’s own.`;
	});
	/** Whether what stands for one product of its own hangs on this page, as far as it is measured. */
	const isElsewhere = $derived.by(() => {
		const survey = at.surveys[device];
		if (!survey || !desk.view?.document.placement.product) return false;
		return (standing === 'floating' && !survey.floating) || (standing === 'sticky_bar' && !survey.bar);
	});

	function choose(placement: OwnStanding): void {
		context.look({ placement, layer: '' });
	}

	/** Lets the draft have a floating button, in the corner where it is usual to have one. */
	async function float(): Promise<void> {
		const comes = { kind: 'distance', px: 200 };
		const done = await workshop.change('place:floating', { floating: { corner: 'bottom_end', comes } });
		if (done) choose('floating');
	}

	async function unfloat(): Promise<void> {
		const all = Object.keys(desk.kept?.document ?? {});
		context.look({ placement: '', layer: '' });
		await workshop.change('place:floating', together([...all, 'uses'].map((name) => patchAt(name, null))));
	}
</script>

<div>
	<h2 class="standings">
		{#each standings as placement (placement)}
			<button class="name" aria-pressed={placement === standing} onclick={() => choose(placement)}
				>{OWN_STANDING[placement]}</button
			>
		{/each}
		{#if isKnown && !standings.includes('floating')}
			<Press small onpress={float}>Add a floating button</Press>
		{/if}
	</h2>
	{#if standing}
		<WhereItStands placement={standing} {device} {language} {path} {onstep} />
	{/if}
	{#if awaySaid}
		<p class="text-soft">{awaySaid}</p>
	{:else if desk.view && desk.view.seen.placement === standing}
		{@const view = desk.view}
		{@const onlayer = (to: string) => context.look({ layer: to })}
		{#if isElsewhere}<p class="text-soft">It does not hang on this page.</p>{/if}
		{#if standing === 'sticky_bar'}
			<BarSentences {desk} {view} {device} {onlayer} />
		{:else if standing === 'floating'}
			<FloatingSentences {desk} {view} {device} {onlayer} onremove={unfloat} />
		{:else}
			<OverSentences {desk} {view} {onlayer} />
		{/if}
	{/if}
</div>

<style>
	.name {
		font-weight: 650;
		border-bottom: 2px solid transparent;
	}
	.name[aria-pressed='true'] {
		border-color: var(--color-ink);
	}
	.standings .name {
		min-height: 24px;
	}
	.standings {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 4px 18px;
		font-size: 15px;
		font-weight: 400;
	}
</style>
