<script lang="ts">
	import type { FillPath, StoredPicture } from '$lib/api/types';
	import { valueAt } from '$lib/pure/patch';
	import { Attempt } from '$lib/state/attempt.svelte';
	import type { Desk } from '$lib/state/desk.svelte';
	import { storePicture } from '$lib/state/kit';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Colour from '$lib/ui/Colour.svelte';
	import FilePick from '$lib/ui/FilePick.svelte';
	import Figure from '$lib/ui/Figure.svelte';

	type Props = {
		path: FillPath;
		desk: Desk;
		known: readonly string[];
		store: string;
		/** Called once a picture fills the button. */
		ontaken: () => void;
	};
	let { path, desk, known, store, ontaken }: Props = $props();
	const workshop = useWorkshop();
	const fill = $derived(valueAt(desk.view?.document, path));
	const taken = $derived(fill?.kind === 'picture' ? fill : null);
	const address = (hash: string) => `/api/stores/${store}/pictures/${hash}`;
	const attempt = new Attempt();

	async function bring(file: File): Promise<void> {
		const stored = await attempt.run(() => storePicture(workshop, file));
		if (stored) await use(stored);
	}
	async function use({ hash }: StoredPicture): Promise<void> {
		const before = taken ?? { x: 50, y: 50, scrim: { colour: '#000000', opacity: 0.4 } };
		await desk.set(path, { ...before, kind: 'picture', picture: hash });
		ontaken();
	}
	/** A press on the picture says what must stay in view. */
	function focus(event: MouseEvent): void {
		const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
		const share = (at: number, from: number, size: number) => Math.round(((at - from) / size) * 100);
		void desk.setAll({
			[`${path}.x`]: share(event.clientX, box.left, box.width),
			[`${path}.y`]: share(event.clientY, box.top, box.height),
		});
	}
</script>

{#if taken}
	<button class="whole" aria-label="Point at what must stay in view" onclick={focus}>
		<img src={address(taken.picture ?? '')} alt="" />
		<span class="aim" style:left="{taken.x}%" style:top="{taken.y}%"></span>
	</button>
	<p class="my-3 leading-loose">
		In view stays <Figure
			label="focus across"
			unit="%"
			value={taken.x}
			most={100}
			onset={(to: number) => desk.set(`${path}.x`, to)}
		/> % across,
		<Figure label="focus down" unit="%" value={taken.y} most={100} onset={(to: number) => desk.set(`${path}.y`, to)} /> %
		down. Over it an overlay of
		<Colour
			label="Overlay"
			value={taken.scrim.colour}
			{known}
			ramps={desk.kit?.ramps}
			onset={(to) => desk.set(`${path}.scrim.colour`, to)}
		/>
		at
		<Figure
			label="overlay"
			unit="%"
			value={Math.round(taken.scrim.opacity * 100)}
			most={100}
			onset={(to: number) => desk.set(`${path}.scrim.opacity`, to / 100)}
		/> %.
		{#if path === 'look.fill'}
			<label class="block">
				<input
					type="checkbox"
					checked={taken.instead ?? false}
					onchange={(e) => desk.set(`${path}.instead`, e.currentTarget.checked)}
				/>
				It stands for the words; they are its text alternative
			</label>
		{/if}
	</p>
{/if}
<div class="flex flex-wrap items-center gap-2">
	{#each desk.kit?.pictures ?? [] as picture (picture.hash)}
		<button
			class="thumb"
			aria-pressed={picture.hash === taken?.picture}
			aria-label="Picture {picture.name}, {picture.width} by {picture.height}"
			onclick={() => use(picture)}
		>
			<img src={address(picture.hash)} alt="" />
		</button>
	{/each}
	<FilePick inline label="A picture" accept="image/png,image/jpeg,image/webp" onpick={bring}
		>{attempt.isBusy ? 'Reading…' : 'upload a picture'}</FilePick
	>
</div>
{#if attempt.wrong}<p role="alert" class="mt-2 text-must">{attempt.wrong}</p>{/if}

<style>
	.whole {
		position: relative;
		display: block;
		max-width: 100%;
		cursor: crosshair;
	}
	.whole img {
		display: block;
		max-height: 160px;
		max-width: 100%;
	}
	.aim {
		position: absolute;
		width: 16px;
		height: 16px;
		margin: -8px;
		border: 2px solid var(--color-leaf);
		border-radius: 50%;
		box-shadow: 0 0 0 2px var(--color-ink);
	}
	.thumb img {
		width: 56px;
		height: 40px;
		object-fit: cover;
		border: 1px solid var(--color-soft);
	}
	.thumb[aria-pressed='true'] img {
		outline: 3px solid var(--color-ink);
	}
</style>
