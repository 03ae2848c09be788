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

<p role="status" class={['text-lg font-semibold', tried.result !== 'added' && 'text-must', isStale && 'opacity-60']}>
	{tried.result === 'added' ? '' : '▲ '}{says[tried.result]}
	{tried.why}
	{left}
	{tried.to_do}
</p>
{#if isStale}<p class="text-soft">Something was changed since. Try it again.</p>{/if}
<ol class="mt-2" aria-label="What was asked and answered">
	{#each tried.steps as step, n (n)}
		<li class="step">
			<span>{step.what}</span>
			<span class="min-w-0">
				<span class="font-mono break-all">{step.request}</span>
				{#if step.sent.length}
					<span class="block font-mono text-sm break-all text-soft"
						>{step.sent.map(({ name, value }) => `${name}=${value}`).join('  ')}</span
					>
				{/if}
			</span>
			<span class="font-mono">{step.status || '–'}</span>
			<span class="min-w-0 truncate text-soft" title={step.answered}>{step.answered}</span>
		</li>
	{/each}
</ol>

<style>
	.step {
		display: grid;
		grid-template-columns: 150px minmax(0, 1.4fr) 40px minmax(0, 1fr);
		gap: 4px 14px;
		border-bottom: 1px solid var(--color-hair);
		padding: 5px 0;
	}
	@media (max-width: 700px) {
		.step {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
