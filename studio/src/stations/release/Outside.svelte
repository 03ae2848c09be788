<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import type { OutsideOrder } from '$lib/api/types';
	import { many } from '$lib/pure/format';
	import { OutsideMaking } from '$lib/state/outside.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import ProductPick from '../../shared/ProductPick.svelte';
	import HandedOut from './HandedOut.svelte';
	import OutsideShown from './OutsideShown.svelte';
	import Field from '$lib/ui/Field.svelte';

	const workshop = useWorkshop();
	const { context } = workshop;
	const making = new OutsideMaking(workshop);
	const handedOut = createQuery(() => workshop.ask.outside());
	const order = $derived(making.order);
	const kinds = [
		{ value: 'web', label: 'HTML for a page' },
		{ value: 'mail', label: 'HTML for a mail' },
		{ value: 'picture', label: 'a picture with a link' },
		{ value: 'form', label: 'a form' },
		{ value: 'link', label: 'a plain link' },
		{ value: 'print', label: 'a code to print' },
	] as const;
	const drawn = [
		{ value: 'as_drawn', label: 'as in the shop' },
		{ value: 'filled', label: 'filled' },
		{ value: 'outlined', label: 'outlined' },
	] as const;
	const leads = [
		{ value: 'page', label: 'its page' },
		{ value: 'basket', label: 'the basket at once' },
	] as const;
	/** Outside has a layer of its own once it says something. */
	const hasOwn = $derived(Boolean(workshop.info?.store.surfaces.outside));
	async function giveOwn(): Promise<void> {
		if (!(await workshop.change('place:outside', { placement: { shown: true } }))) return;
		await workshop.reloadStore();
		context.go('/draw/outside');
	}
	const rows = ['1', '2', '3', '4'].map((n) => ({ value: n, label: n === '1' ? 'one' : n }));
	const languages = $derived(
		(workshop.info?.spoken ?? []).map(({ language, name }) => ({ value: language, label: name })),
	);
	const isSheet = $derived(order.kind !== 'link');
	const want = (change: Partial<OutsideOrder>) => making.want(change);
	// It begins with a product, so that there is something to see at once.
	const first = createQuery(() => workshop.ask.products(''));
	let hasBegun = false;
	$effect(() => {
		const wanted = context.product || first.data?.products[0]?.sku;
		if (hasBegun || !wanted) return;
		hasBegun = true;
		making.add(wanted);
	});
</script>

<div class="outside">
	<section class="px-6 pt-5 pb-8" aria-label="What is made">
		<p class="mb-1"><a href={context.href('/release')}>← Release</a></p>
		<h1 class="text-xl">Buttons outside the shop</h1>
		<p class="mt-1 text-soft">
			For mails, posts, partner pages and print. No script: the look is in the code, and the link stays good after every
			release.
		</p>
		<p class="sentence mt-4">
			{#each order.products as sku (sku)}
				<span class="chosen">
					<bdi>{making.names[sku] ?? sku}</bdi>
					<button class="target" aria-label="Leave out {making.names[sku] ?? sku}" onclick={() => making.drop(sku)}
						>×</button
					>
				</span>
			{/each}
			<ProductPick
				sku=""
				name={order.products.length ? 'another product' : 'a product'}
				onpick={(sku) => making.add(sku)}
			/>
			as <Pick
				label="Kind"
				value={order.kind ?? 'web'}
				options={kinds}
				onpick={(kind) => want({ kind })}
			/>{#if isSheet},
				<Pick
					label="In a row"
					value={String(order.across)}
					options={rows}
					onpick={(n) => want({ across: Number(n) })}
				/> in a row{/if}{#if isSheet && order.kind !== 'print'}, drawn
				<Pick
					label="Drawn"
					value={order.drawn ?? 'as_drawn'}
					options={drawn}
					onpick={(how) => want({ drawn: how })}
				/>{/if}, in
			<Pick
				label="Language"
				value={order.language ?? workshop.info?.store.language ?? ''}
				options={languages}
				onpick={(language) => want({ language })}
			/>. {#if order.kind !== 'form'}A press leads to <Pick
					label="Leads to"
					value={order.leads ?? 'page'}
					options={leads}
					onpick={(where) => want({ leads: where })}
				/>{:else}A press puts it into the basket{/if} and is counted for
			<Field
				label="Campaign"
				value={order.campaign ?? ''}
				usual="no campaign"
				most={60}
				onset={(campaign) => want({ campaign })}
			/>.
		</p>
		<p class="mt-1 text-soft">
			{#if hasOwn}Outside has <a class="underline" href={context.href('/draw/outside')}>a look</a> and
				<a class="underline" href={context.href('/words')}>words</a> of its own.
			{:else}It looks and speaks as the store’s baseline does.
				<button class="underline" onclick={() => giveOwn()}>Give it a look and words of its own</button>{/if}
		</p>
		<OutsideShown {making} />
	</section>
	<aside class="border-l border-hair px-6 pt-5" aria-label="What was handed out">
		{#if handedOut.data}
			<HandedOut view={handedOut.data} />
		{:else if handedOut.error}
			<p role="alert">{handedOut.error.message}</p>
		{/if}
		{#if handedOut.data?.count}
			<p class="mt-3 text-soft">
				{many(handedOut.data.count, 'button')} handed out. Presses by programs that look at links are not counted.
			</p>
		{/if}
	</aside>
</div>

<style>
	.outside {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 400px;
		min-height: calc(100vh - 67px);
	}
	.sentence {
		font-size: var(--text-md);
		line-height: 2.1;
	}
	.chosen {
		display: inline-flex;
		align-items: center;
		margin-right: 6px;
		border-bottom: 2px solid var(--color-ink);
		font-weight: 650;
		line-height: 1.5;
	}
	@media (max-width: 1000px) {
		.outside {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
