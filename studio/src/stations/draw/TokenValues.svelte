<script lang="ts">
	import type { TokenValue } from '$lib/api/types';
	import { many } from '$lib/pure/format';
	import Chip from '$lib/ui/Chip.svelte';
	import Empty from '$lib/ui/Empty.svelte';
	import Pick from '$lib/ui/Pick.svelte';

	type Props = {
		values: readonly TokenValue[];
		/** The field that each is laid onto. */
		laid: Readonly<Record<string, string>>;
		onlay: (laid: Record<string, string>) => void;
	};
	let { values, laid, onlay }: Props = $props();
	const SHOWN = 60;
	let part = $state('');
	/** What the names suggest: of several for one field the first, since a field has one value. */
	const proposals = $derived(
		values.filter(
			({ proposal, type }, n) => proposal && values.findIndex((v) => v.proposal === proposal && v.type === type) === n,
		),
	);
	function lay(value: TokenValue, field: string): void {
		const isFree = (name: string) => laid[name] !== field || typeOf.get(name) !== value.type;
		const others = Object.entries(laid).filter(([name]) => isFree(name));
		onlay({ ...Object.fromEntries(others), [value.name]: field });
	}
	const typeOf = $derived(new Map(values.map(({ name, type }) => [name, type])));
	const named = $derived(values.filter((value) => value.name.toLowerCase().includes(part.trim().toLowerCase())));
	const optionsOf = ({ name, fields, proposal }: TokenValue) => [
		{ value: '', label: 'not used' },
		...fields.map(({ path, title }) => ({
			value: path,
			label: path === proposal && laid[name] !== path ? `${title}, as its name suggests` : title,
		})),
	];
</script>

<h3 class="mt-4 mb-1">Values under other names</h3>
{#if proposals.length}
	<button
		class="value mb-2"
		onclick={() => onlay(Object.fromEntries(proposals.map((proposal) => [proposal.name, proposal.proposal])))}
		>lay {many(proposals.length, 'value')} as {proposals.length > 1
			? 'their names suggest'
			: 'its name suggests'}</button
	>
{/if}
{#if values.length > 12}
	<input class="field mb-2 w-full" aria-label="A part of the name" placeholder="a part of the name" bind:value={part} />
{/if}
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<ul class="max-h-72 overflow-auto text-sm" aria-label="Values under other names" tabindex="0">
	{#each named.slice(0, SHOWN) as value, n (n)}
		<li class="row border-b border-hair py-1">
			<span class="font-mono break-all">{value.name}</span>
			<span>
				{#if value.type === 'color'}<Chip of={value.says} />{/if}
				<span class="figure">{value.says}{value.type === 'dimension' ? ' px' : ''}</span>
			</span>
			<Pick
				label="Field for {value.name}"
				value={laid[value.name] ?? ''}
				options={optionsOf(value)}
				onpick={(field) => lay(value, field)}
			/>
		</li>
	{:else}
		<Empty tag="li">No value has that in its name.</Empty>
	{/each}
</ul>
{#if named.length > SHOWN}
	<p class="mt-1 text-sm text-soft">and {named.length - SHOWN} more: type a part of the name.</p>
{/if}

<style>
	.row {
		display: grid;
		grid-template-columns: minmax(0, 5fr) minmax(0, 4fr) minmax(0, 6fr);
		column-gap: 12px;
		align-items: baseline;
	}
</style>
