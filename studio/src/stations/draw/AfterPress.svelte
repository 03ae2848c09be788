<script lang="ts">
	import type { DrawView } from '$lib/api/types';
	import type { Desk } from '$lib/state/desk.svelte';
	import Field from '$lib/ui/Field.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import MessageSentences from './MessageSentences.svelte';

	type Props = { view: DrawView; desk: Desk };
	let { view, desk }: Props = $props();
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
	const { afterwards } = $derived(view.document);
	const tells = $derived(afterwards.kind === 'notify' ? afterwards : null);
	/** A message is asked for, and it is not yet said to whom. */
	let asking = $state(false);
</script>

After a press the shopper
<Pick
	label="Afterwards"
	value={asking ? 'message' : afterwards.kind}
	options={AFTERWARDS}
	onfocus={() => desk.mark('afterwards.kind')}
	onpick={(kind) => {
		asking = kind === 'message';
		if (!asking) void desk.set('afterwards', kind === 'notify' ? TELL : { kind });
	}}
/>{#if asking || afterwards.kind === 'message'}<MessageSentences {view} {desk} />{:else if tells}: the mail address goes
	to <Field
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
	/>.{:else if afterwards.kind !== 'show'}.{/if}
