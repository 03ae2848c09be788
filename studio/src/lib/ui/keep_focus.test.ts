import { afterEach, expect, it } from 'vitest';
import { keepFocus } from './keep_focus';

const settled = () => new Promise((done) => setTimeout(done, 5));
function stand(): HTMLElement {
	document.body.innerHTML = '<button id="out">x</button><p><button>a</button><button id="b">b</button><i></i></p>';
	const part = document.querySelector('p')!;
	keepFocus(part);
	return part;
}
const byId = (id: string) => document.getElementById(id)!;
afterEach(() => (document.body.innerHTML = ''));

it('gives the keyboard to what stands in the place of a control that is gone', async () => {
	stand();
	byId('b').focus();
	byId('b').outerHTML = '<input id="n" value="47">';
	await settled();
	expect(document.activeElement).toBe(byId('n'));
	expect((byId('n') as HTMLInputElement).selectionEnd).toBe(2);
	byId('n').remove();
	await settled();
	expect(document.activeElement?.textContent).toBe('a');
});

it('takes it from nobody: neither after it went elsewhere, nor while it is elsewhere', async () => {
	stand();
	byId('b').focus();
	byId('out').focus();
	byId('b').remove();
	await settled();
	expect(document.activeElement).toBe(byId('out'));
	const part = stand();
	byId('b').focus();
	byId('b').blur();
	await settled();
	byId('b').remove();
	part.append(document.createElement('button'));
	await settled();
	expect(document.activeElement).toBe(document.body);
});
