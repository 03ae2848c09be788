<script lang="ts">
	import { useWorkshop } from '$lib/state/workshop.svelte';
	import Press from '$lib/ui/Press.svelte';

	const workshop = useWorkshop();
	let email = $state('');
	let password = $state('');
	let wrong = $state('');
	let busy = $state(false);

	async function onsubmit(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		busy = true;
		wrong = '';
		try {
			await workshop.signIn(email, password);
			if (!workshop.info) wrong = 'You belong to no store yet. Ask the owner to let you in.';
		} catch (error) {
			wrong = error instanceof Error ? error.message : String(error);
		} finally {
			busy = false;
		}
	}
</script>

<main class="door">
	<div class="rod" aria-hidden="true"></div>
	<form class="panel" {onsubmit}>
		<h1 class="text-2xl leading-tight">Up Tick</h1>
		<p class="mt-1 text-md text-soft">Draw the purchase button. Measure which one sells.</p>
		<label class="mt-8 block font-semibold" for="email">Mail address</label>
		<input id="email" class="field mt-1 w-full" type="email" autocomplete="username" required bind:value={email} />
		<label class="mt-4 block font-semibold" for="password">Password</label>
		<input
			id="password"
			class="field mt-1 w-full"
			type="password"
			autocomplete="current-password"
			required
			aria-invalid={wrong !== ''}
			aria-describedby={wrong ? 'wrong' : undefined}
			bind:value={password}
		/>
		<p class="mt-6"><Press main type="submit" disabled={busy}>{busy ? 'Opening…' : 'Sign in'}</Press></p>
		{#if wrong}<p id="wrong" role="alert" class="mt-4 text-must">▲ {wrong}</p>{/if}
	</form>
</main>

<style>
	.door {
		display: grid;
		grid-template-columns: 190px 1fr;
		min-height: 100vh;
	}
	.rod {
		border-right: 1px solid var(--color-ink);
		background-color: var(--color-leaf);
		background-image:
			linear-gradient(var(--color-marker) 0 0),
			repeating-linear-gradient(var(--color-ink) 0 2px, transparent 2px 104px),
			repeating-linear-gradient(var(--color-soft) 0 1px, transparent 1px 52px),
			repeating-linear-gradient(var(--color-hair) 0 1px, transparent 1px 10.4px);
		background-size:
			64px 22px,
			44px 100%,
			20px 100%,
			9px 100%;
		background-position:
			100% 208px,
			100% 0,
			100% 0,
			100% 0;
		background-repeat: no-repeat;
	}
	.panel {
		width: min(360px, 80vw);
		padding: 200px 0 40px 40px;
		box-sizing: content-box;
	}
</style>
