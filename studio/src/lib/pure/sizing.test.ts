import { describe, expect, it } from 'vitest';
import type { Ground } from './length';
import { heightOf, widthOf, withOpposite, type Sized } from './sizing';

const GROUND: Ground = { container: 400, window: 1000, type: 20 };
const look = (size: object): Sized =>
	({ size, padding: { left: 12, right: 20, top: 9, bottom: 3 } }) as unknown as Sized;

describe('a side that is linked', () => {
	it('takes the opposite with it', () => {
		expect(withOpposite('look.padding.left', 8, true)).toEqual({ 'look.padding.left': 8, 'look.padding.right': 8 });
		expect(withOpposite('look.padding.bottom', 8, true)).toEqual({ 'look.padding.bottom': 8, 'look.padding.top': 8 });
	});
	it('goes alone where sides are not linked, and where it is no side', () => {
		expect(withOpposite('look.padding.left', 8, false)).toEqual({ 'look.padding.left': 8 });
		expect(withOpposite('look.icon.gap', 8, true)).toEqual({ 'look.icon.gap': 8 });
	});
});

describe('a width or a height that is pulled', () => {
	it('is the size itself where it is fixed, and the most where it fills its room', () => {
		expect(widthOf(look({ kind: 'fixed', width: 100, height: 40 }), GROUND, 100, 130)).toEqual({
			'look.size.width': 130,
		});
		expect(heightOf(look({ kind: 'fixed', width: 100, height: 40 }), GROUND, 40, 50)).toEqual({
			'look.size.height': 50,
		});
		expect(widthOf(look({ kind: 'full' }), GROUND, 300, 280)).toEqual({ 'look.size.most': 280 });
	});
	it('is shared by both sides’ padding where it follows from the words', () => {
		expect(widthOf(look({ kind: 'words' }), GROUND, 150, 157)).toEqual({
			'look.padding.left': 15.5,
			'look.padding.right': 23.5,
		});
	});
	it('reckons a padding in em or per cent in pixels first', () => {
		const relative = {
			size: { kind: 'words' },
			padding: { left: '1em', right: '5%', top: 0, bottom: 0 },
		} as unknown as Sized;
		expect(widthOf(relative, GROUND, 100, 104)).toEqual({ 'look.padding.left': 22, 'look.padding.right': 22 });
	});
	it('takes no padding below nothing', () => {
		expect(heightOf(look({ kind: 'full' }), GROUND, 60, 50)).toEqual({
			'look.padding.top': 4,
			'look.padding.bottom': 0,
		});
	});
});
