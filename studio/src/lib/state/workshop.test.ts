import { describe, expect, it, vi } from 'vitest';
import { Workshop } from './workshop.svelte';

const api = vi.hoisted(() => ({ GET: vi.fn(), POST: vi.fn() }));
vi.mock('$lib/api/client', async (original) => ({
	...(await original<typeof import('$lib/api/client')>()),
	client: api,
}));

const mine = { name: 'Roofs', note: 'before the frost', reach_words: 'roofs', layer: {} };
const answers = (method: 'GET' | 'POST', told: object) => api[method].mockResolvedValue(told);

describe('an exception that is made', () => {
	it('is one’s own, whatever somebody else has made in the same second', async () => {
		answers('POST', { data: { version: 5, release: 1, changes: 1 } });
		const all = [
			{ id: 'e1', name: 'Roofs', note: 'an older one' },
			{ id: 'e2', ...mine },
			{ id: 'e3', name: 'Jars', note: 'of somebody else' },
		];
		answers('GET', { data: all });
		expect(await new Workshop().addException(mine)).toBe('e2');
	});

	it('has no id where it was refused, and the refusal is told', async () => {
		answers('POST', { error: { code: 'bad_reach', detail: 'No product is called “rofs”.' } });
		const workshop = new Workshop();
		expect(await workshop.addException(mine)).toBe('');
		expect(workshop.failed).toBe('The exception was not made.');
		expect(workshop.problem?.message).toContain('rofs');
	});
});
