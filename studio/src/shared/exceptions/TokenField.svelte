<script lang="ts">
	import { LIVE_VALUES } from '$lib/pure/facts';
	import { openBrace, withToken } from '$lib/pure/tokens';

	type Props = {
		label: string;
		value: string;
		onchange: (text: string) => void;
		/** Called when the text is finished: Enter, or the field is left. */
		onkeep?: () => void;
		/** Called when it is given up. */
		onleave?: () => void;
		rtl?: boolean;
		/** Looks like the text of a cell. */
		small?: boolean;
		/** Takes the focus as soon as it stands. */
		focused?: boolean;
	};
	let { label, value, onchange, onkeep, onleave, rtl = false, small = false, focused = false }: Props = $props();
	let field: HTMLInputElement;
	let at = $state(0);
	let picked = $state(0);
	const begun = $derived(openBrace(value, at));
	/** The list was closed by Escape; the next letter opens it again. */
	let isClosed = $state(false);
	const offered = $derived(begun === null || isClosed ? [] : LIVE_VALUES.filter((name) => name.startsWith(begun)));
	/** A shorter list than before has its first marked. */
	const marked = $derived(picked < offered.length ? picked : 0);
	const id = $props.id();

	function begin(input: HTMLInputElement): void {
		if (!focused) return;
		input.focus();
		input.select();
	}
	function take(name: string): void {
		const completed = withToken(value, at, name);
		onchange(completed.text);
		at = completed.at;
		picked = 0;
		requestAnimationFrame(() => {
			field.focus();
			field.setSelectionRange(completed.at, completed.at);
		});
	}
	function onkeydown(event: KeyboardEvent): void {
		if (offered.length && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
			event.preventDefault();
			picked = (marked + (event.key === 'ArrowDown' ? 1 : offered.length - 1)) % offered.length;
		} else if (offered.length && event.key === 'Enter') {
			event.preventDefault();
			take(offered[marked] ?? '');
		} else if (offered.length && event.key === 'Escape') {
			event.stopPropagation();
			isClosed = true;
		} else if (event.key === 'Enter' && onkeep) {
			event.preventDefault();
			onkeep();
		} else if (event.key === 'Escape' && onleave) {
			event.stopPropagation();
			onleave();
		}
	}
	function follow(): void {
		at = field.selectionStart ?? 0;
	}
</script>

<span class="around">
	<input
		bind:this={field}
		{@attach begin}
		class={['field w-full font-semibold', small ? 'small' : 'border-2 text-lg']}
		aria-label={label}
		role="combobox"
		aria-expanded={offered.length > 0}
		aria-controls="{id}-live"
		aria-autocomplete="list"
		aria-activedescendant={offered.length ? `${id}-live-${marked}` : undefined}
		maxlength="200"
		autocomplete="off"
		dir={rtl ? 'rtl' : 'auto'}
		{value}
		oninput={(event) => {
			isClosed = false;
			onchange(event.currentTarget.value);
			follow();
		}}
		onkeyup={follow}
		onclick={follow}
		onblur={() => {
			isClosed = true;
			// Also with a brace that is still open: what cannot be kept is said, and stays written.
			onkeep?.();
		}}
		{onkeydown}
	/>
	{#if offered.length}
		<ul id="{id}-live" class="border border-ink bg-leaf shadow-float" role="listbox" aria-label="Live values">
			{#each offered as name, n (name)}
				<!-- The keyboard stays in the field and tells which is marked. -->
				<li
					id="{id}-live-{n}"
					role="option"
					tabindex="-1"
					aria-selected={n === marked}
					class={['cursor-pointer px-3 py-1', n === marked && 'bg-marker']}
					onpointerdown={(event) => event.preventDefault()}
					onclick={() => take(name)}
					onkeydown={() => undefined}
				>
					&lbrace;{name}&rbrace;
				</li>
			{/each}
		</ul>
	{/if}
</span>

<style>
	.around {
		position: relative;
		display: block;
	}
	.small {
		padding: 2px 6px;
		font-size: 15px;
	}
	ul {
		position: absolute;
		z-index: 45;
		top: 100%;
		left: 0;
		min-width: 200px;
	}
</style>
