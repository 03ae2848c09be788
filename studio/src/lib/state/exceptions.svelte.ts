import { createQuery } from '@tanstack/svelte-query';
import { client, data } from '$lib/api/client';
import { keyOf } from '$lib/api/keys';
import type { Workshop } from './workshop.svelte';

/** Returns the exceptions of the draft, asked anew with every change of it. */
export function useExceptions(workshop: Workshop) {
	return createQuery(() => ({
		queryKey: keyOf.exceptions(workshop.at),
		queryFn: () => data(client.GET('/api/stores/{store}/exceptions', { params: { path: workshop.path } })),
		placeholderData: (before) => before,
	}));
}
