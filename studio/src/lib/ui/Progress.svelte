<script lang="ts">
	import { Progress } from 'bits-ui';

	type Props = {
		/** What goes on, as a screen reader says it. */
		label: string;
		done: number;
		of: number;
	};
	let { label, done, of }: Props = $props();
</script>

<Progress.Root aria-label={label} value={done} max={Math.max(1, of)} class="mt-2 h-2.5 w-60 border border-ink">
	<div class="h-full bg-ink" style:width="{(100 * done) / Math.max(1, of)}%"></div>
</Progress.Root>
