import { createRouter } from 'sv-router';
import Floor from './stations/Floor.svelte';
import Lost from './stations/Lost.svelte';

// The floor is where everybody begins; each other station is loaded when somebody goes there.
export const { navigate, route } = createRouter({
	'/': Floor,
	'/draw': () => import('./stations/Draw.svelte'),
	'/draw/:placement': () => import('./stations/Draw.svelte'),
	'/words': () => import('./stations/Words.svelte'),
	'/release': () => import('./stations/Release.svelte'),
	'/trials': () => import('./stations/Trials.svelte'),
	'/trials/:number': () => import('./stations/Trial.svelte'),
	'*': Lost,
});
