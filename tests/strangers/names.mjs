// Prints class names that tools of building pages make up, as JSON by tool: what a selector must not hang on.
import { css as emotion } from '@emotion/css';
import { css as goober } from 'goober';
import jss from 'jss';
import postcss from 'postcss';
import modules from 'postcss-modules';
import { compile } from 'svelte/compiler';
import { transform } from 'lightningcss';

const COUNT = 200;
const numbers = [...Array(COUNT).keys()];
const rule = (n) => `padding: ${n + 1}px; color: hsl(${n} 40% ${n % 90}%);`;
const own = ['card', 'price', 'button', 'title', 'buyBox', 'product-form'];

async function byModules(n) {
	let made = {};
	const getJSON = (_file, names) => (made = names);
	const pattern = ['[hash:base64:5]', '_[local]_[hash:base64:5]', '[name]__[local]___[hash:base64:5]'][n % 3];
	const plugin = modules({ getJSON, generateScopedName: pattern });
	await postcss([plugin]).process(`.${own[n % own.length]} { ${rule(n)} }`, { from: `theme${n}.css` });
	return Object.values(made);
}

function byLightning(n) {
	const code = Buffer.from(`.${own[n % own.length]} { ${rule(n)} }`);
	const { exports } = transform({ filename: `theme${n}.css`, code, cssModules: true });
	return Object.values(exports).map(({ name }) => name);
}

function bySvelte(n) {
	const { css } = compile(`<p class="price">{1}</p><style>.price { ${rule(n)} }</style>`, { filename: `Price${n}.svelte` });
	return css.code.match(/svelte-[a-z0-9]+/)[0];
}

globalThis.document ??= undefined;
const sheets = numbers.map((n) => jss.default.createStyleSheet({ [own[n % own.length]]: { padding: n } }));
const made = {
	emotion: numbers.map((n) => emotion(rule(n))),
	goober: numbers.map((n) => goober.call({ target: { data: '' } }, [rule(n)])),
	jss: sheets.flatMap(({ classes }) => Object.values(classes)),
	'css modules': (await Promise.all(numbers.map(byModules))).flat(),
	lightningcss: numbers.flatMap(byLightning),
	svelte: numbers.map(bySvelte),
};
console.log(JSON.stringify(made));
