<script lang="ts">
	import type { Finding, Fix } from '$lib/api/types';
	import Press from './Press.svelte';

	type Props = {
		findings: readonly Finding[];
		onfix: (fix: Fix) => void;
		/** Shows where the button can be drawn. */
		withPlace?: boolean;
		/** Shows so many at first. */
		most?: number;
		/** The number of each finding that shares its spot with others, as the drawing has it. */
		numbers?: readonly number[];
	};
	let { findings, onfix, withPlace = false, most = Infinity, numbers = [] }: Props = $props();
	let shown = $state(0);
	const listed = $derived(findings.slice(0, Math.max(most, shown)));
	const names = { must_fix: 'Must fix', look_again: 'Look again', note: 'Note' };
	const signs = { must_fix: '▲', look_again: '◇', note: '–' };
</script>

<ul class="divide-y divide-hair" aria-label="Findings">
	{#each listed as finding, n (`${n}/${finding.rule}/${finding.title}`)}
		<li class="py-3" data-weight={finding.weight} data-rule={finding.rule}>
			<p class="text-md">
				<b
					class={finding.weight === 'must_fix'
						? 'text-must'
						: finding.weight === 'look_again'
							? 'text-look'
							: 'text-soft'}
					>{signs[finding.weight]} <span class={withPlace ? 'sr-only' : ''}>{names[finding.weight]}.</span></b
				>
				<b>{finding.title}</b>
				{#if numbers[n]}<span class="number">{numbers[n]}</span>{/if}
			</p>
			<p class="mt-0.5 text-soft">{finding.says}</p>
			{#if finding.fixes?.length}
				<p class="mt-2 flex flex-wrap gap-2">
					{#each finding.fixes as fix (fix.label)}
						<Press small onpress={() => onfix(fix)} label="Fix: {fix.label}">{fix.label}</Press>
					{/each}
				</p>
			{/if}
		</li>
	{/each}
</ul>
{#if listed.length < findings.length}
	<p class="py-3">
		<Press small onpress={() => (shown = listed.length + 40)}>Show more of {findings.length}</Press>
	</p>
{/if}

<style>
	.number {
		display: inline-block;
		min-width: 18px;
		border: 1px solid var(--color-ink);
		border-radius: 9px;
		text-align: center;
		font-size: 11px;
		line-height: 16px;
	}
</style>
