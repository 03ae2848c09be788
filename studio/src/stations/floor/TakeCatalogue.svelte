<script lang="ts">
	import { count, many, moment, said } from '$lib/pure/format';
	import { Taking } from '$lib/state/taking.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import FilePick from '$lib/ui/FilePick.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Progress from '$lib/ui/Progress.svelte';
	import Sheet from '$lib/ui/Sheet.svelte';

	const workshop = useWorkshop();
	const taking = new Taking(workshop);
	const products = $derived(workshop.info?.product_count ?? 0);
	const last = $derived(workshop.info?.last_import);
	const report = $derived(taking.report);
	const ENCODINGS = {
		'UTF-8': 'UTF-8',
		'UTF-16': 'UTF-16',
		'windows-1252': 'windows-1252, Western',
		'windows-1250': 'windows-1250, Central European',
		'windows-1251': 'windows-1251, Cyrillic',
		'windows-1253': 'windows-1253, Greek',
		'windows-1254': 'windows-1254, Turkish',
		'windows-1255': 'windows-1255, Hebrew',
		'windows-1256': 'windows-1256, Arabic',
		'windows-1257': 'windows-1257, Baltic',
		'windows-1258': 'windows-1258, Vietnamese',
		macintosh: 'macintosh, Western',
		Shift_JIS: 'Shift_JIS, Japanese',
		'EUC-KR': 'EUC-KR, Korean',
		gb18030: 'gb18030, Chinese',
		Big5: 'Big5, traditional Chinese',
	};
	const FOUND_OUT = { value: '', label: 'found out from the file' };
	const encodings = Object.entries(ENCODINGS).map(([value, label]) => ({ value, label }));
	const decimals = [
		{ value: '.', label: 'point' },
		{ value: ',', label: 'comma' },
	];
	const SEPARATORS: Record<string, string> = { ',': 'comma', ';': 'semicolon', '\t': 'tab', '|': 'bar' };
	/** Headings that are not called as their column is. */
	const renamed = $derived(
		(report?.headings ?? [])
			.flatMap(({ heading, column }) => (column && column !== heading ? [`“${heading}” is ${said(column)}.`] : []))
			.join(' '),
	);
	const shownColumns = $derived([...new Set((report?.sample ?? []).flatMap((row) => Object.keys(row)))]);
	const touched = $derived(
		report ? report.counts.new + report.counts.changed + (taking.whole ? report.counts.missing : 0) : 0,
	);
	/** Reads the file again as somebody says that it is written. */
	function sayHow(way: { encoding?: string; decimal?: string }): void {
		Object.assign(taking, way);
		void taking.look();
	}
</script>

{#snippet encoding(now: string)}
	<Pick
		label="Encoding"
		value={now}
		options={report ? encodings : [FOUND_OUT, ...encodings]}
		onpick={(name) => sayHow({ encoding: name })}
	/>
{/snippet}
{#snippet decimal(now: string)}
	<Pick
		label="Decimal sign"
		value={now}
		options={report ? decimals : [FOUND_OUT, ...decimals]}
		onpick={(sign) => sayHow({ decimal: sign })}
	/>
{/snippet}

<p class="mt-4 flex flex-wrap items-center gap-3 text-soft">
	{#if products}
		<span>
			{many(products, 'product')} in {workshop.info?.categories.length} categories{#if last}, last imported {moment(
					String(last.made_at),
				)}{/if}.
		</span>
	{:else}
		<span class="text-lg text-ink"
			>The catalogue is empty. Import the shop’s products as CSV or JSON-LD, or read them off its pages, and every
			button is shown here.</span
		>
	{/if}
	<FilePick
		label="Catalogue as CSV or JSON-LD"
		accept=".csv,.json,.jsonld,text/csv,application/ld+json"
		onpick={(file) => taking.look(file)}>Import a catalogue…</FilePick
	>
	{#if taking.collecting}
		<span role="status">
			reading the shop’s pages, <span class="figure">{count(taking.collecting.done)}</span> of
			<span class="figure">{count(taking.collecting.of)}</span>, {many(taking.collecting.products, 'product')} so far
		</span>
		<Press small onpress={() => taking.stop()}>Stop, and look at these</Press>
	{:else}
		<Press small onpress={() => taking.collect()}>Read it off the shop’s pages</Press>
	{/if}
	{#if products}
		<Press small href="/api/stores/{workshop.store}/catalogue.csv" away>CSV</Press>
		<Press small href="/api/stores/{workshop.store}/catalogue.jsonld" away>JSON-LD</Press>
	{/if}
	{#if taking.looking}<span role="status">reading the file…</span>{/if}
</p>

<Sheet
	open={Boolean(report || taking.wrong)}
	title={report?.applied ? 'Taken in' : taking.isOffPages ? 'What the shop’s pages tell' : 'What this file would do'}
	onclose={() => (taking.progress ? taking.stop() : taking.close())}
>
	{#if taking.wrong}<p role="alert" class="mt-3 text-must">▲ {taking.wrong}</p>{/if}
	{#if taking.odd.length}
		<details class="mt-3">
			<summary class="text-look">◇ {many(taking.odd.length, 'page')} could not be read.</summary>
			<ul>
				{#each taking.odd as { address, why } (address)}
					<li><span class="figure break-all">{address}</span> {why}</li>
				{/each}
			</ul>
		</details>
	{/if}
	{#if taking.unread}<p class="mt-2">
			Its encoding is {@render encoding(taking.encoding)}, its decimal sign {@render decimal(taking.decimal)}.
		</p>{/if}
	{#if report}
		<p class="mt-3 text-md">
			<b>{count(report.counts.new)}</b> new, <b>{count(report.counts.changed)}</b> changed,
			<b>{count(report.counts.unchanged)}</b> as before, <b>{count(report.counts.missing)}</b> not in the file,
			<b>{count(report.counts.refused)}</b> refused.
		</p>
		{#if report.counts.missing && !report.applied}
			<label class="mt-2 flex items-center gap-2">
				<input type="checkbox" bind:checked={taking.whole} onchange={() => taking.look()} /> The file is the whole
				catalogue: remove the {many(report.counts.missing, 'product')} that it lacks. Their exceptions are kept and sleep.
			</label>
		{/if}
		{#if report.dialect}
			<p class="mt-2 text-soft">
				{#if report.applied}
					Read as <b class="text-ink">{report.dialect.encoding}</b>,
				{:else}
					Read as {@render encoding(report.dialect.encoding)},
				{/if}
				divided by <b class="text-ink">{SEPARATORS[report.dialect.separator] ?? report.dialect.separator}s</b>, with a
				decimal
				{#if report.applied}
					<b class="text-ink">{report.dialect.decimal === ',' ? 'comma' : 'point'}</b>.
				{:else}
					{@render decimal(report.dialect.decimal)}.
				{/if}
				{renamed}
				{#if report.ignored.length}
					Not understood, and left out: <b class="text-ink">{report.ignored.join(', ')}</b>.
				{/if}
				What has no column stays as it is.
			</p>
		{/if}
		{#if report.sample.length && !report.applied}
			<details class="mt-3" open={Boolean(report.warnings.length)}>
				<summary
					>The first {report.sample.length > 1 ? many(report.sample.length, 'product') : 'product'} as read</summary
				>
				<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
				<div class="mt-1 overflow-auto" tabindex="0" role="region" aria-label="First products as read">
					<table class="text-sm whitespace-nowrap">
						<thead
							><tr
								>{#each shownColumns as column, n (n)}<th class="pr-4 text-left font-semibold">{said(column)}</th
									>{/each}</tr
							></thead
						>
						<tbody>
							{#each report.sample as row, n (n)}
								<tr class="border-t border-hair"
									>{#each shownColumns as column, n (n)}<td class="figure max-w-48 truncate pr-4"
											>{row[column] ?? ''}</td
										>{/each}</tr
								>
							{/each}
						</tbody>
					</table>
				</div>
			</details>
		{/if}
		{#if report.warnings.length && !report.applied}
			<ul class="mt-3 font-semibold text-must" role="alert">
				{#each report.warnings as warning, n (n)}<li>▲ {warning}</li>{/each}
			</ul>
		{/if}
		<ul class="mt-3 max-h-72 overflow-auto">
			{#each report.refused.slice(0, 200) as line, n (n)}
				<li class="text-must">▲ line <span class="figure">{line.line}</span>: {line.reason}</li>
			{/each}
			{#each report.notes.slice(0, 200) as note, n (n)}
				<li class="text-soft">line <span class="figure">{note.line}</span>: {note.reason}</li>
			{/each}
			{#each report.changed.slice(0, 200) as line, n (n)}
				<li>
					line <span class="figure">{line.line}</span>: {line.sku} changes its {line.fields
						.join(', ')
						.replace(/_/g, ' ')}
				</li>
			{/each}
			{#each report.new.slice(0, 200) as line, n (n)}
				<li>line <span class="figure">{line.line}</span>: {line.sku} is new</li>
			{/each}
			{#each report.missing.slice(0, 100) as sku, n (n)}
				<li>{sku} is {report.applied && report.removed ? 'gone' : 'not in the file'}</li>
			{/each}
		</ul>
	{/if}
	{#if taking.progress}
		<p class="mt-4" role="status">{count(taking.progress.done)} of {count(taking.progress.of)} imported</p>
		<Progress label="Import" {...taking.progress} />
	{/if}
	<p class="mt-5 flex gap-3">
		{#if taking.progress}
			<Press onpress={() => taking.stop()}>Stop, and import nothing</Press>
		{:else}
			{#if report && !report.applied}
				<Press main disabled={!touched} onpress={() => taking.take(report.warnings.length > 0)}>
					{report.warnings.length ? 'Import anyway:' : 'Import'}
					{many(report.counts.new + report.counts.changed, 'product')}{#if taking.whole && report.counts.missing},
						remove {count(report.counts.missing)}{/if}
				</Press>
			{/if}
			<Press onpress={() => taking.close()}>{report?.applied ? 'Close' : 'Cancel'}</Press>
		{/if}
	</p>
</Sheet>
