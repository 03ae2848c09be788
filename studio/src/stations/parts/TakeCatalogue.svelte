<script lang="ts">
	import { data, Problem } from '$lib/api/client';
	import type { ImportReport } from '$lib/api/types';
	import { count, many, moment } from '$lib/pure/format';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Sheet from '$lib/ui/Sheet.svelte';

	const workshop = useWorkshop();
	let file = $state.raw<File | null>(null);
	let report = $state.raw<ImportReport | null>(null);
	let wrong = $state('');
	let busy = $state(false);
	let picker: HTMLInputElement;
	const products = $derived(workshop.info?.products.length ?? 0);
	const last = $derived(workshop.info?.last_import);

	async function send(dryRun: boolean): Promise<void> {
		if (!file) return;
		busy = true;
		wrong = '';
		const url = `/api/stores/${workshop.store}/catalogue?dry_run=${dryRun}`;
		try {
			const answer = await fetch(url, { method: 'POST', body: file, headers: { 'Content-Type': 'text/csv' } });
			const body: unknown = await answer.json();
			report = await data(Promise.resolve(answer.ok ? { data: body as ImportReport } : { error: body }));
			if (!dryRun) {
				file = null;
				await workshop.reloadStore();
			}
		} catch (error) {
			wrong = error instanceof Problem ? error.message : String(error);
			report = null;
		} finally {
			busy = false;
		}
	}

	function close(): void {
		report = null;
		wrong = '';
		file = null;
	}
</script>

<p class="mt-4 flex flex-wrap items-center gap-3 text-soft">
	{#if products}
		<span>
			{many(products, 'product')} in {workshop.info?.categories.length} categories{#if last}, last taken in {moment(
					String(last.made_at),
				)}{/if}.
		</span>
	{:else}
		<span class="text-lg text-ink"
			>The catalogue is empty. Bring in the shop’s products as CSV, and every button stands here.</span
		>
	{/if}
	<Press small onpress={() => picker.click()}>Take in a catalogue…</Press>
	<input
		bind:this={picker}
		type="file"
		accept=".csv,text/csv"
		class="sr-only"
		tabindex="-1"
		aria-label="Catalogue as CSV"
		onchange={(event) => {
			file = event.currentTarget.files?.[0] ?? null;
			event.currentTarget.value = '';
			void send(true);
		}}
	/>
</p>

<Sheet open={Boolean(report || wrong)} title={report?.applied ? 'Taken in' : 'What this file would do'} onclose={close}>
	{#if wrong}<p role="alert" class="mt-3 text-must">▲ {wrong}</p>{/if}
	{#if report}
		<p class="mt-3 text-md">
			<b>{count(report.new.length)}</b> new, <b>{count(report.changed.length)}</b> changed,
			<b>{count(report.unchanged)}</b> as before, <b>{count(report.refused.length)}</b> refused.
		</p>
		<ul class="mt-3 max-h-72 overflow-auto">
			{#each report.refused.slice(0, 200) as line (line.line)}
				<li class="text-must">▲ line <span class="figure">{line.line}</span>: {line.reason}</li>
			{/each}
			{#each report.changed.slice(0, 200) as line (line.line)}
				<li>line <span class="figure">{line.line}</span>: {line.sku} changes its {line.fields.join(', ')}</li>
			{/each}
			{#each report.new.slice(0, 200) as line (line.line)}
				<li>line <span class="figure">{line.line}</span>: {line.sku} is new</li>
			{/each}
		</ul>
	{/if}
	<p class="mt-5 flex gap-3">
		{#if report && !report.applied}
			<Press main disabled={busy || !(report.new.length + report.changed.length)} onpress={() => send(false)}>
				Take in {many(report.new.length + report.changed.length, 'product')}
			</Press>
		{/if}
		<Press onpress={close}>{report?.applied ? 'Close' : 'Leave it'}</Press>
	</p>
</Sheet>
