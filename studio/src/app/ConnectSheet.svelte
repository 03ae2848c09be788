<script lang="ts">
	import { Connecting } from '$lib/state/connecting.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Sheet from '$lib/ui/Sheet.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';
	import AddressSentences from './AddressSentences.svelte';
	import ConnectionSentences from './ConnectionSentences.svelte';
	import TriedSteps from './TriedSteps.svelte';
	import Field from '$lib/ui/Field.svelte';

	type Props = { onclose: () => void };
	let { onclose }: Props = $props();
	const workshop = useWorkshop();
	const at = new Connecting(workshop);
	const store = $derived(workshop.info?.store);
	const doing = { reading: 'Reading the shop’s page', trying: 'Putting one into a basket', keeping: 'Keeping it' };
	const kinds = [
		{ value: 'form_post', label: 'the fields of a form' },
		{ value: 'json_call', label: 'JSON' },
		{ value: 'basket_link', label: 'a plain link' },
	] as const;
	async function keep(): Promise<void> {
		if (await at.keep()) onclose();
	}
</script>

<Sheet open title="How {store?.name ?? 'the shop'} is told “one more of this”" {onclose} wide>
	<p class="mt-1 text-soft">Read it from a page, change what is wrong, try it with one product, then keep it.</p>

	<AddressSentences />

	<section class="mt-4" aria-label="The page">
		<p class="leading-8">
			The product’s page is <Field
				mono
				label="Path of a product’s page"
				value={at.page}
				usual="one in stock"
				onset={(page) => (at.page = page)}
			/>
			with <Field
				mono
				label="Code of the product"
				value={at.code}
				usual="its code"
				onset={(code) => (at.code = code)}
			/>, behind <Field
				mono
				label="Password of the shop"
				value={at.password}
				usual="no password"
				secret
				onset={(password) => (at.password = password)}
			/>.
			<Press small disabled={Boolean(at.doing)} onpress={() => at.read()}>Read it</Press>
		</p>
		{#if at.proposal}
			<ul class="mt-2" aria-label="What the page shows">
				{#each at.proposal.said as ground, n (n)}
					<li><span class="where figure">{ground.where}</span>{ground.sentence}</li>
				{/each}
				{#each at.proposal.unsure as unsure, n (n)}
					<li class="text-look"><span class="where figure">◇</span>{unsure}</li>
				{/each}
			</ul>
		{/if}
	</section>

	<section class="mt-4 border-t border-hair pt-3" aria-label="The connection">
		<p class="leading-8">
			A press sends <Pick
				label="What a press sends"
				value={at.connection.kind ?? 'form_post'}
				options={kinds}
				onpick={(kind) => at.become(kind)}
			/>.
		</p>
		<ConnectionSentences {at} />
	</section>

	<section class="mt-4 border-t border-hair pt-3" aria-label="The trial">
		{#if at.doing}
			<Waiting what={doing[at.doing]} />
		{:else if at.tried}
			<TriedSteps tried={at.tried} isStale={!at.isTried} />
			{#if at.tried.better && at.connection.read?.kind !== 'json'}
				<p class="mt-2">
					The basket also answers as JSON at <code class="figure">{at.tried.better.path}</code>, with its lines. Read
					so, buttons can say what is in the basket, and how many.
					<Press small onpress={() => at.set({ read: at.tried?.better ?? null })}>Read it as JSON</Press>
				</p>
			{/if}
		{:else}
			<p class="text-soft">Not tried yet. One product goes into a basket of a visitor of ours, and out again.</p>
		{/if}
	</section>

	{#if at.kept.read?.kind === 'json' && at.connection.read?.kind === 'page'}
		<p class="mt-3 text-look">
			◇ The store reads the lines of its basket as JSON now. With a page’s count alone, no button can say any more that
			its product is in the basket.
		</p>
	{/if}
	<p class="keys flex items-center gap-3">
		<Press disabled={Boolean(at.doing)} onpress={() => at.try()}>Try it</Press>
		<Press main disabled={Boolean(at.doing) || !at.isOther} onpress={keep}>Keep it</Press>
		<Press onpress={onclose}>Close</Press>
		{#if at.isOther && !at.isTried}<span class="text-soft">Changed and not tried.</span>{/if}
	</p>
</Sheet>

<style>
	/* However long the trial: the keys stay in sight. */
	.keys {
		position: sticky;
		bottom: -24px;
		margin: 16px -24px -24px;
		border-top: 1px solid var(--color-hair);
		background: var(--color-leaf);
		padding: 14px 24px;
	}
	.where {
		display: inline-block;
		width: 64px;
		color: var(--color-soft);
	}
</style>
