<script lang="ts">
	type Props = {
		/** A colour, or any CSS background. */
		of: string | null | undefined;
	};
	let { of }: Props = $props();
</script>

<span class="chip" style:background={of}></span>

<style>
	.chip {
		display: inline-block;
		width: 0.8em;
		height: 0.8em;
		margin-right: 0.35em;
		border: 1px solid var(--color-hair);
	}
</style>
