import { ask, OPTIONS, readBasket } from '../basket/basket';
import { filled, pathOf } from '../basket/call';
import { part } from '../basket/reads';
import { tokenField, tokenHeader } from '../basket/request';
import type { Tools } from './tools';
import type { InBasket, Shop, Stand } from '../base/shop';

type Line = {
	id: string;
	sku: string;
	option: string;
	quantity: number;
	told: (name?: string) => string;
	alone: boolean;
	/** The answer that tells it. */
	of: InBasket;
};

/** Shows the shop's basket after a press: its lines, which can be changed and taken out, and the ways on. */
function make(shop: Shop, { called, element, key, openSheet }: Tools) {
	const { basket, language } = shop.manifest;
	const { read, change } = basket;

	/** Returns the lines that an answer tells, by the shop's own names of their parts. */
	function linesOf(of: InBasket): Line[] {
		const { items, told } = of;
		const all = part(told, read?.items);
		return items.map((item, n) => {
			const line = told ? (all as unknown[] | undefined)?.[n] : item;
			const tells = (name?: string) => (name ? String(part(line, name) ?? '') : '');
			const alike = items.filter(({ sku, option }) => sku === item.sku && option === item.option);
			return { ...item, id: tells(read?.line), told: tells, alone: !alike[1], of };
		});
	}

	/** Tells whether lines have no name but their place in the list: then that is another one's once a line is gone. */
	const isByPlace = (lines: readonly Line[]) =>
		[0, 1].some((first) => lines.every(({ id }, n) => id === `${n + first}`));

	/** Returns an amount of the shop's as plain decimal text; empty where it is none. */
	function plain(amount: string): string {
		if (!/^-?\d+(\.\d+)?$/.test(amount)) return '';
		const { digits } = shop.spoken.money;
		return read?.smallest ? (Number(amount) / 10 ** digits).toFixed(digits) : amount;
	}

	const nameIn = (at: Element | null) => at?.getAttribute('aria-label');
	const money = (price: string) =>
		shop.fillText?.([{ v: 'price' }], { price, currency: '' } as never, 0, shop.spoken).replace('\0', '') ?? '';

	return async (stand: Stand, first: InBasket) => {
		const { show } = stand.standing!.made;
		const words = show!.words![shop.looker.language] ?? show!.words![language]!;
		const [heading, empty, takeOut, isOut, undo, sum, toBasket, toCheckout, goOn, isFree, missing, failed, quantity] =
			words as string[];
		// What the press was answered may tell less than the basket itself.
		const isWhole = linesOf(first).every(({ told }) => !read?.name || told(read.name));
		let now = isWhole ? first : ((await readBasket(basket, shop.reads)) ?? first);
		const { dialog, body } = openSheet(shop, stand, words, show!.side ? 'side' : 'middle');
		const head = element('h2', '', heading);
		head.id = 'h';
		head.tabIndex = -1;
		dialog.setAttribute('aria-labelledby', 'h');
		const list = element('ul');
		const foot = element('p', 'm');
		const free = element('p');
		const says = element('p', 'n');
		says.setAttribute('role', 'status');
		const pays = Object.assign(element('a', 'b', toCheckout), { href: basket.checkout_path });
		const ways = element('p', 'w');
		ways.append(
			Object.assign(element('a', '', toBasket), { href: basket.basket_path }),
			key('l', goOn!, () => dialog.close()),
		);
		body.append(head, list, free, foot, pays, ways, says);
		const sheet = new CSSStyleSheet();
		sheet.replaceSync(
			'ul{flex:1}li{display:grid;grid-template-columns:auto 1fr auto;gap:.2em .8em;padding:.7em 0;border-top:1px solid;' +
				'align-items:center}li>img{width:64px;height:64px;object-fit:cover;grid-row:span 2}.t{overflow-wrap:anywhere;' +
				'grid-column:2}.t:first-child{grid-column:1/3}.k{grid-column:2/-1;display:flex;gap:.8em;align-items:center}input{width:4.2em}' +
				'.a,.m{font-variant-numeric:tabular-nums}.m{display:flex;justify-content:space-between;font-weight:600}' +
				'.m:empty,p:empty{display:none}[aria-busy] ul{opacity:.6}',
		);
		(dialog.getRootNode() as ShadowRoot).adoptedStyleSheets.push(sheet);
		/** Changes go one after the other, each against what the one before was answered. */
		let last: Promise<unknown> = Promise.resolve();

		/** Asks the shop to keep so many of a line, and draws what it says then. */
		function keep(line: Line, many: number, then?: (isKept: boolean) => void): void {
			last = last.then(async () => {
				const current = again(line);
				// It is as it should be: nobody needs to be asked again.
				if ((current?.quantity ?? 0) === many) return draw();
				const { sku: code, option } = line;
				const id = current?.id ?? line.id;
				// Under its name lies another line by now: asking would change that one.
				if (!current && isAnothers(id)) {
					tell(false);
					return draw();
				}
				dialog.setAttribute('aria-busy', 'true');
				const press = { code, option, quantity: `${many}`, line: id, form: null, submit: null };
				const { path, method, sent_as, body: holds } = change!;
				const asked = filled(holds, press) as Record<string, string>;
				const isForm = sent_as === 'form';
				const init = {
					method,
					body: isForm ? new URLSearchParams({ ...tokenField(basket), ...asked }) : JSON.stringify(asked),
					headers: { ...tokenHeader(basket), ...(isForm ? {} : { 'Content-Type': 'application/json' }) },
				};
				const told = await ask(basket, pathOf(path, press), shop.reads, init).catch(() => null);
				// What the answer does not tell is asked for; what nobody tells is as it was.
				now = told?.basket ?? (await readBasket(basket, shop.reads)) ?? now;
				const has = again(line)?.quantity ?? 0;
				shop.basket = now;
				shop.changed?.(now);
				dialog.removeAttribute('aria-busy');
				tell(has === many);
				then?.(has === many);
				draw();
			});
		}

		function tell(isTaken: boolean): void {
			says.textContent = isTaken ? '' : failed!;
			says.className = isTaken ? 'n' : '';
		}

		/** Tells whether a name that a line had is that of one in the basket; lines that are named by their goods have none. */
		const isAnothers = (id: string) => !!id && linesOf(now).some((line) => line.id === id);

		/** Returns a line as it is now. Shops may call it otherwise after a change; then there must be one of it. */
		function again(line: Line): Line | undefined {
			const lines = linesOf(now);
			const alike = lines.filter(({ sku, option }) => sku === line.sku && option === line.option);
			// Of two alike, named by their places, nobody can tell which is which once one of them has gone.
			const isSure = line.of === now || !isByPlace(lines);
			const same = isSure && alike.find(({ id }) => id === line.id);
			return same || (line.alone ? alike[0] : undefined);
		}
		/** Lines that were taken out here, each where it stood, until it is put back. */
		let gone: { line: Line; at: number }[] = [];

		function draw(): void {
			const lines = linesOf(now);
			const all = lines.map((line) => row(line));
			for (const goneLine of gone) all.splice(goneLine.at, 0, goneRow(goneLine));
			const root = dialog.getRootNode() as ShadowRoot;
			const held = nameIn(root.activeElement);
			list.replaceChildren(...(all[0] || read?.kind === 'page' ? all : [element('li', '', empty)]));
			head.textContent = `${heading} (${now.count})`;
			const whole = plain(String(part(now.told ?? now, read?.sum || '-') ?? ''));
			foot.replaceChildren(
				...(lines[0] && money(whole) ? [element('span', '', sum), element('span', '', money(whole))] : []),
			);
			const rest = Number(show!.free) - Number(whole);
			free.textContent =
				show!.free && whole && lines[0]
					? rest > 0
						? missing!.replace('{amount}', () => money(rest.toFixed(shop.spoken.money.digits)))
						: isFree!
					: '';
			pays.hidden = !now.count;
			// What was drawn anew has the focus that the old one had; what was taken out gives it to what puts it back.
			const again = [...root.querySelectorAll<HTMLElement>('[aria-label]')];
			if (held) (again.find((at) => nameIn(at) === held) ?? again.find((at) => at.className === 'l') ?? head).focus();
		}

		function goneRow(goneLine: { line: Line; at: number }): HTMLElement {
			const item = element('li');
			const name = nameOf(goneLine.line);
			const put = () =>
				keep(goneLine.line, goneLine.line.quantity, (isKept) => {
					if (isKept) gone = gone.filter((other) => other !== goneLine);
				});
			const text = isOut!.replace('{name}', () => name);
			item.append(element('span', 't', text));
			// What its name names now would be changed instead.
			if (!isAnothers(goneLine.line.id)) item.append(called(key('l', undo!, put), `${undo}: ${name}`));
			return item;
		}

		const nameOf = ({ told, sku, option }: Line) => {
			const name = told(read?.name) || sku;
			// Many shops tell the choice in the name already.
			return [name, ...option.split(OPTIONS).filter((part) => part && !name.includes(part))].join(', ');
		};

		function row(line: Line): HTMLElement {
			const item = element('li');
			const name = nameOf(line);
			const src = line.told(read?.picture);
			if (src) item.append(Object.assign(element('img'), { src, alt: '' }));
			const address = line.told(read?.page);
			const page = address && /^https?:/.test(new URL(address, location.href).protocol) ? address : '';
			const goods = page ? Object.assign(element('a', 't', name), { href: page }) : element('span', 't', name);
			item.append(goods, element('span', 'a', money(plain(line.told(read?.amount)))));
			const keys = element('span', 'k');
			if (change) {
				const field = Object.assign(element('input'), {
					type: 'number',
					min: '1',
					step: '1',
					value: `${line.quantity}`,
				});
				field.onchange = () => {
					const many = Math.round(Number(field.value));
					if (many > 0) keep(line, many);
					else field.value = `${line.quantity}`;
				};
				const takes = () => {
					const at = linesOf(now).findIndex(
						({ id, sku, option }) => id === line.id && sku === line.sku && option === line.option,
					);
					// Pressed twice, it is taken out once.
					keep(line, 0, (isGone) => {
						if (isGone && !gone.some((other) => other.line === line)) gone.push({ line, at });
					});
				};
				keys.append(called(field, `${quantity}, ${name}`), called(key('l', takeOut!, takes), `${takeOut}: ${name}`));
			} else keys.append(`× ${line.quantity}`);
			item.append(keys);
			return item;
		}

		draw();
		head.focus();
	};
}
export type MakeShow = typeof make;

// It is handed over by the element that loaded it: no name of ours is global on the shop's page.
const own = document.currentScript as (HTMLScriptElement & { up?: MakeShow }) | null;
if (own) own.up = make;
