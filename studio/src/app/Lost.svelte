<script lang="ts">
	import { useWorkshop } from '$lib/state/workshop.svelte';

	const { context } = useWorkshop();
</script>

<div class="p-6">
	<h1 class="text-xl">There is no such place.</h1>
	<p class="mt-2"><a href={context.href('/')} class="underline">Back to the floor</a></p>
</div>
