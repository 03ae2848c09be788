<script lang="ts">
	import { sheetsOf } from '@storefront/opens/sheet_css';
	import type { CompiledButton, DrawView } from '$lib/api/types';
	import { useWorkshop } from '$lib/state/workshop.svelte';

	type Props = { shown: DrawView['sheets'][number]; button: CompiledButton; rtl: boolean };
	let { shown, button, rtl }: Props = $props();
	const workshop = useWorkshop();
	const NAMES = { basket: 'The basket shown', choice: 'A choice', closer: 'A closer look', question: 'A question' };
	const part = (name: string, className: string, ...inside: (string | Node)[]) => {
		const element = Object.assign(document.createElement(name), { className });
		element.append(...inside);
		return element;
	};

	/** Draws it with the very style sheets that a shop gets; what cannot stand in the studio is its place in the window. */
	function draw(host: HTMLElement): void {
		const root = host.shadowRoot ?? host.attachShadow({ mode: 'open' });
		const here = new CSSStyleSheet();
		here.replaceSync(
			':host{display:block!important}dialog{position:static!important;margin:0!important;height:auto!important;' +
				'max-width:100%!important;max-height:none!important;animation:none!important}li{display:flex;gap:1em;' +
				'justify-content:space-between;border-top:1px solid;padding:.6em 0}.m{display:flex;justify-content:space-between;' +
				'font-weight:600}fieldset{display:flex;flex-wrap:wrap;gap:8px}fieldset span{border:1px solid;padding:.4em .7em}' +
				'.i{border:1px solid;height:2.4em}.l{cursor:default}',
		);
		const look = button as Parameters<typeof sheetsOf>[0];
		root.adoptedStyleSheets = [...sheetsOf(look, workshop.info?.base_css ?? ''), here];
		host.dir = rtl ? 'rtl' : 'ltr';
		const body = part('div', 'f', part('h2', '', shown.heading));
		if (shown.kind === 'basket') {
			const lines = shown.lines.map(({ name, price }) =>
				part('li', '', part('span', '', name), part('span', '', price)),
			);
			body.append(part('ul', '', ...lines));
		} else if (shown.lines[0]) body.append(part('p', '', shown.lines[0].price));
		if (shown.free) body.append(part('p', '', shown.free));
		if (shown.kind === 'question') body.append(part('div', 'i'));
		if (shown.total) body.append(part('p', 'm', part('span', '', shown.total_name), part('span', '', shown.total)));
		if (shown.choices.length)
			body.append(
				part(
					'fieldset',
					'',
					part('legend', '', shown.choice),
					...shown.choices.map((choice) => part('span', '', choice)),
				),
			);
		const presses = part('span', 'b', shown.button);
		// On a sheet of a product the button is as wide as in its placement.
		body.append(shown.kind === 'basket' || shown.kind === 'question' ? presses : part('div', '', presses));
		if (shown.ways.length) body.append(part('p', 'w', ...shown.ways.map((way) => part('span', 'l', way))));
		const dialog = part('dialog', shown.way, body);
		dialog.setAttribute('open', '');
		root.replaceChildren(dialog);
	}
</script>

<span class="block max-w-full" role="img" aria-label="{NAMES[shown.kind]}: {shown.heading}">
	<span class="block" {@attach draw} inert></span>
</span>
