import { expect, it, vi } from 'vitest';
import { lazily } from './lazily';

it('loads once, for all who ask', async () => {
	const load = vi.fn(() => Promise.resolve({}));
	const get = lazily(load);
	expect(await get()).toBe(await get());
	expect(load).toHaveBeenCalledOnce();
});

it('tries again what could not be had', async () => {
	const load = vi.fn().mockRejectedValueOnce(new Error('closed')).mockResolvedValue('there');
	const get = lazily(load);
	await expect(get()).rejects.toThrow('closed');
	expect(await get()).toBe('there');
	expect(load).toHaveBeenCalledTimes(2);
});
