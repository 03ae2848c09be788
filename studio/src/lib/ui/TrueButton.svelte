<script lang="ts">
	import { drawIcon } from '@storefront/button/icon';
	import { paint } from '@storefront/button/paint';
	import { paintQuantity } from '@storefront/button/quantity';
	import { paintSecond } from '@storefront/button/second';
	import type { CompiledButton, Moment } from '$lib/api/types';
	import { useWorkshop } from '$lib/state/workshop.svelte';

	type Props = {
		button: CompiledButton;
		moment: Moment;
		text: string;
		/** Drawn from right to left. */
		rtl?: boolean;
		/** It cannot be pressed in this moment. */
		inactive?: boolean;
		/** Shows the look of a state that the pointer or the keyboard would bring. */
		look?: 'hover' | 'focus' | 'pressed';
		/** Words of the second button, where there is one. */
		second?: string;
		/** Room that the button stands in, in CSS pixels; what is wide fills it. */
		room?: number;
		/** Width that what is wide takes at least, where it is drawn short. */
		least?: number;
		/** How many times enlarged. */
		zoom?: number;
	};
	let {
		button,
		moment,
		text,
		rtl = false,
		inactive = false,
		look,
		second = '',
		room,
		least,
		zoom = 1,
	}: Props = $props();
	const workshop = useWorkshop();

	function draw(host: HTMLElement): void {
		const plain = button as Parameters<typeof paint>[1]['made'];
		// Where pictures lie is known by whoever serves them.
		const made = { ...plain, css: plain.css.replaceAll('up:pictures/', `/api/stores/${workshop.store}/pictures/`) };
		const stood = paint(host, {
			base: workshop.info?.base_css ?? '',
			made,
			moment,
			text,
			rtl,
			lang: workshop.shownLanguage,
			inactive,
			drawIcon,
			paintQuantity,
			paintSecond,
			second,
		});
		stood.tabIndex = -1;
		if (look) stood.dataset.look = look;
		else delete stood.dataset.look;
	}
</script>

<span
	role="img"
	aria-label="Button: {text}"
	class="frame"
	style:width={button.wide && room ? `${room}px` : null}
	style:min-width={button.wide && least ? `${least}px` : null}
	style:transform={zoom === 1 ? null : `scale(${zoom})`}
>
	<span {@attach draw} inert></span>
</span>

<style>
	.frame {
		display: inline-block;
		transform-origin: 0 0;
	}
	.frame > span {
		display: block;
	}
</style>
