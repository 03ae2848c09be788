<script lang="ts">
	import type { Connecting } from '$lib/state/connecting.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Field from '$lib/ui/Field.svelte';

	type Props = { at: Connecting };
	let { at }: Props = $props();
	const now = $derived(at.connection);
	const read = $derived(now.read ?? null);
	const token = $derived(now.token ?? null);
	const body = $derived(now.kind === 'json_call' ? JSON.stringify(now.body) : '');
	let unread = $state('');
	function setBody(text: string): void {
		try {
			at.set({ body: JSON.parse(text) as Record<string, unknown> });
			unread = '';
		} catch (error) {
			unread = `That is no JSON: ${(error as Error).message}`;
		}
	}
	const named = (text: string) =>
		text
			.split(',')
			.map((name) => name.trim())
			.filter(Boolean);
	const methods = ['POST', 'PUT', 'PATCH'].map((value) => ({ value, label: value }));
	const reads = [
		{ value: 'json', label: 'as JSON' },
		{ value: 'page', label: 'on a page' },
		{ value: 'none', label: 'nowhere' },
	];
	const sources = [
		{ value: 'meta', label: 'meta' },
		{ value: 'cookie', label: 'cookie' },
		{ value: 'field', label: 'hidden field' },
	];
	const sent = [
		{ value: 'header', label: 'header' },
		{ value: 'field', label: 'field' },
	];
	const JSON_READ = {
		kind: 'json',
		count: 'count',
		items: 'items',
		product: 'sku',
		option: 'option',
		quantity: 'quantity',
	};
	function readAs(kind: string): void {
		const path = read?.path ?? '/basket';
		at.set({
			read: kind === 'none' ? null : kind === 'page' ? { kind, path, selector: '.count' } : { ...JSON_READ, path },
		});
	}
	const setRead = (patch: object) => at.set({ read: { ...read, ...patch } });
	const change = $derived(now.change ?? null);
	const setChange = (patch: object) => at.set({ change: { ...change, ...patch } });
	function setChangeBody(text: string): void {
		try {
			setChange({ body: JSON.parse(text) as Record<string, unknown> });
			unread = '';
		} catch (error) {
			unread = `That is no JSON: ${(error as Error).message}`;
		}
	}
	/** A common way; the shop's own is said there. */
	const NEW_CHANGE = {
		method: 'POST',
		path: '/basket/set',
		sent_as: 'form',
		body: { product: '{product}', quantity: '{quantity}' },
	};
	const kinds = $derived(now.variants ?? null);
	const setKinds = (patch: object) => at.set({ variants: { ...kinds, ...patch } });
	const NEW_KINDS = { path: '/kinds/{product}', items: 'kinds', product: 'sku', options: ['name'] };
	const SENT_AS = [
		{ value: 'form', label: 'a form’s fields' },
		{ value: 'json', label: 'JSON' },
	];
	const UNITS = [
		{ value: 'whole', label: 'as they are written' },
		{ value: 'smallest', label: 'in the smallest unit' },
	];
	const PARTS = {
		name: 'Name of a line’s name',
		picture: 'Name of a line’s picture',
		page: 'Name of a line’s page',
		amount: 'Name of a line’s amount',
		line: 'Name of a line’s own number',
		sum: 'Name of the sum',
	};
	const setToken = (patch: object) => at.set({ token: { ...token, ...patch } });
	const NEW_TOKEN = { source: 'meta', source_name: 'csrf-token', sent_as: 'header', sent_name: 'X-CSRF-Token' };
</script>

<p class="leading-8">
	{#if now.kind === 'json_call'}
		It goes by <Pick
			label="Method"
			value={now.method ?? 'POST'}
			options={methods}
			onpick={(method) => at.set({ method })}
		/>
	{:else}It goes{/if}
	to <Field
		mono
		label="Address of the basket"
		value={now.add_path}
		onset={(add_path) => at.set({ add_path })}
	/>{#if now.kind === 'json_call'}
		with the body <Field mono label="Body" value={body} onset={setBody} />{/if}.
	{#if now.kind === 'form_post'}
		The product is in <Field
			mono
			label="Field of the product"
			value={now.product_field ?? ''}
			onset={(product_field) => at.set({ product_field })}
		/>, how many in <Field
			mono
			label="Field of the quantity"
			value={now.quantity_field ?? ''}
			usual="no field"
			onset={(quantity_field) => at.set({ quantity_field })}
		/>.
	{/if}
	Choices are in <Field
		mono
		label="Fields of the choices"
		value={(now.option_fields ?? []).join(', ')}
		usual="no field"
		onset={(text) => at.set({ option_fields: named(text) })}
	/>.
</p>
{#snippet part(name: 'name' | 'picture' | 'page' | 'amount' | 'line' | 'sum')}
	<Field
		mono
		label={PARTS[name]}
		value={read?.kind === 'json' ? (read[name] ?? '') : ''}
		usual="nothing"
		onset={(text) => setRead({ [name]: text || null })}
	/>
{/snippet}

{#if unread}<p class="text-must" role="alert">▲ {unread}</p>{/if}
<p class="leading-8">
	{#if token}
		The page’s <Pick
			label="Where the word is"
			value={token.source}
			options={sources}
			onpick={(source) => setToken({ source })}
		/>
		<Field mono label="Name of the word" value={token.source_name} onset={(source_name) => setToken({ source_name })} />
		goes back as the <Pick
			label="How it goes back"
			value={token.sent_as}
			options={sent}
			onpick={(sent_as) => setToken({ sent_as })}
		/>
		<Field
			mono
			label="Name under which it goes back"
			value={token.sent_name}
			onset={(sent_name) => setToken({ sent_name })}
		/>.
		<Press small onpress={() => at.set({ token: null })}>No word</Press>
	{:else}
		No word against forged requests is sent besides what the form holds.
		<Press small onpress={() => at.set({ token: NEW_TOKEN })}>Send one</Press>
	{/if}
</p>
<p class="leading-8">
	What is in the basket is told <Pick
		label="Where the basket is told"
		value={read?.kind ?? 'none'}
		options={reads}
		onpick={readAs}
	/>{#if read}
		at <Field
			mono
			label="Address where the basket is told"
			value={read.path}
			onset={(path) => setRead({ path })}
		/>{/if}{#if read?.kind === 'page'}, in <Field
			mono
			label="Selector of the count"
			value={read.selector}
			onset={(selector) => setRead({ selector })}
		/>.
	{:else if read?.kind === 'json'}, how many in <Field
			mono
			label="Name of the count"
			value={read.count ?? ''}
			usual="the lines’ sum"
			onset={(count) => setRead({ count })}
		/>, the lines in <Field
			mono
			label="Name of the lines"
			value={read.items ?? ''}
			onset={(items) => setRead({ items })}
		/>, and of each its product in <Field
			mono
			label="Name of a line’s product"
			value={read.product ?? ''}
			onset={(product) => setRead({ product })}
		/>, its choice in <Field
			mono
			label="Name of a line’s choice"
			value={read.option ?? ''}
			usual="nothing"
			onset={(option) => setRead({ option })}
		/>
		and its quantity in <Field
			mono
			label="Name of a line’s quantity"
			value={read.quantity ?? ''}
			onset={(quantity) => setRead({ quantity })}
		/>. For a basket that is shown after a press, a line tells its name in {@render part('name')}, its picture in {@render part(
			'picture',
		)}, its page in {@render part('page')}, its amount in {@render part('amount')}, and what the shop calls it in {@render part(
			'line',
		)}; the whole sum is in {@render part('sum')}, and amounts are told
		<Pick
			label="Unit of amounts"
			value={read.smallest ? 'smallest' : 'whole'}
			options={UNITS}
			onpick={(unit) => setRead({ smallest: unit === 'smallest' ? true : null })}
		/>.
	{:else}. Nobody can see then whether a press came through.{/if}
</p>
{#if read?.kind === 'json'}
	<p class="leading-8">
		{#if change}
			A line is changed by <Pick
				label="Method of a change"
				value={change.method ?? 'POST'}
				options={methods}
				onpick={(method) => setChange({ method })}
			/>
			to <Field mono label="Address of a change" value={change.path} onset={(path) => setChange({ path })} />
			with <Field mono label="Body of a change" value={JSON.stringify(change.body ?? {})} onset={setChangeBody} />
			as <Pick
				label="How a change is sent"
				value={change.sent_as ?? 'form'}
				options={SENT_AS}
				onpick={(sent_as) => setChange({ sent_as })}
			/>; with a quantity of 0 it is taken out.
			<Press small onpress={() => at.set({ change: null })}>No changes</Press>
		{:else}
			A basket that is shown can only be looked at.
			<Press small onpress={() => at.set({ change: NEW_CHANGE })}>Say how a line is changed</Press>
		{/if}
	</p>
{/if}
<p class="leading-8">
	{#if kinds}
		What a product comes in is told as JSON at <Field
			mono
			label="Address of a product’s kinds"
			value={kinds.path}
			onset={(path) => setKinds({ path })}
		/>, the kinds in <Field
			mono
			label="Name of the kinds"
			value={kinds.items ?? ''}
			usual="the answer itself"
			onset={(items) => setKinds({ items })}
		/>, and of each its code in <Field
			mono
			label="Name of a kind’s code"
			value={kinds.product ?? 'sku'}
			onset={(product) => setKinds({ product })}
		/>, what it is told apart by in <Field
			mono
			label="Names of what kinds are told apart by"
			value={kinds.options.join(', ')}
			onset={(text) => named(text).length && setKinds({ options: named(text) })}
		/>, its price in <Field
			mono
			label="Name of a kind’s price"
			value={kinds.price ?? ''}
			usual="nothing"
			onset={(price) => setKinds({ price: price || null })}
		/>
		<Pick
			label="Unit of a kind’s price"
			value={kinds.smallest ? 'smallest' : 'whole'}
			options={UNITS}
			onpick={(unit) => setKinds({ smallest: unit === 'smallest' ? true : null })}
		/>, its picture in <Field
			mono
			label="Name of a kind’s picture"
			value={kinds.picture ?? ''}
			usual="nothing"
			onset={(picture) => setKinds({ picture: picture || null })}
		/>, and whether it is there in <Field
			mono
			label="Name of a kind’s stock"
			value={kinds.available ?? ''}
			usual="nothing"
			onset={(available) => setKinds({ available: available || null })}
		/>.
		<Press small onpress={() => at.set({ variants: null })}>No such address</Press>
	{:else}
		What a product comes in is told by its page.
		<Press small onpress={() => at.set({ variants: NEW_KINDS })}>Say an address that tells it</Press>
	{/if}
</p>
<p class="leading-8">
	Shoppers see the basket at <Field
		mono
		label="Page of the basket"
		value={now.basket_path ?? ''}
		onset={(basket_path) => at.set({ basket_path })}
	/>
	and pay at <Field
		mono
		label="Page of the checkout"
		value={now.checkout_path ?? ''}
		onset={(checkout_path) => at.set({ checkout_path })}
	/>.
</p>
