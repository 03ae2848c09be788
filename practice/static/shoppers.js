// The practice shoppers' page: starts a run, follows it, stops it.
const form = document.getElementById('wish');
const stop = document.getElementById('stop');
const says = document.getElementById('says');
const bar = document.getElementById('bar');
let current = null;

function wish() {
	const data = new FormData(form);
	const share = (name) => Number(data.get(name)) / 100;
	const rates = (letter) => ({
		clicked: share(`${letter}.clicked`),
		added: share(`${letter}.added`),
		ordered: share(`${letter}.ordered`),
	});
	const end = Date.now();
	return {
		start: new Date(end - Number(data.get('days')) * 86400000).toISOString(),
		end: new Date(end).toISOString(),
		shoppers_per_day: Number(data.get('shoppers_per_day')),
		seed: Number(data.get('seed')),
		rates: { A: rates('A'), B: rates('B') },
	};
}

function show(run) {
	current = run;
	const running = run.state === 'running';
	stop.hidden = !running;
	bar.hidden = !running;
	bar.value = run.share;
	const refused = Object.entries(run.refused).map(([why, n]) => `${n} refused: ${why}`);
	const state = { running: 'Walking about', done: 'Done', stopped: 'Stopped', failed: 'Failed' }[run.state];
	says.textContent = [`${state}: ${run.shoppers} of ${run.planned} shoppers, ${run.signals} signals taken`, ...refused, run.says]
		.filter(Boolean)
		.join('. ');
	if (running) setTimeout(follow, 300);
}

async function follow() {
	show(await (await fetch(`/shoppers/runs/${current.id}`)).json());
}

form.addEventListener('submit', async (event) => {
	event.preventDefault();
	says.textContent = 'On their way.';
	const answer = await fetch('/shoppers/runs', {
		method: 'POST',
		headers: { 'Content-Type': 'application/json' },
		body: JSON.stringify(wish()),
	});
	const told = await answer.json();
	if (answer.ok) show(told);
	else says.textContent = typeof told.detail === 'string' ? told.detail : 'Those numbers cannot be: shares go from 0 to 100.';
});
stop.addEventListener('click', async () => {
	show(await (await fetch(`/shoppers/runs/${current.id}`, { method: 'DELETE' })).json());
});
fetch('/shoppers/runs')
	.then((answer) => answer.json())
	.then((runs) => runs[0] && show(runs[0]));
