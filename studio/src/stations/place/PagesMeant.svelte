<script lang="ts">
	import type { OnPages } from '$lib/api/types';
	import Pick from '$lib/ui/Pick.svelte';
	import Field from '$lib/ui/Field.svelte';

	/** On which pages something is shown, by their kind and path, as the middle of a sentence. */
	type Props = { pages: Partial<OnPages>; onset: (patch: Partial<OnPages>) => void };
	let { pages, onset }: Props = $props();
	type Kind = '' | 'product' | 'list' | 'other';
	const kinds = [
		{ value: '', label: 'every kind of page' },
		{ value: 'product', label: 'pages of one product' },
		{ value: 'list', label: 'pages of lists' },
		{ value: 'other', label: 'pages without products' },
	] as const;
	const globs = (text: string) => text.split(/[\s,]+/).filter(Boolean);
</script>

<Pick
	label="Kind of page"
	value={(pages.kinds?.[0] ?? '') as Kind}
	options={kinds}
	onpick={(kind) => onset({ kinds: kind ? [kind] : [] })}
/>, at <Field
	mono
	label="Paths, with a star for anything"
	value={(pages.paths ?? []).join(', ')}
	usual="any path"
	onset={(text) => onset({ paths: globs(text) })}
/>, not at <Field
	mono
	label="Paths that are not meant"
	value={(pages.not_paths ?? []).join(', ')}
	usual="none"
	onset={(text) => onset({ not_paths: globs(text) })}
/>
