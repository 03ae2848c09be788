import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';

/** Layers of the front end point downward only: ui over state over api over pure. */
const layer = (folder, above) => ({
	files: [`studio/src/lib/${folder}/**`],
	rules: {
		'no-restricted-imports': [
			'error',
			{ patterns: above.map((name) => ({ group: [`$lib/${name}/*`], allowTypeImports: name === 'api' })) },
		],
	},
});

const stations = ['floor', 'draw', 'words', 'place', 'release', 'trials'];
/** Stations never import each other: what two of them need is shared. */
const station = (name) => ({
	files: [`studio/src/stations/${name}/**`],
	rules: {
		'no-restricted-imports': [
			'error',
			{
				patterns: stations
					.filter((other) => other !== name)
					.map((other) => ({ group: [`../${other}/*`, `**/stations/${other}/*`], message: 'Put it into shared/.' })),
			},
		],
	},
});
/** Components fetch nothing: questions are in queries, and what is done to the store is in state. */
const component = {
	files: ['studio/src/**/*.svelte'],
	rules: {
		'no-restricted-syntax': [
			'error',
			{
				selector: "ImportDeclaration[source.value='$lib/api/client'] ImportSpecifier[imported.name=/^(client|data)$/]",
				message: 'Ask by a query of lib/api/queries.ts, or by a class of lib/state.',
			},
			{ selector: "CallExpression[callee.name='fetch']", message: 'Fetch in lib/state.' },
			{
				selector: "MemberExpression[object.name='navigator'][property.name='clipboard']",
				message: 'Use Copy.svelte, which tells where nothing can be copied.',
			},
		],
	},
};
/** What is shared knows of no station. */
const shared = {
	files: ['studio/src/shared/**'],
	rules: { 'no-restricted-imports': ['error', { patterns: ['**/stations/**'] }] },
};

export default ts.config(
	{ ignores: ['**/dist/**', 'node_modules/**', '.venv/**', '.local/**', 'studio/src/lib/api/schema.d.ts'] },
	...ts.configs.recommended,
	...svelte.configs.recommended,
	{
		languageOptions: { globals: { ...globals.browser } },
		rules: { 'svelte/no-navigation-without-resolve': 'off', '@typescript-eslint/no-explicit-any': 'error' },
	},
	{ files: ['**/*.svelte', '**/*.svelte.ts'], languageOptions: { parserOptions: { parser: ts.parser } } },
	{
		...layer('pure', ['api', 'state', 'ui']),
		rules: {
			'no-restricted-imports': 'off',
			'@typescript-eslint/no-restricted-imports': [
				'error',
				{
					patterns: [
						{ group: ['$lib/api/*'], allowTypeImports: true },
						{ group: ['$lib/state/*', '$lib/ui/*', 'svelte'] },
					],
				},
			],
		},
	},
	layer('api', ['state', 'ui']),
	layer('state', ['ui']),
	...stations.map(station),
	shared,
	component,
);
