<script lang="ts">
	import type { DrawView } from '$lib/api/types';
	import type { Desk } from '$lib/state/desk.svelte';
	import Pick from '$lib/ui/Pick.svelte';
	import Field from '$lib/ui/Field.svelte';

	type Props = { view: DrawView; desk: Desk };
	let { view, desk }: Props = $props();
	type Message = Extract<DrawView['document']['afterwards'], { kind: 'message' }>;
	const kept = $derived(view.document.afterwards);
	const isKept = $derived(kept.kind === 'message');
	/** What is said before it is whole: nobody can be written to without an address. */
	let begun = $state.raw<Message>({
		kind: 'message',
		way: 'mail',
		to: '',
		pattern: '',
		subject: {},
		text: {},
		hours: '',
		closed: {},
	});
	const now = $derived(kept.kind === 'message' ? kept : begun);
	const language = $derived(view.seen.language);
	const ways = [
		{ value: 'mail', label: 'a mail' },
		{ value: 'phone', label: 'a telephone call' },
		{ value: 'text', label: 'a text message' },
		{ value: 'chat', label: 'a chat' },
	] as const;
	const isWhole = (message: Message) =>
		message.way === 'chat'
			? Boolean(message.pattern && (message.to || !message.pattern.includes('{number')))
			: message.way === 'mail'
				? Boolean(message.to?.includes('@'))
				: Boolean(message.to && !message.to.includes('@'));

	function say(change: Partial<Message>): void {
		const next = { ...now, ...change };
		begun = next;
		if (isWhole(next)) void desk.set('afterwards', next);
	}
	/** A text in the language that is seen; an emptied one is left out. */
	function told(texts: Message['text'], text: string): Record<string, string> {
		const others = Object.entries(texts ?? {}).filter(([name]) => name !== language);
		return Object.fromEntries(text ? [...others, [language, text]] : others);
	}
	/** Another way needs another address. */
	const setWay = (way: Message['way']) => {
		begun = { ...now, way, to: (way === 'mail') === (now.way === 'mail') ? now.to : '' };
		say({});
	};
	const shown = $derived(isKept && !isWhole(begun) && begun.way !== (kept as Message).way ? begun : now);
</script>

:
<Pick label="Message by" value={shown.way ?? 'mail'} options={ways} onpick={setWay} />
{#if shown.way === 'chat'}
	at the pattern
	<Field
		mono
		label="Chat’s pattern"
		value={shown.pattern ?? ''}
		usual="https://chat.example/&#123;number&#125;?text=&#123;message&#125;"
		onset={(pattern) => say({ ...shown, pattern })}
	/> with the number
{:else}to{/if}
<Field
	mono
	label={shown.way === 'mail' ? 'Mail address' : 'Telephone number'}
	value={shown.to ?? ''}
	usual={shown.way === 'mail' ? 'ask@shop.example' : '+44 20 7946 0018'}
	onset={(to) => say({ ...shown, to })}
/>{#if !isWhole(shown)}. <b>Say to whom, and it is kept.</b>{:else if shown.way !== 'phone'}{#if shown.way === 'mail'},
		with the subject
		<Field
			label="Message’s subject"
			most={200}
			value={shown.subject?.[language] ?? ''}
			usual="none"
			onset={(text) => say({ subject: told(shown.subject, text) })}
		/>{/if}. It says
	<textarea
		class="field block w-full"
		rows="2"
		maxlength="1000"
		aria-label="Message’s text"
		placeholder="I have a question about {'{name}'} ({'{code}'}), {'{price}'}: {'{page}'}"
		value={shown.text?.[language] ?? ''}
		onchange={(event) => say({ text: told(shown.text, event.currentTarget.value) })}></textarea>
	Office hours are
	<Field
		mono
		label="Office hours"
		value={shown.hours ?? ''}
		usual="not told, as Mon-Fri 09:00-17:30"
		onset={(hours) => say({ hours })}
	/>{#if shown.hours}, by the store’s clock. Outside of them it says
		<textarea
			class="field block w-full"
			rows="2"
			maxlength="1000"
			aria-label="Message’s text outside office hours"
			placeholder="nothing"
			value={shown.closed?.[language] ?? ''}
			onchange={(event) => say({ closed: told(shown.closed, event.currentTarget.value) })}></textarea>{:else}.{/if}
{:else}.{/if}
{#if view.opens}
	<span class="block text-soft"
		>For {view.seen.product.name} a press opens <code class="figure text-sm break-all">{view.opens}</code></span
	>
{/if}
