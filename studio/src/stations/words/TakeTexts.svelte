<script lang="ts">
	import { many, said } from '$lib/pure/format';
	import { TextsIn } from '$lib/state/texts_in.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import FilePick from '$lib/ui/FilePick.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Sheet from '$lib/ui/Sheet.svelte';

	type Props = { language: string; name: string };
	let { language, name }: Props = $props();
	const workshop = useWorkshop();
	const texts = new TextsIn(workshop, () => language);
	const report = $derived(texts.report);
</script>

<Press small href="/api/stores/{workshop.store}/texts/{language}.po" away>Export texts</Press>
<FilePick label="{name} texts as PO" accept=".po,text/x-gettext-translation" onpick={(file) => texts.read(file)}
	>Import texts…</FilePick
>

<Sheet
	open={Boolean(report || texts.attempt.wrong)}
	title="{report?.applied ? 'Taken in' : 'What this file would change'}: {name}"
	onclose={() => texts.close()}
>
	{#if texts.attempt.wrong}<p role="alert" class="mt-3 text-must">▲ {texts.attempt.wrong}</p>{/if}
	{#if report}
		<p class="mt-3 text-md">
			<b>{many(report.changes.length, 'text')}</b> changed, <b>{report.unchanged}</b> as before,
			<b>{report.untranslated}</b> not translated, <b>{report.refused.length}</b> refused.
		</p>
		<ul class="mt-3 max-h-72 overflow-auto">
			{#each report.refused as line, n (n)}
				<li class="text-must">▲ line <span class="figure">{line.line}</span>: {line.reason}</li>
			{/each}
			{#each report.changes as change (`${change.layer}/${change.moment}`)}
				<li class="py-1">
					{change.title}, {said(change.moment)}: {change.before ? `“${change.before}”` : 'nothing'} →
					<b>“{change.after}”</b>
				</li>
			{/each}
		</ul>
	{/if}
	<p class="mt-5 flex gap-3">
		{#if report && !report.applied}
			<Press main disabled={!report.changes.length} onpress={() => texts.take()}
				>Import {many(report.changes.length, 'text')}</Press
			>
		{/if}
		<Press onpress={() => texts.close()}>{report?.applied ? 'Close' : 'Cancel'}</Press>
	</p>
</Sheet>
