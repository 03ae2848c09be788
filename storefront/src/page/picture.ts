/** So many elements around a place are looked through for the picture that it lies on. */
const MOST_UP = 4;

/** Returns the picture beside a place: the first in the smallest element around it that has one. */
export function pictureBeside(place: Element): HTMLImageElement | null {
	let at = place.parentElement;
	for (let up = 0; at && up < MOST_UP; up++, at = at.parentElement) {
		const img = at.querySelector('img');
		if (img) return img;
	}
	return null;
}
