import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';

const SRC = join(process.cwd(), 'studio/src');
const files = readdirSync(SRC, { recursive: true, encoding: 'utf8' }).filter((file) => /\.svelte$/.test(file));
const theme = readFileSync(join(SRC, 'app.css'), 'utf8');
const namesOf = (kind: string) => [...theme.matchAll(new RegExp(`--${kind}-([a-z0-9-]+):`, 'g'))].map((at) => at[1]!);
/** What Tailwind itself knows besides colours, for the utilities that take one. */
const OWN: Record<string, string> = {
	text: 'left|right|center|start|end|wrap|nowrap|balance|pretty|ellipsis',
	bg: 'clip.*|fixed|none|cover|contain|no-repeat|center',
	border: '[0-9]|[xytblrse](-.*)?|dashed|dotted|solid|none|collapse|transparent',
	outline: '[0-9]|none|offset-.*|hidden',
	decoration: '[0-9]|dotted|dashed|solid|wavy|none',
};

describe('classes of colour and size', () => {
	// An unknown class fails in silence: its words look like any other.
	it('are those of the theme', () => {
		const colours = [...namesOf('color'), 'current', 'transparent', 'inherit'];
		const unknown: string[] = [];
		for (const file of files) {
			// Within quotes that hold classes; styles and paths have the same words with other signs around them.
			const text = readFileSync(join(SRC, file), 'utf8').replace(/<style>[^]*<\/style>/, '');
			for (const [whole, utility, name] of text.matchAll(
				/(?<=["' `])(?:[a-z-]+:)*(text|bg|border|outline|decoration)-([a-z0-9-]+)(?=["' `])/g,
			)) {
				const sizes = utility === 'text' ? namesOf('text') : [];
				const isKnown = [...colours, ...sizes].includes(name!) || new RegExp(`^(${OWN[utility!]})$`).test(name!);
				if (!isKnown) unknown.push(`${file}: ${whole}`);
			}
		}
		expect(unknown).toEqual([]);
	});
});
