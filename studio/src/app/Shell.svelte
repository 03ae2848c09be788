<script lang="ts">
	import { Actions, provideActions } from '$lib/state/actions.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import { many } from '$lib/pure/format';
	import Press from '$lib/ui/Press.svelte';
	import ProblemLine from '$lib/ui/ProblemLine.svelte';
	import Rule from '$lib/ui/Rule.svelte';
	import { sheets } from '$lib/ui/sheets.svelte';
	import { Router } from 'sv-router';
	import { useExceptions } from '$lib/state/exceptions.svelte';
	import ExceptionSheet from '../shared/exceptions/ExceptionSheet.svelte';
	import ConnectSheet from './ConnectSheet.svelte';
	import History from './History.svelte';
	import NewStore from './NewStore.svelte';
	import NewException from '../shared/exceptions/NewException.svelte';
	import Search from './Search.svelte';
	import Shortcuts from './Shortcuts.svelte';
	import StoreSwitch from './StoreSwitch.svelte';
	import WhySheet from '../shared/exceptions/WhySheet.svelte';
	import { afterStation } from '$lib/state/station.svelte';
	import { route } from './router';

	const workshop = useWorkshop();
	const stations = [
		{ name: 'Floor', href: '/', key: '1' },
		{ name: 'Draw', href: '/draw', key: '2' },
		{ name: 'Words', href: '/words', key: '3' },
		{ name: 'Place', href: '/place', key: '4' },
		{ name: 'Release', href: '/release', key: '5' },
		{ name: 'Trials', href: '/trials', key: '6' },
	] as const;
	const at = $derived(
		stations.findLast((s) => (s.href === '/' ? route.pathname === '/' : route.pathname.startsWith(s.href)))?.name ?? '',
	);
	let content: HTMLElement;
	const wordsOf = (error: unknown) => (error instanceof Error ? error.message : String(error));
	let announced = $state('');
	/** Another station is another page: it is said, and the keyboard begins there. */
	afterStation(
		() => at,
		(name) => {
			announced = name;
			content.focus({ preventScroll: true });
		},
	);
	const { opened } = workshop;
	const exceptions = useExceptions(workshop);
	const exception = $derived(exceptions.data?.find((rule) => rule.id === opened.exception));
	const draft = $derived(workshop.draft);
	const actions = provideActions(new Actions(() => workshop.preferences.singleKeys));
	actions.add({
		title: 'Everywhere',
		actions: [
			...stations.map(({ name, href, key }) => ({
				title: `Go to ${name}`,
				keys: [key],
				run: () => workshop.context.go(href),
			})),
			{ title: 'New exception', run: () => (opened.newException = { placement: 'product_page' }) },
			{ title: 'Undo', keys: ['Mod+z'], run: () => void workshop.undo() },
			{ title: 'Redo', keys: ['Mod+Shift+z'], run: () => void workshop.redo() },
			{ title: 'Search', keys: ['/'], run: () => (opened.search = true) },
			{ title: 'History: what was changed, by whom', keys: ['h'], run: () => (opened.history = true) },
			{ title: 'Connection: how the shop’s basket is told', run: () => (opened.connection = true) },
			{ title: 'New store', run: () => (opened.newStore = true) },
			{ title: 'Shortcuts', keys: ['?'], run: () => (opened.shortcuts = true) },
			{ title: 'Sign out', run: () => void workshop.signOut() },
		],
	});
</script>

<svelte:window onkeydown={(event) => actions.press(event)} />

<svelte:head><title>{at ? `${at} · ` : ''}{workshop.info?.store.name ?? ''} · Up Tick</title></svelte:head>
<a class="skip" href="#content">Skip to {at || 'the page'}</a>
<p class="sr-only" role="status">{announced}</p>
<div class="shell">
	<Rule {stations} {at} hrefOf={(path) => workshop.context.href(path)}>
		{#snippet corner()}
			<StoreSwitch />
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
				<a href={workshop.context.href('/release')} class="font-semibold text-ink">
					{#if !draft?.release}not released yet{:else if draft.changes}{many(draft.changes, 'change')}
						since release {draft.release}{:else}release {draft.release} is what shoppers see{/if}
				</a>
				·
				<button class="corner" onclick={() => (opened.search = true)} aria-keyshortcuts="/">search</button>
				<button class="corner" onclick={() => (opened.history = true)} aria-keyshortcuts="h">history</button>
				<button class="corner" onclick={() => (opened.shortcuts = true)} aria-keyshortcuts="?">shortcuts</button>
				<button class="corner" onclick={() => workshop.signOut()}>sign out</button>
			</p>
		{/snippet}
	</Rule>
	{#if !sheets.isAnyOpen}<ProblemLine class="border-b px-6 py-2" />{/if}
	<main id="content" class="min-h-0 flex-1 outline-none" tabindex="-1" bind:this={content}>
		{#key at}
			<svelte:boundary onerror={(error) => console.error(error)}>
				<Router />
				{#snippet failed(error, reset)}
					<div class="max-w-lg p-6" role="alert">
						<p class="text-lg font-semibold">▲ {at || 'This page'} cannot be shown.</p>
						<p class="mt-1">What was saved is safe, and the other stations work. It said: “{wordsOf(error)}”</p>
						<p class="mt-3"><Press onpress={reset}>Try again</Press></p>
					</div>
				{/snippet}
			</svelte:boundary>
		{/key}
	</main>
</div>

<Search open={opened.search} onclose={() => (opened.search = false)} />
<History open={opened.history} onclose={() => (opened.history = false)} />
<Shortcuts open={opened.shortcuts} onclose={() => (opened.shortcuts = false)} />
<WhySheet />
{#if opened.newStore}<NewStore onclose={() => (opened.newStore = false)} />{/if}
{#if opened.connection}<ConnectSheet onclose={() => (opened.connection = false)} />{/if}
{#if opened.newException}<NewException from={opened.newException} onclose={() => (opened.newException = null)} />{/if}
{#if exception}<ExceptionSheet rule={exception} onclose={() => (opened.exception = '')} />{/if}

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
