<script lang="ts">
	import type { Candidate } from '$lib/api/types';
	import { date } from '$lib/pure/format';

	type Props = {
		candidates: readonly Candidate[];
		/** Says a value as a person would. */
		say?: (value: unknown) => string;
	};
	let { candidates, say = (value) => (typeof value === 'object' ? JSON.stringify(value) : String(value)) }: Props =
		$props();
</script>

<ol class="divide-y divide-hair">
	{#each candidates as one, n (one.layer)}
		<li class="flex gap-3 py-2">
			<span class={['figure shrink-0 px-1', one.wins && 'bg-marker']}>{n + 1}</span>
			<div>
				<b class={one.wins ? '' : 'text-soft'}>{one.title}</b>
				<span class={one.wins ? '' : 'text-soft'}
					>{say(one.value)}{one.wins ? '' : ', beaten: the one above is closer'}</span
				>
				{#if one.note}
					<p class="text-soft">
						{one.note}
						{one.author}{one.made_at ? `, ${date(one.made_at)}` : ''}. For {one.reach}.
					</p>
				{/if}
			</div>
		</li>
	{/each}
</ol>
