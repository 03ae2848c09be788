// The shop's own: keeps the count in the corner true when somebody else has filled the basket.
document.addEventListener('up:basket', (event) => {
	for (const place of document.querySelectorAll('[data-basket-count]')) place.textContent = event.detail.count;
});
