<script lang="ts">
	import { Problem } from '$lib/api/client';
	import { count } from '$lib/pure/format';
	import Press from './Press.svelte';
	import Progress from './Progress.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';

	const { context } = useWorkshop();

	type Props = {
		/** What is being worked out. */
		what: string;
		/** How far it has come, once that is known. */
		done?: number;
		of?: number;
		error?: Error | null;
		onretry?: () => void;
	};
	let { what, done = 0, of = 0, error = null, onretry }: Props = $props();
</script>

{#if error}
	<div class="max-w-lg p-6" role="alert">
		<p class="text-lg font-semibold">{error.message}</p>
		{#if error instanceof Problem && error.code === 'not_found'}
			<p class="mt-2"><a href={context.href('/')} class="underline">Back to the floor</a></p>
		{:else if onretry}
			<p class="mt-3"><Press onpress={onretry}>Try again</Press></p>
		{/if}
	</div>
{:else}
	<div class="p-6 text-soft" role="status">
		<p>
			{what}{#if of}: <span class="figure">{count(done)}</span> of <span class="figure">{count(of)}</span>{/if}
		</p>
		{#if of}
			<Progress label={what} {done} {of} />
		{:else}<div class="ticks" aria-hidden="true"></div>{/if}
	</div>
{/if}

<style>
	.ticks {
		width: 240px;
		height: 10px;
		margin-top: 6px;
		background: repeating-linear-gradient(90deg, var(--color-ink) 0 2px, transparent 2px 12px);
		animation: run 1.4s linear infinite;
		transform-origin: 0 0;
	}
	@keyframes run {
		from {
			clip-path: inset(0 100% 0 0);
		}
		to {
			clip-path: inset(0 0 0 0);
		}
	}
</style>
