<script lang="ts">
	import type { WhyLine } from '$lib/api/types';
	import { date } from '$lib/pure/format';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Empty from '$lib/ui/Empty.svelte';
	import Press from '$lib/ui/Press.svelte';

	type Props = {
		lines: readonly WhyLine[];
		/** Leads to where a layer is edited that is no exception. */
		onjump?: (layer: string) => void;
	};
	let { lines, onjump }: Props = $props();
	const workshop = useWorkshop();
	/** Says why a line does not win. */
	function beaten(line: WhyLine, n: number): string {
		if (line.of.inactive) return line.of.inactive;
		return n ? 'overridden by the one above' : 'this is what shows';
	}
</script>

<ol class="divide-y divide-hair" aria-label="Why">
	{#each lines as line, n (line.of.layer)}
		<li class={['flex gap-3 py-2', !line.of.wins && 'text-soft']}>
			<span class={['figure shrink-0 px-1', line.of.wins && 'bg-marker']}>{line.of.inactive ? '×' : n + 1}</span>
			<div class="min-w-0 flex-1">
				<b>{line.of.title}</b>
				{line.value_words} <span class="text-soft">· {beaten(line, n)}</span>
				{#if line.of.note}
					<p class="text-soft">
						For {line.reach_words}. {line.of.note}
						{line.of.author}{line.of.made_at ? `, ${date(line.of.made_at)}` : ''}.
					</p>
				{/if}
			</div>
			<span class="flex shrink-0 items-start gap-1">
				{#if line.exception}
					<Press small onpress={() => (workshop.opened.exception = line.exception)} label="Edit {line.of.title}"
						>Edit</Press
					>
					{#if line.of.inactive === 'switched off'}
						<Press small onpress={() => workshop.changeException(line.exception, { on: true })}>Switch on</Press>
					{:else if !line.of.inactive}
						<Press
							small
							onpress={() => workshop.changeException(line.exception, { on: false })}
							label="Switch off {line.of.title}"
						>
							Switch off
						</Press>
					{/if}
				{:else if onjump}
					<Press small onpress={() => onjump(line.of.layer)} label="Go to {line.of.title}">Go there</Press>
				{/if}
			</span>
		</li>
	{:else}
		<Empty tag="li">No layer sets this.</Empty>
	{/each}
</ol>
