<script lang="ts">
	import type { Snippet } from 'svelte';

	type Station = { name: string; href: string; key: string };
	type Props = {
		stations: readonly Station[];
		/** The name of the station one is at. */
		at: string;
		/** Returns the address of a station, with what is looked at now. */
		hrefOf: (path: string) => string;
		/** What stands at the right end. */
		corner: Snippet;
	};
	let { stations, at, hrefOf, corner }: Props = $props();
</script>

<header class="rule bg-leaf">
	<a href={hrefOf('/')} class="mark" aria-label="Up Tick, to the floor">
		<svg viewBox="0 0 26 24" width="26" height="24" aria-hidden="true">
			<path d="M2 23v-8M18 23v-8M24 23v-6" /><path d="M10 23V2" class="tall" />
		</svg>
		<span>Up Tick</span>
	</a>
	<nav aria-label="Stations">
		{#each stations as { name, href, key } (name)}
			<a href={hrefOf(href)} class="station" aria-current={name === at ? 'page' : undefined} aria-keyshortcuts={key}>
				<span>{name}</span>
			</a>
		{/each}
	</nav>
	<div class="corner">{@render corner()}</div>
</header>

<style>
	.rule {
		position: relative;
		display: flex;
		align-items: stretch;
		height: 66px;
		border-bottom: 1px solid var(--color-ink);
		/* The ticks of the rule: a small one every 10 px, a longer one every 50. */
		background-image:
			repeating-linear-gradient(90deg, var(--color-soft) 0 1px, transparent 1px 50px),
			repeating-linear-gradient(90deg, var(--color-hair) 0 1px, transparent 1px 10px);
		background-size:
			100% 9px,
			100% 5px;
		background-position: 0 100%;
		background-repeat: no-repeat;
	}
	.mark {
		display: flex;
		align-items: center;
		gap: 10px;
		width: 160px;
		padding: 0 0 8px 20px;
		font-size: 18px;
		font-weight: 700;
		text-decoration: none;
	}
	.mark path {
		stroke: var(--color-ink);
		stroke-width: 2;
	}
	.mark .tall {
		stroke-width: 4;
	}
	nav {
		display: flex;
		flex: 1;
	}
	.station {
		position: relative;
		width: 100px;
		text-decoration: none;
		color: var(--color-soft);
		font-weight: 600;
		font-size: 14px;
	}
	.station::before {
		content: '';
		position: absolute;
		left: 0;
		bottom: 0;
		height: 16px;
		border-left: 2px solid var(--color-ink);
	}
	.station span {
		position: absolute;
		left: 10px;
		bottom: 14px;
	}
	.station:hover {
		color: var(--color-ink);
	}
	.station[aria-current] {
		color: var(--color-ink);
	}
	.station[aria-current]::before {
		height: 46px;
		border-left-width: 5px;
	}
	.station[aria-current] span {
		left: 5px;
		bottom: 22px;
		padding: 1px 14px 2px 8px;
		background: var(--color-marker);
		font-size: 17px;
		font-weight: 700;
	}
	.corner {
		padding: 12px 22px 0 0;
		text-align: right;
	}
	@media (max-width: 1000px) {
		.rule {
			flex-wrap: wrap;
			height: auto;
			min-height: 66px;
		}
		nav {
			order: 3;
			flex-basis: 100%;
			overflow-x: auto;
			height: 50px;
		}
		.corner {
			margin-left: auto;
		}
	}
</style>
