import { element } from '../base/element';
import type { MakeHanging } from '../base/shop';
import { hang } from './hang';

/** A button by itself in a corner of the window. */
const make: MakeHanging = (shop, Standing) =>
	hang(shop, Standing, {
		placement: 'floating',
		mark: 'data-up-floating',
		made: (look) => look.floating,
		fill: (row) => {
			if (!row.firstChild) row.append(element('slot'));
		},
	});

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: MakeHanging }) | null;
if (own) own.up = make;
