import { createRouter } from 'sv-router';
import Draw from './stations/Draw.svelte';
import Floor from './stations/Floor.svelte';
import Lost from './stations/Lost.svelte';
import Release from './stations/Release.svelte';
import Trial from './stations/Trial.svelte';
import Trials from './stations/Trials.svelte';
import Words from './stations/Words.svelte';

export const { navigate, route } = createRouter({
	'/': Floor,
	'/draw': Draw,
	'/draw/:placement': Draw,
	'/words': Words,
	'/release': Release,
	'/trials': Trials,
	'/trials/:number': Trial,
	'*': Lost,
});
