import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
import type { Workshop } from './workshop.svelte';

/** Returns the exceptions of the draft, asked anew with every change of it. */
export function useExceptions(workshop: Workshop) {
	return createQuery(() => ({ ...workshop.ask.exceptions(), placeholderData: keepPreviousData }));
}
