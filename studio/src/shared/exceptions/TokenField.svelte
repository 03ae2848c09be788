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
	const offered = $derived(begun === null ? [] : LIVE_VALUES.filter((name) => name.startsWith(begun)));
	const id = $props.id();

	function begin(input: HTMLInputElement): void {
		if (!focused) return;
		input.focus();
		input.select();
	}
	function take(name: string): void {
		const made = withToken(value, at, name);
		onchange(made.text);
		at = made.at;
		picked = 0;
		requestAnimationFrame(() => {
			field.focus();
			field.setSelectionRange(made.at, made.at);
		});
	}
	function onkeydown(event: KeyboardEvent): void {
		if (offered.length && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
			event.preventDefault();
			picked = (picked + (event.key === 'ArrowDown' ? 1 : offered.length - 1)) % offered.length;
		} else if (offered.length && (event.key === 'Enter' || event.key === 'Tab')) {
			event.preventDefault();
			take(offered[picked] ?? offered[0] ?? '');
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
		maxlength="200"
		autocomplete="off"
		dir={rtl ? 'rtl' : 'auto'}
		{value}
		oninput={(event) => {
			onchange(event.currentTarget.value);
			follow();
		}}
		onkeyup={follow}
		onclick={follow}
		onblur={() => !offered.length && onkeep?.()}
		{onkeydown}
	/>
	{#if offered.length}
		<ul id="{id}-live" class="border border-ink bg-leaf shadow-float" role="listbox" aria-label="Live values">
			{#each offered as name, n (name)}
				<li role="option" aria-selected={n === picked}>
					<button
						type="button"
						tabindex="-1"
						class={['w-full px-3 py-1 text-left', n === picked && 'bg-marker']}
						onmousedown={(event) => event.preventDefault()}
						onclick={() => take(name)}>&lbrace;{name}&rbrace;</button
					>
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
