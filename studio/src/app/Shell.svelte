<script lang="ts">
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import { many } from '$lib/pure/format';
	import { isFreeKey, isSheetOpen } from '$lib/pure/keys';
	import Press from '$lib/ui/Press.svelte';
	import ProblemLine from '$lib/ui/ProblemLine.svelte';
	import Rule from '$lib/ui/Rule.svelte';
	import Sheet from '$lib/ui/Sheet.svelte';
	import { sheets } from '$lib/ui/sheets.svelte';
	import { Router } from 'sv-router';
	import { useExceptions } from '$lib/state/exceptions.svelte';
	import ExceptionSheet from '../shared/exceptions/ExceptionSheet.svelte';
	import History from './History.svelte';
	import NewException from '../shared/exceptions/NewException.svelte';
	import Search from './Search.svelte';
	import WhySheet from '../shared/exceptions/WhySheet.svelte';
	import { afterStation } from '$lib/state/station.svelte';
	import { navigate, route } from './router';

	const workshop = useWorkshop();
	const stations = [
		{ name: 'Floor', href: '/', key: '1' },
		{ name: 'Draw', href: '/draw', key: '2' },
		{ name: 'Words', href: '/words', key: '3' },
		{ name: 'Release', href: '/release', key: '4' },
		{ name: 'Trials', href: '/trials', key: '5' },
	] as const;
	const at = $derived(
		stations.findLast((s) => (s.href === '/' ? route.pathname === '/' : route.pathname.startsWith(s.href)))?.name ?? '',
	);
	const keys = [
		['1 to 5', 'go to a station'],
		['Ctrl Z', 'undo'],
		['Ctrl Shift Z', 'redo'],
		['↑ ↓', 'step a number by 1, with Shift by 10, with Alt by a half'],
		['/', 'search for a product, an exception, a finding or a command'],
		['w', 'why the chosen value is what it is'],
		['h', 'what was changed, by whom'],
		['{', 'in a text: choose a live value'],
		['[ ]', 'in Draw: the moment before, the next'],
		['p', 'in Draw: show the button on the shop’s own page, or back'],
		['c v', 'in Draw: copy this look, apply it to another button'],
		['l', 'in Draw: saved looks, starting points, a look from CSS'],
		['+ − 0', 'in Draw: larger, smaller, as large as it goes'],
		['g', 'in Draw: the pixel grid'],
		['?', 'this list'],
	];
	let content: HTMLElement;
	let announced = $state('');
	/** Another station is another page: it is said, and the keyboard begins there. */
	afterStation(
		() => at,
		(name) => {
			announced = name;
			content.focus({ preventScroll: true });
		},
	);
	let listing = $state(false);
	let looking = $state(false);
	let finding = $state(false);
	const exceptions = useExceptions(workshop);
	const opened = $derived(exceptions.data?.find((one) => one.id === workshop.opened));
	const commands = [
		...stations.map((one) => ({ title: `Go to ${one.name}`, does: () => void navigate(one.href) })),
		{ title: 'New exception', does: () => (workshop.making = { placement: 'product_page' }) },
		{ title: 'Undo', does: () => void workshop.undo() },
		{ title: 'Redo', does: () => void workshop.redo() },
		{ title: 'History', does: () => (looking = true) },
		{ title: 'Shortcuts', does: () => (listing = true) },
		{ title: 'Sign out', does: () => void workshop.signOut() },
	];
	const draft = $derived(workshop.draft);

	function onkeydown(event: KeyboardEvent): void {
		if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
			// In a text the browser takes back letters; a number has nothing of its own to take back.
			if (event.target instanceof HTMLInputElement && event.target.inputMode !== 'decimal') return;
			if (event.target instanceof HTMLTextAreaElement || isSheetOpen()) return;
			event.preventDefault();
			void (event.shiftKey ? workshop.redo() : workshop.undo());
			return;
		}
		if (!workshop.singleKeys || !isFreeKey(event)) return;
		if (event.key === '?') listing = true;
		if (event.key === 'h') looking = true;
		if (event.key === '/') {
			event.preventDefault();
			finding = true;
		}
		const station = stations.find((s) => s.key === event.key);
		if (station) void navigate(station.href);
	}
</script>

<svelte:window {onkeydown} />

<svelte:head><title>{at ? `${at} · ` : ''}{workshop.info?.store.name ?? ''} · Up Tick</title></svelte:head>
<a class="skip" href="#content">Skip to {at || 'the page'}</a>
<p class="sr-only" role="status">{announced}</p>
<div class="shell">
	<Rule {stations} {at}>
		{#snippet corner()}
			<p class="text-md font-bold">{workshop.info?.store.name}</p>
			<p class="text-soft">
				<span role="status">
					{#if workshop.saving}saving…{:else if workshop.savedOnce}saved{/if}
				</span>
				<button class="corner" disabled={!draft?.undo_label} title={draft?.undo_label} onclick={() => workshop.undo()}
					>undo</button
				>
				<button class="corner" disabled={!draft?.redo_label} title={draft?.redo_label} onclick={() => workshop.redo()}
					>redo</button
				>
				·
				<a href="/release" class="font-semibold text-ink">
					{#if !draft?.release}not released yet{:else if draft.changes}{many(draft.changes, 'change')}
						since release {draft.release}{:else}release {draft.release} is what shoppers see{/if}
				</a>
				·
				<button class="corner" onclick={() => (finding = true)} aria-keyshortcuts="/">search</button>
				<button class="corner" onclick={() => (looking = true)} aria-keyshortcuts="h">history</button>
				<button class="corner" onclick={() => (listing = true)} aria-keyshortcuts="?">shortcuts</button>
				<button class="corner" onclick={() => workshop.signOut()}>sign out</button>
			</p>
		{/snippet}
	</Rule>
	{#if !sheets.isAnyOpen}<ProblemLine class="border-b px-6 py-2" />{/if}
	<main id="content" class="min-h-0 flex-1 outline-none" tabindex="-1" bind:this={content}><Router /></main>
</div>

<Search open={finding} onclose={() => (finding = false)} {commands} />
<History open={looking} onclose={() => (looking = false)} />
<WhySheet />
{#if workshop.making}<NewException from={workshop.making} onclose={() => (workshop.making = null)} />{/if}
{#if opened}<ExceptionSheet rule={opened} onclose={() => (workshop.opened = '')} />{/if}

<Sheet open={listing} title="Shortcuts" onclose={() => (listing = false)}>
	<table class="ledger mt-3">
		<tbody>
			{#each keys as [key, does] (key)}<tr><th class="w-32 font-mono">{key}</th><td>{does}</td></tr>{/each}
		</tbody>
	</table>
	<label class="mt-4 flex items-center gap-2">
		<input
			type="checkbox"
			checked={workshop.singleKeys}
			onchange={(event) => workshop.setSingleKeys(event.currentTarget.checked)}
		/>
		Single keys work without Ctrl
	</label>
	<p class="mt-4"><Press main onpress={() => (listing = false)}>Close</Press></p>
</Sheet>

<style>
	.shell {
		display: flex;
		flex-direction: column;
		min-height: 100vh;
	}
	.skip {
		position: absolute;
		left: 8px;
		top: -48px;
		z-index: 60;
		border: 2px solid var(--color-ink);
		background: var(--color-leaf);
		padding: 6px 12px;
	}
	.skip:focus {
		top: 8px;
	}
	.corner {
		padding: 0 3px;
		color: var(--color-ink);
		text-decoration: underline;
		text-underline-offset: 3px;
	}
	.corner:disabled {
		color: var(--color-soft);
		text-decoration: none;
	}
</style>
