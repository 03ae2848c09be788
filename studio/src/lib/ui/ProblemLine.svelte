<script lang="ts">
	import { PROBLEM_ID, useWorkshop } from '$lib/state/workshop.svelte';
	import Press from './Press.svelte';

	type Props = { class?: string };
	let { class: extra = '' }: Props = $props();
	const workshop = useWorkshop();
</script>

{#if workshop.problem}
	<div id={PROBLEM_ID} class={['problem border-must bg-leaf', extra]} role="alert">
		<p><b class="text-must">▲ {workshop.failed}</b> {workshop.problem.message}</p>
		<Press small onpress={() => (workshop.problem = null)}>Dismiss</Press>
	</div>
{/if}

<style>
	.problem {
		display: flex;
		align-items: center;
		justify-content: space-between;
		gap: 16px;
	}
</style>
