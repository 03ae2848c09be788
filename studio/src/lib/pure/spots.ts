/** Says an anchor on a picture as one sees it; where one reads from right to left, start and end are the other sides. */
export function spotWords(spot: string, rtl: boolean): string {
	const down = spot.startsWith('top') ? 'upper' : spot.startsWith('bottom') ? 'lower' : '';
	const side = /end$/.test(spot) ? (rtl ? 'left' : 'right') : /start$/.test(spot) ? (rtl ? 'right' : 'left') : '';
	if (down && side) return `in the ${down} ${side} corner`;
	if (side) return `on the ${side}`;
	return down ? `at the ${down === 'upper' ? 'top' : 'bottom'}` : 'in the middle';
}
