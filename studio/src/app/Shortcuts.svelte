<script lang="ts">
	import { readable, useActions, type ActionGroup } from '$lib/state/actions.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Sheet from '$lib/ui/Sheet.svelte';

	type Props = { open: boolean; onclose: () => void };
	let { open, onclose }: Props = $props();
	const { preferences } = useWorkshop();
	const actions = useActions();
	/** What is done by a key only where it has the keyboard: in a number, in a text, on a row of tools. */
	const inFields = [
		['↑ ↓', 'Step a number by 1, with Shift by 10, with Alt by a half'],
		['{', 'In a text: choose a live value'],
		['Enter', 'Keep what is typed'],
		['Esc', 'Give up what is typed, or close what is open'],
		['← →', 'From tool to tool in a row of tools'],
	];
	/** Two parts of a station may add to one group. */
	function together(all: readonly ActionGroup[]): ActionGroup[] {
		const titles = [...new Set(all.map(({ title }) => title))];
		return titles.map((title) => ({
			title,
			actions: all.filter((group) => group.title === title).flatMap(({ actions }) => actions),
		}));
	}
	const groups = $derived([
		// Where one is comes before what can be done everywhere.
		...together(actions.groups.toReversed())
			.map((group) => ({
				title: group.title,
				lines: group.actions
					.filter((action) => action.keys)
					.map((action) => [action.keys?.map(readable).join(' or ') ?? '', action.title]),
			}))
			.filter((group) => group.lines.length),
		{ title: 'In fields and rows of tools', lines: inFields },
	]);
</script>

<Sheet {open} title="Shortcuts" {onclose} wide>
	<div class="mt-4 columns-2 gap-10">
		{#each groups as group, n (n)}
			<section class="mb-5 break-inside-avoid">
				<h3 class="text-base">{group.title}</h3>
				<dl>
					{#each group.lines as [key, does], n (n)}
						<div class="flex gap-3 border-b border-hair py-1">
							<dt class="w-32 shrink-0 font-mono font-semibold whitespace-nowrap">{key}</dt>
							<dd>{does}</dd>
						</div>
					{/each}
				</dl>
			</section>
		{/each}
	</div>
	<p class="mt-3 text-soft">Each station adds its own; open this list there to see them.</p>
	<label class="mt-4 flex items-center gap-2">
		<input type="checkbox" bind:checked={preferences.singleKeys} />
		Single keys work without Ctrl
	</label>
	<p class="mt-4"><Press main onpress={onclose}>Close</Press></p>
</Sheet>
