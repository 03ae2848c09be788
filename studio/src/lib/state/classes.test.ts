import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Problem } from '$lib/api/client';
import { Clipboard } from './clipboard.svelte';
import { DrawingTools } from './drawing_tools.svelte';
import { Preferences } from './preferences.svelte';
import { SessionState } from './session.svelte';

const api = vi.hoisted(() => ({ GET: vi.fn(), POST: vi.fn(), DELETE: vi.fn() }));
vi.mock('$lib/api/client', async (original) => ({
	...(await original<typeof import('$lib/api/client')>()),
	client: api,
}));
const person = { name: 'Ada', stores: ['thornmere'] };
beforeEach(() => Object.values(api).forEach((call) => call.mockReset()));
afterEach(() => {
	localStorage.clear();
	vi.unstubAllGlobals();
});

describe('preferences', () => {
	it('keep whether single keys work, for the next visit', () => {
		const preferences = new Preferences();
		expect(preferences.singleKeys).toBe(true);
		preferences.singleKeys = false;
		expect(new Preferences().singleKeys).toBe(false);
	});

	it('hold for this visit where the browser keeps nothing', () => {
		const refuse = () => {
			throw new DOMException('', 'SecurityError');
		};
		vi.stubGlobal('localStorage', { getItem: refuse, setItem: refuse, clear: () => undefined });
		const preferences = new Preferences();
		preferences.singleKeys = false;
		expect(preferences.singleKeys).toBe(false);
	});
});

describe('the clipboard', () => {
	it('holds one button, and knows which', () => {
		const clipboard = new Clipboard();
		expect(clipboard.holdsButton('product_page/A1')).toBe(false);
		clipboard.copyButton('product_page/A1');
		expect([clipboard.holdsButton('product_page/A1'), clipboard.holdsButton('sticky_bar/A1')]).toEqual([true, false]);
	});
});

describe('the session', () => {
	it('is taken up where this browser has one', async () => {
		api.GET.mockResolvedValue({ data: person });
		const session = new SessionState();
		await session.open();
		expect(session.current).toEqual(person);
	});

	it('is none where nobody is signed in, and anything else is said', async () => {
		const session = new SessionState();
		api.GET.mockResolvedValue({ error: { code: 'not_signed_in', detail: 'Sign in first.' } });
		await session.open();
		expect(session.current).toBeNull();
		api.GET.mockResolvedValue({ error: { code: 'http', detail: 'The database is away.' } });
		await expect(session.open()).rejects.toThrow(Problem);
	});

	it('begins with the right password and ends', async () => {
		const session = new SessionState();
		api.POST.mockResolvedValue({ data: person });
		api.DELETE.mockResolvedValue({ data: undefined });
		await session.signIn('ada@thornmere.example', 'a secret');
		expect(session.current).toEqual(person);
		await session.signOut();
		expect(session.current).toBeNull();
	});
});

describe('the drawing’s tools', () => {
	it('enlarge between a quarter and four times', () => {
		const tools = new DrawingTools();
		for (let n = 0; n < 20; n++) tools.larger();
		expect(tools.times).toBe(4);
		for (let n = 0; n < 40; n++) tools.smaller();
		expect(tools.times).toBe(0.25);
		tools.fit();
		expect(tools.times).toBe(1);
	});
});
