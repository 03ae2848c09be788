<script lang="ts">
	import type { Finding, Fix } from '$lib/api/types';
	import { count } from '$lib/pure/format';
	import Press from './Press.svelte';

	type Props = {
		findings: readonly Finding[];
		onfix: (fix: Fix) => void;
		/** Shows where the button can be drawn. */
		withPlace?: boolean;
		/** How many there are, where not all of them are here. */
		total?: number;
		/** Called when more are wanted. */
		onmore?: () => void;
		/** The number of each finding that shares its spot with others, as the drawing has it. */
		numbers?: readonly number[];
	};
	let { findings, onfix, withPlace = false, total = 0, onmore, numbers = [] }: Props = $props();
	const names = { must_fix: 'Must fix', look_again: 'Look again', note: 'Note' };
	const signs = { must_fix: '▲', look_again: '◇', note: '–' };
</script>

<ul class="divide-y divide-hair" aria-label="Findings">
	{#each findings as finding, n (`${n}/${finding.rule}/${finding.title}`)}
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
					{#each finding.fixes as fix, n (n)}
						<Press small onpress={() => onfix(fix)} label="Fix: {fix.label}">{fix.label}</Press>
					{/each}
				</p>
			{/if}
		</li>
	{/each}
</ul>
{#if findings.length < total && onmore}
	<p class="py-3"><Press small onpress={onmore}>Show more of {count(total)}</Press></p>
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
