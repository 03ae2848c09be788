// Takes over what the server has drawn, and draws it anew whenever the loft counts its stock.
import { h, hydrate } from 'preact';
import { useEffect, useState } from 'preact/hooks';

function Product({ goods }) {
	const [stock, setStock] = useState(goods.stock);
	useEffect(() => {
		const counting = setInterval(() => setStock((left) => Math.max(1, left - 1)), 700);
		return () => clearInterval(counting);
	}, []);
	const { sku, name, told, price } = goods;
	const place = h(
		'div',
		{ class: 'place', 'data-up-place': 'product_page', 'data-up-product': sku, key: stock % 3 },
		h('button', { class: 'own' }, 'Add to basket'),
	);
	const form = h(
		'form',
		{ method: 'post', action: '/basket/add', class: 'buys' },
		h('input', { type: 'hidden', name: 'sku', value: sku }),
		h('input', { type: 'hidden', name: 'qty', value: 1 }),
		place,
	);
	const about = h('div', { class: 'about' }, [
		h('h1', null, name),
		h('p', { class: 'told' }, told),
		h('p', { class: 'price' }, price),
		h('p', { class: 'left' }, `${stock} in the loft`),
		form,
	]);
	const picture = h('img', { src: `/pictures/${sku}.svg`, alt: '', width: 480, height: 360 });
	return h('article', { class: 'product' }, picture, about);
}

const app = document.querySelector('#app');
if (app)
	fetch(`/goods.json?sku=${app.dataset.sku}`)
		.then((answer) => answer.json())
		.then(([goods]) => hydrate(h(Product, { goods }), app));
