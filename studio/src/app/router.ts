import { createRouter } from 'sv-router';
import Floor from '../stations/floor/Floor.svelte';
import Lost from './Lost.svelte';
import { setRouter, type Router } from '$lib/state/way';

// The floor is where everybody begins; each other station is loaded when somebody goes there.
const router = createRouter({
	'/': Floor,
	'/draw': () => import('../stations/draw/Draw.svelte'),
	'/draw/:placement': () => import('../stations/draw/Draw.svelte'),
	'/words': () => import('../stations/words/Words.svelte'),
	'/place': () => import('../stations/place/Place.svelte'),
	'/place/points': () => import('../stations/place/Points.svelte'),
	'/release': () => import('../stations/release/Release.svelte'),
	'/release/outside': () => import('../stations/release/Outside.svelte'),
	'/trials': () => import('../stations/trials/Trials.svelte'),
	'/trials/:number': () => import('../stations/trials/Trial.svelte'),
	'*': Lost,
});
setRouter(router as unknown as Router);
export const { route } = router;
