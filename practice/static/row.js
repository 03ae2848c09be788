// What the shops of the row do by themselves; none of it knows of anybody's buttons.
const shape = document.body.dataset.shape;
const tally = (count) => document.querySelectorAll('.tally').forEach((place) => (place.textContent = count));
document.addEventListener('up:basket', (event) => tally(event.detail.count));

if (shape === 'json-header')
	document.addEventListener('click', async (event) => {
		const put = event.target.closest?.('[data-put]');
		if (!put) return;
		const word = document.querySelector('meta[name=counter-word]').content;
		const answer = await fetch('/api/counter/lines', {
			method: 'POST',
			headers: { 'Content-Type': 'application/json', 'X-Counter-Word': word },
			body: JSON.stringify({ lines: [{ code: put.dataset.put, qty: 1 }] }),
		});
		if (answer.ok) tally((await answer.json()).counter.pieces);
	});

if (shape === 'wrapped') document.querySelector('[data-close]').onclick = () => document.querySelector('.crumbs').remove();

if (shape === 'strip-endless') {
	const more = document.querySelector('[data-more]');
	if (more)
		new IntersectionObserver(async ([entry]) => {
			const page = Number(more.dataset.more);
			if (!entry.isIntersecting || page > 4) return;
			more.dataset.more = page + 1;
			const html = await (await fetch(`/more?page=${page}`)).text();
			document.querySelector('.cards').append(document.createRange().createContextualFragment(html));
		}).observe(more);
}

// One page for everything: the nodes of a product are used again for the next one, piece by piece.
if (shape === 'one-page') {
	const fill = (at, goods) => {
		at.querySelector('.price').textContent = goods.price;
		at.querySelector('img').src = `/pictures/${goods.sku}.svg`;
		const form = at.querySelector('form');
		// By property: nothing in the document changes by this.
		if (form) form.elements.sku.value = goods.sku;
		const own = at.querySelector('.own');
		if (own) own.disabled = goods.soldOut;
		at.querySelector('[data-up-place]').dataset.upProduct = goods.sku;
	};
	const open = async (path) => {
		const [goods] = await (await fetch(`/goods.json?sku=${path.split('/').pop()}`)).json();
		const at = document.querySelector('.product');
		if (!goods || !at) return location.assign(path);
		at.querySelector('h1').textContent = goods.name;
		at.querySelector('.told').textContent = goods.told;
		fill(at, goods);
		document.querySelector('#told').textContent = JSON.stringify(goods.schema);
		document.title = goods.name;
		scrollTo(0, 0);
	};
	document.addEventListener('click', (event) => {
		const link = event.target.closest?.('a[href^="/p/"]');
		if (!link || !document.querySelector('.product')) return;
		event.preventDefault();
		history.pushState(null, '', link.getAttribute('href'));
		void open(location.pathname);
	});
	addEventListener('popstate', () => void open(location.pathname));
	document.querySelectorAll('[data-sort]').forEach((key) => {
		key.onclick = async () => {
			const goods = await (await fetch('/goods.json')).json();
			const by = key.dataset.sort;
			goods.sort((a, b) => (by === 'price' ? a.amount - b.amount : a.name.localeCompare(b.name)));
			document.querySelectorAll('.cards .card').forEach((card, n) => {
				card.querySelector('.name a').textContent = goods[n].name;
				card.querySelectorAll('a[href^="/p/"]').forEach((link) => (link.href = `/p/${goods[n].sku}`));
				fill(card, goods[n]);
			});
		};
	});
}
