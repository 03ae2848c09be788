import { afterAll, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Shop, Stand } from '../base/shop';
import { handedOver } from '../testing/parts';

type Box = { left: number; top: number; width: number; height: number };
const boxes = new WeakMap<Element, Box>();

describe('a button on a picture', () => {
	const { getBoundingClientRect } = Element.prototype;
	afterAll(() => {
		Element.prototype.getBoundingClientRect = getBoundingClientRect;
	});
	let host: HTMLElement;
	let picture: HTMLImageElement;
	let place: HTMLElement;
	beforeEach(() => {
		vi.stubGlobal(
			'ResizeObserver',
			class {
				observe() {}
				unobserve() {}
			},
		);
		document.body.innerHTML = '<article><img><div id=place><div id=host></div></div></article>';
		picture = document.querySelector('img')!;
		place = document.getElementById('place')!;
		host = document.getElementById('host')!;
		boxes.set(picture, { left: 100, top: 50, width: 200, height: 300 });
		boxes.set(host, { left: 0, top: 400, width: 80, height: 40 });
		Object.defineProperty(host, 'offsetWidth', { value: 80 });
		Element.prototype.getBoundingClientRect = function () {
			return { ...(boxes.get(this) ?? { left: 0, top: 0, width: 0, height: 0 }) } as DOMRect;
		};
	});
	const lay = async (over: object, device = 'desktop', draft = false) => {
		const make = await handedOver<(shop: Shop) => (stand: Stand) => void>(() => import('./over'));
		const shop = { manifest: { draft }, looker: { device } } as unknown as Shop;
		make(shop)({ host, place, standing: { made: { over } } } as unknown as Stand);
	};

	it('is moved by as much as it lies off its spot, so far inside as is said', async () => {
		await lay({ x: 1, y: 1, across: 10, down: 20 });
		// The right edge of the picture less the button and the inset, from where it lies by itself.
		expect(host.style.translate).toBe(`${300 - 80 - 10}px ${350 - 40 - 20 - 400}px`);
		expect(host.style.maxWidth).toBe('180px');
		expect(host.hasAttribute('data-on')).toBe(true);
	});

	it('takes shares of the picture as insets, and none in the middle', async () => {
		await lay({ x: 0.5, y: 0, across: '10%', down: '10%' });
		expect(host.style.translate).toBe(`${100 + 60}px ${50 + 30 - 400}px`);
	});

	it('is mirrored where one reads from the right', async () => {
		host.dir = 'rtl';
		await lay({ x: 1, y: 0, across: 10, down: 0 });
		expect(host.style.translate).toBe(`${100 + 10}px ${50 - 400}px`);
	});

	it('is nowhere while its picture has not come', async () => {
		boxes.set(picture, { left: 0, top: 0, width: 0, height: 0 });
		await lay({ x: 1, y: 1, across: 0, down: 0 });
		expect(host.hasAttribute('data-on')).toBe(false);
	});

	it('comes with a pointer on the picture and goes by Escape', async () => {
		await lay({ x: 1, y: 1, across: 0, down: 0 });
		const around = document.querySelector('article')!;
		around.dispatchEvent(new Event('pointerenter'));
		expect(host.hasAttribute('data-near')).toBe(true);
		document.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
		expect(host.hasAttribute('data-near')).toBe(false);
	});

	it('is always near in the studio’s window of a phone, where nothing can hover', async () => {
		await lay({ x: 1, y: 1, across: 0, down: 0 }, 'phone', true);
		expect(host.hasAttribute('data-near')).toBe(true);
	});
});
