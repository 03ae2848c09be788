/** Rooms of the script for shops, the highest floor first: each may use those below it, and none above. */
const floors = [
	['seams'],
	['studio', 'opens', 'hanging'],
	['press', 'places'],
	['button', 'signals'],
	['page'],
	['basket'],
	['base'],
];
const above = (n) => floors.slice(0, n).flat();
const beside = (room, n) => floors[n].filter((other) => other !== room);
const inRoom = (rooms) => `^storefront/src/(${rooms.join('|')})/`;

/** @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
	forbidden: [
		{ name: 'no-circle', severity: 'error', from: {}, to: { circular: true } },
		...floors.flatMap((rooms, n) =>
			rooms.flatMap((room) => {
				const others = [...above(n), ...beside(room, n)];
				const to = { path: inRoom(others) };
				return others.length ? [{ name: `${room}-points-down`, severity: 'error', from: { path: inRoom([room]) }, to }] : [];
			}),
		),
	],
	options: {
		// Types count: what two files know of each other is a circle, too.
		tsPreCompilationDeps: true,
		tsConfig: { fileName: 'depcruise.tsconfig.json' },
		doNotFollow: { path: 'node_modules' },
		exclude: { path: '\\.test\\.ts$|node_modules' },
	},
};
