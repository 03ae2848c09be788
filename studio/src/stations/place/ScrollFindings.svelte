<script lang="ts">
	import type { Device, Fix, ScrollFinding } from '$lib/api/types';
	import { lookAt } from '$lib/pure/scroll';
	import type { AlongThePage } from '$lib/state/along.svelte';
	import Copy from '$lib/ui/Copy.svelte';
	import Press from '$lib/ui/Press.svelte';

	type Props = { at: AlongThePage; device: Device; onfix: (fix: Fix) => void };
	let { at, device, onfix }: Props = $props();
	const signs = { must_fix: '▲', look_again: '◇', note: '–' };
	const names = { must_fix: 'Must fix', look_again: 'Look again', note: 'Note' };
	const findings = $derived(at.on(device)?.findings ?? []);
	/** What is wrong on the other devices only. */
	const elsewhere = $derived(
		(at.view?.devices ?? []).filter((lane) => lane.device !== device && lane.findings.some((f) => f.weight !== 'note')),
	);
	/** Marks the stretches of a finding, and leads there. */
	function point(finding?: ScrollFinding, event?: Event): void {
		at.pointed = finding?.spans ?? [];
		at.pointedBy = (event?.currentTarget as HTMLElement | undefined) ?? null;
	}
	function look({ spans }: ScrollFinding): void {
		const [first] = spans;
		if (first) at.scrollTo(device, lookAt(first, at.surveys[device]?.window.high ?? 0));
	}
</script>

<section aria-label="Findings along the page">
	<ul>
		{#each findings as finding (finding.rule + finding.title)}
			<li
				data-weight={finding.weight}
				data-rule={finding.rule}
				onpointerenter={(event) => point(finding, event)}
				onpointerleave={() => point()}
				onfocusin={(event) => point(finding, event)}
				onfocusout={() => point()}
			>
				<button class="title" onclick={() => look(finding)}>
					<b class={{ must_fix: 'text-must', look_again: 'text-look', note: 'text-soft' }[finding.weight]}
						>{signs[finding.weight]} {names[finding.weight]}.</b
					>
					<b>{finding.title}</b>
				</button>
				<p class="text-soft">{finding.says}</p>
				{#if finding.css}
					<details>
						<summary>The rule for the shop’s style sheet</summary>
						<pre class="figure">{finding.css}</pre>
						<Copy small text={finding.css ?? ''} says="Copy it" />
					</details>
				{/if}
				{#if finding.fixes?.length}
					<p class="mt-1 flex flex-wrap gap-2">
						{#each finding.fixes as fix, n (n)}
							<Press small onpress={() => onfix(fix)} label="Fix: {fix.label}">{fix.label}</Press>
						{/each}
					</p>
				{/if}
			</li>
		{:else}
			<li>
				<b>Nothing is wrong along this page on a {device}.</b>
				<p class="text-soft">Meetings, gaps, cut texts, covered windows and pictures were looked at.</p>
			</li>
		{/each}
	</ul>
	{#if elsewhere.length}
		<p class="mt-2 text-soft">
			More on a {elsewhere.map((place) => place.device).join(' and a ')}.
		</p>
	{/if}
</section>

<style>
	li {
		padding: 8px 0;
		border-bottom: 1px solid var(--color-hair);
	}
	li:first-child {
		padding-top: 0;
	}
	summary {
		min-height: 24px;
		text-decoration: underline;
	}
	pre {
		white-space: pre-wrap;
		overflow-wrap: anywhere;
		margin: 2px 0 6px;
		padding: 6px 8px;
		background: var(--color-leaf);
		font-size: 12px;
	}
	.title {
		text-align: start;
		font-size: 15px;
	}
	.title:hover {
		text-decoration: underline;
	}
</style>
