export function element<Name extends keyof HTMLElementTagNameMap>(name: Name, className = '') {
	return Object.assign(document.createElement(name), { className });
}
