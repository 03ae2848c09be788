<script lang="ts">
	import { LIMITS } from '$lib/pure/facts';
	import type { Ground, Length } from '$lib/pure/length';
	import { valueAt } from '$lib/pure/patch';
	import type { Desk } from '$lib/state/desk.svelte';
	import Figure from '$lib/ui/Figure.svelte';

	type Props = {
		desk: Desk;
		ground: Ground;
		label: string;
		/** Where in the document the number is; one that the studio knows limits of needs none. */
		path: string;
		least?: number;
		most?: number;
		unit?: string;
		/** Whether a length keeps the unit in which it was written. */
		keepsUnits?: boolean;
	};
	let { desk, ground, label, path, least, most, unit = 'px', keepsUnits = false }: Props = $props();
	const limits = $derived((LIMITS as Record<string, readonly [number, number]>)[path]);
</script>

<Figure
	{label}
	value={(valueAt(desk.view?.document, path) ?? 0) as Length}
	least={least ?? limits?.[0]}
	most={most ?? limits?.[1]}
	{unit}
	{ground}
	{keepsUnits}
	marked={desk.marked === path}
	onfocus={() => desk.mark(path)}
	onset={(value: Length) => desk.set(path, value)}
	ontry={(value: Length) => desk.tryOut({ [path]: value })}
/>
