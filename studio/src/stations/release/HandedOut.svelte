<script lang="ts">
	import type { OutsideView } from '$lib/api/types';
	import { capital, count, many, moment } from '$lib/pure/format';
	import Empty from '$lib/ui/Empty.svelte';

	type Props = { view: OutsideView };
	let { view }: Props = $props();
	const kinds: Record<string, string> = {
		web: 'page',
		mail: 'mail',
		picture: 'picture',
		form: 'form',
		link: 'link',
		print: 'print',
	};
	const rest = $derived(view.count - view.handed_out.length);
</script>

<h2 class="text-md">Handed out</h2>
{#if view.by.length}
	<table class="ledger mt-1">
		<thead>
			<tr><th scope="col">where</th><th scope="col">campaign</th><th scope="col" class="figure">presses</th></tr>
		</thead>
		<tbody>
			{#each view.by as { kind, campaign, presses } (kind + campaign)}
				<tr>
					<td>{kinds[kind]}</td>
					<td>{campaign || '–'}</td>
					<td class="figure">{count(presses)}</td>
				</tr>
			{/each}
		</tbody>
	</table>
	{#if view.differing}
		<p class="mt-3">
			<b class="text-look">◇ {many(view.differing, 'button')} out there</b>
			{view.differing === 1 ? 'looks' : 'look'} otherwise than the draft. What is copied again is up to date.
		</p>
	{/if}
	<ul class="mt-3">
		{#each view.handed_out as button (button.id)}
			<li class="border-b border-hair py-2">
				<b>{button.product || button.sku}</b>
				<span class="text-soft">
					{kinds[button.kind]}{button.campaign ? `, ${button.campaign}` : ''}{button.copied_at
						? `, ${button.author}, ${moment(button.copied_at)}`
						: ''}
				</span>
				<span class="whitespace-nowrap">· {many(button.presses, 'press', 'presses')}</span>
				{#if button.differs}<span class="block"><span class="text-look">◇</span> {capital(button.differs)}</span>{/if}
			</li>
		{/each}
	</ul>
	{#if rest > 0}<p class="mt-2 text-soft">and {many(rest, 'more', 'more')}.</p>{/if}
{:else}
	<Empty>Nothing yet. What you copy is listed here, with its presses and whether it is still true.</Empty>
{/if}
