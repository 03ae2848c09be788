<script lang="ts">
	import { many } from '$lib/pure/format';
	import { Popover } from 'bits-ui';

	type Mark = { id: string; name: string; products: number; sets: readonly string[] };
	type Props = {
		exceptions: readonly Mark[];
		/** How many products the place has. */
		of: number;
		/** Where it is, for those who cannot see it. */
		where: string;
		onopen: (id: string) => void;
	};
	let { exceptions, of, where, onopen }: Props = $props();
	let open = $state(false);
</script>

<Popover.Root bind:open>
	<Popover.Trigger
		class="figure underline underline-offset-2 data-[state=open]:bg-marker"
		aria-label="{many(exceptions.length, 'exception')} on the {where}">+{exceptions.length}</Popover.Trigger
	>
	<Popover.Portal>
		<Popover.Content
			sideOffset={6}
			class="z-40 w-80 border border-ink bg-leaf p-3 shadow-float"
			role="dialog"
			aria-label="Exceptions, {where}"
		>
			<p class="mb-1 font-semibold">Differs here</p>
			<ul class="divide-y divide-hair">
				{#each exceptions as rule (rule.id)}
					<li class="flex items-baseline justify-between gap-3 py-1">
						<span
							><button
								class="text-left underline underline-offset-2"
								onclick={() => {
									open = false;
									onopen(rule.id);
								}}>{rule.name}</button
							>
							<span class="block text-soft">{rule.sets.slice(0, 4).join(', ')}</span></span
						>
						<span class="figure whitespace-nowrap text-soft">{rule.products} of {of}</span>
					</li>
				{/each}
			</ul>
		</Popover.Content>
	</Popover.Portal>
</Popover.Root>
