import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { shopperId } from './shopper';
import { shopperKind } from './kind';
import { SignalBox, uuid7 } from './signals';

const sent: { url: string; body: { events: { kind: string; id: string }[]; shopper: string; sent: string } }[] = [];
let status = 200;

let who = 'shopper-1';
function box(): SignalBox {
	return new SignalBox({ edge: 'http://edge', key: 'shop', release: 3 }, () => who);
}
const agree = (told?: string) =>
	told
		? document.documentElement.setAttribute('data-up-consent', told)
		: document.documentElement.removeAttribute('data-up-consent');
const kept = () => Object.keys(localStorage).filter((key) => key.startsWith('up.batch.shop.'));
const settled = () => vi.advanceTimersByTimeAsync(0);

beforeEach(() => {
	vi.useFakeTimers();
	localStorage.clear();
	sent.length = 0;
	status = 200;
	vi.stubGlobal('fetch', async (url: string, init: RequestInit) => {
		if (status === 0) throw new TypeError('no network');
		sent.push({ url, body: JSON.parse(String(init.body)) });
		return { status };
	});
});
afterEach(() => {
	vi.useRealTimers();
	vi.unstubAllGlobals();
	agree();
	who = 'shopper-1';
});

describe('ids', () => {
	it('are UUIDs of version 7 that carry their time', () => {
		// Reference: RFC 9562, appendix A.6: this time gives the first 48 bits 017F22E279B0.
		const id = uuid7(Date.UTC(2022, 1, 22, 19, 22, 22));
		expect(id).toMatch(/^017f22e2-79b0-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
		expect(uuid7()).not.toBe(uuid7());
	});

	it('of shoppers are none until the shop says yes, stay the same then, and go with a no', () => {
		expect(shopperId()).toBe('');
		expect(localStorage).toHaveLength(0);
		agree('yes');
		const id = shopperId();
		expect(id).toMatch(/^[0-9a-f]{32}$/);
		expect(shopperId()).toBe(id);
		agree('no');
		expect(shopperId()).toBe('');
		agree('yes');
		expect(shopperId()).not.toBe(id);
		vi.stubGlobal('navigator', { globalPrivacyControl: true });
		expect(shopperId()).toBe('');
	});

	it('of shoppers are none where nothing can be kept, since they would be others on every page', () => {
		agree('yes');
		vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
			throw new DOMException('full', 'QuotaExceededError');
		});
		expect(shopperId()).toBe('');
		vi.restoreAllMocks();
	});

	it('tell by their time whether somebody has been here on an earlier day, unless the page says who it is', () => {
		vi.setSystemTime(Date.UTC(2026, 5, 2, 12));
		const of = (time: number) => uuid7(time).replace(/-/g, '');
		expect(shopperKind(of(Date.UTC(2026, 5, 1, 23)))).toBe('returning');
		expect(shopperKind(of(Date.UTC(2026, 5, 2, 1)))).toBe('new');
		expect(shopperKind('')).toBe('new');
		document.documentElement.dataset.upShopper = 'signed_in';
		expect(shopperKind('')).toBe('signed_in');
		document.documentElement.dataset.upShopper = 'somebody';
		expect(shopperKind('')).toBe('new');
		delete document.documentElement.dataset.upShopper;
	});
});

describe('a batch', () => {
	it('goes after a short wait, as one', async () => {
		const signals = box();
		signals.add({ kind: 'shown', place: 'product_page', product: 'A1' });
		signals.add({ kind: 'clicked', place: 'product_page', product: 'A1' });
		expect(sent).toHaveLength(0);
		await settled();
		expect(kept()).toHaveLength(1);
		await vi.advanceTimersByTimeAsync(1500);
		expect(sent[0]?.url).toBe('http://edge/s/shop/signals');
		expect(sent[0]?.body.events.map((event) => event.kind)).toEqual(['shown', 'clicked']);
		expect(kept()).toHaveLength(0);
	});

	it('is another one from when the shopper agrees on', async () => {
		who = '';
		const signals = box();
		signals.add({ kind: 'shown' });
		who = 'shopper-2';
		signals.add({ kind: 'clicked' });
		await vi.advanceTimersByTimeAsync(1500);
		expect(sent.map(({ body }) => [body.shopper, body.events.length])).toEqual([
			['', 1],
			['shopper-2', 1],
		]);
	});

	it('is kept for a next try only among the newest, and for a week', async () => {
		status = 0;
		for (let n = 0; n < 30; n++) {
			box().add({ kind: 'shown' });
			await vi.advanceTimersByTimeAsync(1500);
		}
		expect(kept()).toHaveLength(20);
		status = 200;
		vi.advanceTimersByTime(8 * 86_400_000);
		box();
		await vi.advanceTimersByTimeAsync(1500);
		expect(kept()).toHaveLength(0);
		expect(sent).toHaveLength(0);
	});

	it('goes at once when the page is left', async () => {
		box().add({ kind: 'shown' });
		dispatchEvent(new Event('pagehide'));
		await settled();
		expect(sent).toHaveLength(1);
	});

	it('goes when it is full', async () => {
		const signals = box();
		for (let n = 0; n < 50; n++) signals.add({ kind: 'shown' });
		await settled();
		expect(sent[0]?.body.events).toHaveLength(50);
	});

	it.each([0, 500, 503, 408, 425, 429])(
		'is kept and sent again by the next page after %s, under the same ids',
		async (failure) => {
			status = failure;
			box().add({ kind: 'shown' });
			await vi.advanceTimersByTimeAsync(1500);
			expect(kept()).toHaveLength(1);
			const before = JSON.parse(localStorage.getItem(kept()[0] ?? '') ?? '').events[0].id;
			status = 200;
			sent.length = 0;
			box();
			await vi.advanceTimersByTimeAsync(1500);
			expect(sent[0]?.body.events[0]?.id).toBe(before);
			expect(kept()).toHaveLength(0);
		},
	);

	it.each([400, 403, 413])('that the edge will never take (%s) is dropped', async (refusal) => {
		status = refusal;
		box().add({ kind: 'shown' });
		await vi.advanceTimersByTimeAsync(1500);
		expect(kept()).toHaveLength(0);
	});

	it('that lies in storage as rubbish is cleared away', async () => {
		localStorage.setItem('up.batch.shop.x', '{ not json');
		box();
		await vi.advanceTimersByTimeAsync(1500);
		expect(kept()).toHaveLength(0);
	});

	it('is sent even where the browser keeps nothing', async () => {
		vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
			throw new DOMException('full');
		});
		box().add({ kind: 'shown' });
		await vi.advanceTimersByTimeAsync(1500);
		expect(sent).toHaveLength(1);
		vi.restoreAllMocks();
	});
});
