import type { Compiled } from '../base/types';

/** What every sheet has, whatever is drawn of it. */
const SHEET_CSS =
	// What leads to a closer look has no use on one.
	'dialog{--up-looks:none;box-sizing:border-box;border:0;padding:0;max-width:calc(100vw - 32px);max-height:calc(100dvh - 32px);' +
	'overflow:auto;overscroll-behavior:contain;animation:o .2s ease-out}' +
	'dialog.side{margin:0 0 0 auto;height:100dvh;max-height:none;animation-name:e}' +
	':host([dir=rtl]) dialog.side{margin:0 auto 0 0;animation-name:a}' +
	'@keyframes o{from{opacity:0}}@keyframes e{from{translate:100%}}@keyframes a{from{translate:-100%}}' +
	'@keyframes u{from{translate:0 100%}}' +
	'@media(max-width:599px){dialog:not(.card){width:100vw;max-width:none;height:fit-content;max-height:88dvh;' +
	'margin:auto 0 0!important;animation-name:u!important}}' +
	'@media(prefers-reduced-motion:reduce){dialog,dialog:not(.card){animation:none!important}}[hidden]{display:none!important}' +
	'.f{display:flex;flex-direction:column;gap:.9em;min-height:100%;box-sizing:border-box}' +
	'h2,p,ul,fieldset,legend{font:inherit;margin:0;padding:0;border:0;list-style:none;min-width:0}' +
	'h2{font-size:1.2em;font-weight:600;padding-inline-end:2em;overflow-wrap:anywhere}a{color:inherit}' +
	'input,select{font:inherit;color:inherit;background:transparent;border:1px solid;padding:.4em;box-sizing:border-box;' +
	'border-radius:0;accent-color:currentColor}option{color:#1b1b1b;background:#fff}' +
	'.l{all:unset;cursor:pointer;text-decoration:underline;min-height:24px}' +
	'.w{display:flex;flex-wrap:wrap;justify-content:space-between;align-items:baseline;gap:.4em 1em}' +
	'.x{all:unset;position:absolute;top:12px;inset-inline-end:12px;width:36px;font-size:24px;line-height:36px;' +
	'text-align:center;cursor:pointer;background:inherit}' +
	':is(.l,.x,a,input,select,h2):focus-visible{outline:3px solid;outline-offset:2px}h2:focus{outline:0}' +
	// What the page's own button looks like goes before; here it is as wide as the sheet.
	'.f>.b{width:auto;align-self:stretch;margin:0}.n{position:absolute;clip-path:inset(50%)}';
const PLAIN_CSS = '.b{cursor:pointer;text-align:center;padding:.7em 1em;background:CanvasText;color:Canvas}';

const sheetOf = (css: string) => {
	const sheet = new CSSStyleSheet();
	sheet.replaceSync(css);
	return sheet;
};

/** Returns the style sheets of a sheet, with those of the button whose family it is of. */
export function sheetsOf(look: Compiled, base: string): CSSStyleSheet[] {
	const { css = '', plain } = look.sheet ?? {};
	return [...(plain ? [PLAIN_CSS] : [base, look.css]), SHEET_CSS, css].map(sheetOf);
}
