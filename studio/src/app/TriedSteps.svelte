<script lang="ts">
	import type { Tried } from '$lib/api/types';

	type Props = {
		tried: Tried;
		/** It was tried before something was changed. */
		isStale: boolean;
	};
	let { tried, isStale }: Props = $props();
	const says = {
		added: 'It was added.',
		refused: 'It was not added.',
		unknown: 'Nobody can tell whether it was added.',
	};
	const left = $derived(
		tried.result !== 'added'
			? ''
			: tried.at_the_end === tried.before
				? 'It was taken out again.'
				: 'It could not be taken out again.',
	);
</script>

<p class={['text-lg font-semibold', tried.result !== 'added' && 'text-must', isStale && 'opacity-60']}>
	{tried.result === 'added' ? '' : '▲ '}{says[tried.result]}
	{tried.why}
	{left}
	{tried.to_do}
</p>
{#if isStale}<p class="text-soft">Something was changed since. Try it again.</p>{/if}
<table class="ledger mt-2">
	<thead><tr><th>step</th><th>asked</th><th>sent</th><th class="text-right">answer</th></tr></thead>
	<tbody>
		{#each tried.steps as step, n (n)}
			<tr>
				<td>{step.what}</td>
				<td class="figure">{step.request}</td>
				<td class="figure break-all">{step.sent.map(({ name, value }) => `${name}=${value}`).join(' ')}</td>
				<td class="text-right"
					><span class="figure">{step.status || '–'}</span>
					<span class="text-soft">{step.answered.slice(0, 60)}</span></td
				>
			</tr>
		{/each}
	</tbody>
</table>
