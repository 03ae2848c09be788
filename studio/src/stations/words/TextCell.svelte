<script lang="ts">
	import type { WordCell } from '$lib/api/types';
	import { px } from '$lib/pure/format';
	import TokenField from '../../shared/exceptions/TokenField.svelte';

	type Props = {
		of: WordCell;
		/** Where it is, for those who cannot see it. */
		name: string;
		chosen: boolean;
		rtl: boolean;
		/** The text that is being written in the cell; null while it is only read. */
		typed: string | null;
		onchoose: () => void;
		onedit: () => void;
		ontype: (text: string) => void;
		onkeep: () => void;
		onleave: () => void;
	};
	let { of, name, chosen, rtl, typed, onchoose, onedit, ontype, onkeep, onleave }: Props = $props();
	const over = $derived(of.width_px > of.room_px);
	let button = $state<HTMLButtonElement>();
	const taken = $derived(Math.min(88, (88 * of.width_px) / Math.max(1, of.room_px)));

	function onkeydown(event: KeyboardEvent): void {
		if (event.key === 'Enter' || event.key === 'F2') {
			event.preventDefault();
			onedit();
		}
	}
	function leave(): void {
		onleave();
		requestAnimationFrame(() => button?.focus());
	}
</script>

{#if typed !== null}
	<div class="p-1">
		<TokenField small focused label="Text of {name}" value={typed} {rtl} onchange={ontype} {onkeep} onleave={leave} />
	</div>
{:else}
	<button
		bind:this={button}
		class="text"
		aria-pressed={chosen}
		aria-label="{name}: {of.text}"
		aria-keyshortcuts="Enter w"
		onclick={() => (chosen ? onedit() : onchoose())}
		{onkeydown}
	>
		{#if of.stands}
			<span class={['said font-semibold', of.stands_in && 'text-look']} dir="auto">{of.text}</span>
			<span class="gauge" data-over={over}>
				<svg viewBox="0 0 90 10" width="90" height="10" aria-hidden="true" class:mirrored={rtl}>
					<path class="rail" d="M0 5H88M88 1v8" />
					<path class="taken" d="M0 5H{taken}" />
				</svg>
				<span class="figure">{px(of.width_px)}</span>
				{#if of.stands_in}<b class="text-look">◇</b>{/if}
				{#if over}<b>▲ {px(of.width_px - of.room_px)}</b>{/if}
			</span>
		{:else}<span class="text-soft">not shown</span>{/if}
	</button>
{/if}

<style>
	.text {
		width: 100%;
		padding: 5px 7px;
		text-align: left;
		border: 2px solid transparent;
	}
	.said {
		display: table;
	}
	.text:hover {
		background: var(--color-leaf);
	}
	.text[aria-pressed='true'] {
		border-color: var(--color-ink);
		background: var(--color-leaf);
	}
	.text[aria-pressed='true'] > span:first-child {
		background: linear-gradient(var(--color-marker) 0 0) 0 100% / 100% 40% no-repeat;
	}
	.gauge {
		display: flex;
		align-items: center;
		gap: 8px;
		margin-top: 2px;
		color: var(--color-soft);
	}
	.mirrored {
		transform: scaleX(-1);
	}
	.gauge path {
		fill: none;
		stroke: var(--color-soft);
	}
	.gauge .taken {
		stroke-width: 3;
		stroke: var(--color-ink);
	}
	.gauge[data-over='true'] {
		color: var(--color-must);
	}
	.gauge[data-over='true'] .taken {
		stroke: var(--color-must);
	}
</style>
