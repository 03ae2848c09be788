<script lang="ts">
	import { data, Problem } from '$lib/api/client';
	import type { DraftState, TextsReport } from '$lib/api/types';
	import { client } from '$lib/api/client';
	import { many, said } from '$lib/pure/format';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Sheet from '$lib/ui/Sheet.svelte';

	type Props = { language: string; name: string };
	let { language, name }: Props = $props();
	const workshop = useWorkshop();
	let file = $state.raw<File | null>(null);
	let report = $state.raw<TextsReport | null>(null);
	let wrong = $state('');
	let picker: HTMLInputElement;

	async function send(dryRun: boolean): Promise<void> {
		if (!file) return;
		const body = await file.arrayBuffer();
		wrong = '';
		const ask = async (headers: Record<string, string>): Promise<DraftState | null> => {
			const url = `/api/stores/${workshop.store}/texts/${language}?dry_run=${dryRun}`;
			const answer = await fetch(url, { method: 'POST', body, headers });
			const told: unknown = await answer.json();
			report = await data(Promise.resolve(answer.ok ? { data: told as TextsReport } : { error: told }));
			if (dryRun) return null;
			return data(client.GET('/api/stores/{store}/draft', { params: { path: workshop.path } }));
		};
		try {
			if (dryRun) await ask({ 'If-Match': `"${workshop.draft?.version ?? 0}"` });
			else await workshop.act(ask);
		} catch (error) {
			report = null;
			wrong = error instanceof Problem ? error.message : String(error);
		}
	}
	function close(): void {
		report = file = null;
		wrong = '';
	}
</script>

<Press small href="/api/stores/{workshop.store}/texts/{language}.po" away>Export texts</Press>
<Press small onpress={() => picker.click()}>Import texts…</Press>
<input
	bind:this={picker}
	type="file"
	accept=".po,text/x-gettext-translation"
	class="sr-only"
	tabindex="-1"
	aria-label="{name} texts as PO"
	onchange={(event) => {
		file = event.currentTarget.files?.[0] ?? null;
		event.currentTarget.value = '';
		void send(true);
	}}
/>

<Sheet
	open={Boolean(report || wrong)}
	title="{report?.applied ? 'Taken in' : 'What this file would change'}: {name}"
	onclose={close}
>
	{#if wrong}<p role="alert" class="mt-3 text-must">▲ {wrong}</p>{/if}
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
			<Press main disabled={!report.changes.length} onpress={() => send(false)}
				>Import {many(report.changes.length, 'text')}</Press
			>
		{/if}
		<Press onpress={close}>{report?.applied ? 'Close' : 'Cancel'}</Press>
	</p>
</Sheet>
