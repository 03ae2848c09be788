<script lang="ts">
	import { client, data, Problem } from '$lib/api/client';
	import type { CarryView, CompiledButton, Device } from '$lib/api/types';
	import { many } from '$lib/pure/format';
	import type { Desk } from '$lib/state/desk.svelte';
	import type { Carried } from '$lib/state/clipboard.svelte';
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Chip from '$lib/ui/Chip.svelte';
	import Press from '$lib/ui/Press.svelte';
	import Sheet from '$lib/ui/Sheet.svelte';
	import Waiting from '$lib/ui/Waiting.svelte';
	import StylesheetPick from './StylesheetPick.svelte';
	import TokenValues from './TokenValues.svelte';
	import TrueButton from '$lib/ui/TrueButton.svelte';

	type Props = {
		desk: Desk;
		/** What is brought already when the sheet opens: a copied look, for example. */
		from: Carried | null;
		onclose: () => void;
	};
	let { desk, from, onclose }: Props = $props();
	const workshop = useWorkshop();
	const view = $derived(desk.kept);
	const kit = $derived(desk.kit);
	let source = $state.raw<Carried | null>(null);
	let brought = $state.raw<CarryView | null>(null);
	let parts = $state<string[]>([]);
	let pasted = $state('');
	let wrong = $state('');
	let name = $state('');
	/** A stylesheet whose button has still to be chosen. */
	let stylesheet = $state.raw<string | null>(null);
	/** Its only button has been read already: whoever comes back wants another one. */
	let cameBack = $state(false);
	/** Devices on which the look's own values shall count. */
	let devices = $state<Device[]>([]);

	let asked = 0;
	async function bring(what: Carried, chosen: string[] = []): Promise<void> {
		const mine = ++asked;
		wrong = '';
		try {
			const body = { ...what, parts: chosen, layer: view?.editing.layer ?? '' };
			const found = await data(
				client.POST('/api/stores/{store}/draw/{placement}/bring', { params: desk.params, body }),
			);
			// Of several questions only the newest is answered; what has been chosen meanwhile stays.
			if (mine !== asked) return;
			source = what;
			brought = found;
			if (!chosen.length) {
				parts = [...found.parts];
				devices = found.by_device.map((one) => one.device);
			}
		} catch (error) {
			wrong = error instanceof Problem ? error.message : String(error);
		}
	}
	/** Lays values of a file onto fields; an empty field takes none. */
	function lay(laid: Record<string, string>): void {
		const kept = Object.fromEntries(Object.entries(laid).filter(([, field]) => field));
		if (source) void bring({ ...source, laid: kept });
	}
	function choose(part: string, on: boolean): void {
		const next = on ? [...parts, part] : parts.filter((one) => one !== part);
		parts = next;
		if (source && next.length) void bring(source, next);
		else asked++;
	}
	async function take(): Promise<void> {
		if (!source || !view) return;
		const body = { ...source, parts, layer: view.editing.layer, devices };
		const done = await workshop.act(async (headers) => {
			const drawn = await data(
				client.POST('/api/stores/{store}/draw/{placement}/carry', { params: desk.params, headers, body }),
			);
			desk.take(drawn);
			return drawn.draft;
		});
		if (done) onclose();
	}
	const withStore = { path: workshop.path };
	async function keep(): Promise<void> {
		const body = { name, used_by: view?.editing.layer.startsWith('look:') ? '' : (view?.editing.layer ?? '') };
		const done = await workshop.act((headers) =>
			data(client.POST('/api/stores/{store}/draw/{placement}/keep', { params: desk.params, headers, body })),
		);
		if (done) name = '';
	}
	const use = (look: string) =>
		workshop.act((headers) =>
			data(
				client.PUT('/api/stores/{store}/looks/used', {
					params: withStore,
					headers,
					body: { layer: view?.editing.layer ?? '', look },
				}),
			),
		);
	const drop = (look: string) =>
		workshop.act((headers) =>
			data(
				client.DELETE('/api/stores/{store}/looks/{look}', { params: { path: { ...workshop.path, look } }, headers }),
			),
		);
	function takeBrand(): void {
		const seeds = (brought?.colours ?? []).slice(0, 3).map(({ name, colour }) => ({ name, colour }));
		void workshop.act((headers) =>
			data(client.PUT('/api/stores/{store}/brand', { params: withStore, headers, body: { seeds } })),
		);
	}
	// svelte-ignore state_referenced_locally
	if (from) void bring(from);
	async function read(file: File | undefined): Promise<void> {
		if (file) await text(await file.text());
	}
	/** Braces around names in quotes are tokens; everything else is taken for CSS, which the browser reads. */
	async function text(value: string): Promise<void> {
		wrong = '';
		if (value.trimStart().startsWith('{')) await bring({ kind: 'tokens', value, selector: '' });
		else {
			cameBack = false;
			stylesheet = value;
		}
	}
</script>

{#snippet shown(button: CompiledButton)}
	{@const wide = button.quantity || button.second}
	<span class="mini" style:zoom={wide ? 0.58 : 0.72}>
		<TrueButton
			{button}
			moment="ready"
			text={view?.shown.text ?? ''}
			rtl={view?.seen.rtl}
			room={wide ? 350 : 180}
			second="Buy now"
		/>
	</span>
{/snippet}

<Sheet
	open
	title={brought
		? `Apply “${brought.title}” to ${view?.editing.title}`
		: stylesheet === null
			? 'Looks'
			: 'Which button of the stylesheet?'}
	{onclose}
	wide
>
	{#if brought && view}
		<div class="mt-3 grid grid-cols-[1fr_1fr] gap-6">
			<div>
				<h3 class="mb-2">What to apply</h3>
				<ul class="grid grid-cols-3 gap-1">
					{#each brought.parts as part (part)}
						<li>
							<label
								><input
									type="checkbox"
									checked={parts.includes(part)}
									onchange={(e) => choose(part, e.currentTarget.checked)}
								/>
								{part}</label
							>
						</li>
					{:else}
						<li class="col-span-3 text-soft">There is nothing of a button in it.</li>
					{/each}
				</ul>
				{#each brought.by_device as other (other.device)}
					<h3 class="mt-4 mb-1">On the {other.device} it differs</h3>
					<p class="text-sm text-soft">
						{other.changes.map((change) => `${change.field} ${change.after}`).join(', ')}
					</p>
					<label
						><input
							type="checkbox"
							checked={devices.includes(other.device)}
							onchange={(e) =>
								(devices = e.currentTarget.checked
									? [...devices, other.device]
									: devices.filter((one) => one !== other.device))}
						/>
						make an exception for the {other.device}</label
					>
				{/each}
				{#if brought.colours.length}
					<p class="mt-4">
						<button class="value" onclick={takeBrand}
							>Take its first {Math.min(3, brought.colours.length)} colours as the brand’s</button
						>
						{#each brought.colours.slice(0, 3) as one, n (n)}<Chip of={one.colour} />{/each}
					</p>
				{/if}
				{#if brought.values.length}
					<TokenValues values={brought.values} laid={source?.laid ?? {}} onlay={lay} />
				{/if}
				{#if brought.left_out.length}
					<h3 class="mt-4 mb-1">Not taken: {many(brought.left_out.length, 'line')}</h3>
					<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
					<ul class="max-h-64 overflow-auto text-sm text-soft" aria-label="Left out" tabindex="0">
						{#each brought.left_out as one, n (n)}<li>– {one}</li>{/each}
					</ul>
				{/if}
			</div>
			<div>
				<h3 class="mb-2">Now, and with it</h3>
				<div class="grid justify-items-start gap-4 overflow-hidden bg-paper p-4">
					<TrueButton
						button={view.shown.button}
						moment={view.shown.moment}
						text={view.shown.text}
						rtl={view.seen.rtl}
						room={400}
						second="Buy now"
					/>
					{#if brought.after}
						<TrueButton
							button={brought.after.shown.button}
							moment={view.shown.moment}
							text={view.shown.text}
							rtl={view.seen.rtl}
							room={400}
							second="Buy now"
						/>
					{/if}
				</div>
				<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
				<ul class="mt-3 max-h-56 overflow-auto text-sm" aria-label="What changes" tabindex="0">
					{#each brought.changes as change (change.path)}
						<li class="flex gap-2 border-b border-hair py-1">
							<span class="w-44">{change.field}</span><span class="figure text-soft">{change.before}</span> →
							<b class="figure">{change.after}</b>
						</li>
					{:else}
						<li class="text-soft">Nothing would change.</li>
					{/each}
				</ul>
			</div>
		</div>
		<p class="mt-5 flex gap-3">
			<Press main onpress={take} disabled={!parts.length || !brought.changes.length}
				>Apply {many(brought.changes.length, 'value')}</Press
			>
			<Press
				onpress={() => {
					brought = source = null;
					cameBack = true;
				}}>Back</Press
			>
		</p>
	{:else if stylesheet !== null}
		<StylesheetPick
			css={stylesheet}
			chooses={cameBack}
			words={view?.shown.text || 'Add to basket'}
			onread={(reading) => bring({ kind: 'computed', value: JSON.stringify(reading), selector: '' })}
			onback={() => (stylesheet = null)}
		/>
	{:else if kit && view}
		<h3 class="mt-3 mb-2">Saved looks</h3>
		{#each kit.looks as look (look.id)}
			<div class="flex items-center gap-4 border-b border-hair py-2">
				{@render shown(look.button)}
				<b class="w-40">{look.name}</b>
				<span class="flex-1 text-soft"
					>{look.used_by.length ? `used by ${look.used_by.join(', ')}` : 'not used yet'}</span
				>
				{#if view.editing.uses === look.id}
					<Press small onpress={() => use('')}>Stop using</Press>
				{:else if !view.editing.layer.startsWith('look:')}
					<Press small onpress={() => use(look.id)} label="Use {look.name}">Use</Press>
				{/if}
				<Press small onpress={() => bring({ kind: 'look', value: look.id, selector: '' })} label="Copy from {look.name}"
					>Copy</Press
				>
				<Press small onpress={() => drop(look.id)} label="Delete {look.name}">Delete</Press>
			</div>
		{:else}
			<p class="text-soft">
				No saved looks yet. A saved look can be used by several placements and changed in one place.
			</p>
		{/each}
		<form
			class="mt-3 flex items-center gap-2"
			onsubmit={(event) => {
				event.preventDefault();
				void keep();
			}}
		>
			<input
				class="field"
				aria-label="Name of the look"
				placeholder="name of this button’s look"
				maxlength="60"
				bind:value={name}
				{...workshop.told('name')}
			/>
			<Press small type="submit" disabled={!name.trim()}>Save look</Press>
		</form>
		<h3 class="mt-5 mb-2">Starting points</h3>
		<ul class="starts">
			{#each kit.starts as start (start.key)}
				<li>
					<button class="start" onclick={() => bring({ kind: 'start', value: start.key, selector: '' })}>
						<span class="stand">{@render shown(start.button)}</span>
						<b>{start.name}</b><span class="text-sm text-soft">{start.says}</span>
					</button>
				</li>
			{/each}
		</ul>
		<h3 class="mt-5 mb-2">From an existing button’s CSS, or from design tokens</h3>
		<form
			class="flex items-start gap-2"
			onsubmit={(event) => {
				event.preventDefault();
				void text(pasted);
			}}
		>
			<textarea
				class="field h-20 w-full font-mono text-sm"
				aria-label="CSS or tokens"
				placeholder=".add-to-basket &#123; background: … &#125;"
				bind:value={pasted}></textarea>
			<span class="grid gap-2 whitespace-nowrap">
				<Press small type="submit" disabled={!pasted.trim()}>Read it</Press>
				<label class="value cursor-pointer focus-within:bg-marker">
					a file<input
						class="sr-only"
						type="file"
						accept=".css,.json,.tokens,text/css,application/json"
						onchange={(e) => read(e.currentTarget.files?.[0])}
					/>
				</label>
			</span>
		</form>
	{:else}
		<Waiting what="Loading the looks" error={desk.looks.error} onretry={() => desk.looks.refetch()} />
	{/if}
	{#if wrong}<p role="alert" class="mt-3 text-must">{wrong}</p>{/if}
</Sheet>

<style>
	.mini {
		display: block;
		overflow: hidden;
		padding: 4px 0;
	}
	.starts {
		display: grid;
		grid-template-columns: repeat(4, 1fr);
		gap: 8px;
	}
	.start {
		display: grid;
		align-content: end;
		width: 100%;
		height: 100%;
		padding: 8px;
		text-align: left;
		border: 1px solid var(--color-hair);
	}
	.start:hover {
		border-color: var(--color-ink);
	}
	.stand {
		display: grid;
		place-items: center start;
		min-height: 52px;
		margin-bottom: 6px;
	}
</style>
