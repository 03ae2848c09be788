import { client, data } from '$lib/api/client';
import type { ReadIcon, StoredPicture } from '$lib/api/types';
import type { Desk } from './desk.svelte';
import type { Workshop } from './workshop.svelte';

/** Keeps the look that is drawn under a name; the layer that it was drawn for uses it from then on. */
export function keepLook(workshop: Workshop, desk: Desk, name: string): Promise<boolean> {
	const layer = desk.kept?.editing.layer ?? '';
	const body = { name, used_by: layer.startsWith('look:') ? '' : layer };
	const { params } = desk;
	return workshop.act(
		(headers) => data(client.POST('/api/stores/{store}/draw/{placement}/keep', { params, headers, body })),
		'The look was not kept.',
	);
}

/** Lets a layer use a saved look; an empty one stops it. */
export function useLook(workshop: Workshop, layer: string, look: string): Promise<boolean> {
	const params = { path: workshop.path };
	return workshop.act((headers) =>
		data(client.PUT('/api/stores/{store}/looks/used', { params, headers, body: { layer, look } })),
	);
}

export function deleteLook(workshop: Workshop, look: string): Promise<boolean> {
	const params = { path: { ...workshop.path, look } };
	return workshop.act(
		(headers) => data(client.DELETE('/api/stores/{store}/looks/{look}', { params, headers })),
		'The look was not deleted.',
	);
}

/** Sets the colours that the brand's ramps are made of. */
export function setBrand(workshop: Workshop, seeds: { name: string; colour: string }[]): Promise<boolean> {
	const params = { path: workshop.path };
	return workshop.act((headers) => data(client.PUT('/api/stores/{store}/brand', { params, headers, body: { seeds } })));
}

/** Stores a picture that buttons can be filled with. */
export async function storePicture(workshop: Workshop, file: File): Promise<StoredPicture> {
	const stored = await data(
		client.POST('/api/stores/{store}/pictures', {
			params: { path: workshop.path, query: { name: file.name } },
			body: file as unknown as string,
			bodySerializer: (body) => body,
			headers: { 'Content-Type': 'application/octet-stream' },
		}),
	);
	await workshop.refresh('looks');
	return stored;
}

/** Reads an icon from an SVG; nothing is kept. */
export function readIcon(workshop: Workshop, svg: string, name: string): Promise<ReadIcon> {
	return data(client.POST('/api/stores/{store}/icons', { params: { path: workshop.path }, body: { svg, name } }));
}
