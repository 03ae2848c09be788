"""The main stories of shops' pages in Firefox and in WebKitGTK."""

import json
import time
from typing import Any

import pytest

from ops.parts import Addresses
from practice.row import ROW
from practice.row.app import PASSWORD
from tests.engines.engines import MIDDLE, WAIT_S, Engine

HOST = "[data-up-place=product_page] [data-up-button]"
OURS = f"{HOST} >> button.b"


class Visit:
    """A visitor of one shop in one engine."""

    def __init__(self, engine: Engine, at: Addresses, key: str) -> None:
        self.engine = engine
        self.key = key
        self.origin = at.practice.replace("://", f"://{key}.")

    def opens(self, path: str = "") -> None:
        self.engine.goto(self.origin + (path or f"/p/{ROW[self.key].goods[0].sku}"))

    def ours(self, what: str) -> Any:
        """Return something of our button, as `b`; null where it does not stand."""
        script = f"(h => {{ const b = h?.shadowRoot?.querySelector('button.b'); return b ? {what} : null }})"
        return self.engine.evaluate(f"{script}(document.querySelector({json.dumps(HOST)}))")

    def awaits(self, script: str, wanted: Any = True) -> None:
        ends = time.monotonic() + WAIT_S
        found = None
        while time.monotonic() < ends:
            found = self.engine.evaluate(script)
            if found == wanted:
                return
            time.sleep(0.1)
        raise AssertionError(f"{self.engine.name}, {self.key}: {script} is {found!r}, not {wanted!r}")

    def awaits_ours(self, moment: str) -> None:
        ends = time.monotonic() + WAIT_S
        while (found := self.ours("b.dataset.moment")) != moment:
            assert time.monotonic() < ends, f"{self.engine.name}, {self.key}: our button is {found!r}, not {moment!r}"
            time.sleep(0.1)

    def press(self, path: str = OURS) -> None:
        x, y = self.engine.evaluate(f"{MIDDLE}({json.dumps(path)})")
        self.engine.press((x, y))

    def basket(self) -> int:
        script = (
            "fetch('/basket', {cache: 'no-store'}).then(a => a.text()).then(t => Number(new DOMParser()"
            ".parseFromString(t, 'text/html').querySelector('.tally').textContent))"
        )
        return int(self.engine.evaluate(script))

    def empties(self) -> None:
        self.engine.evaluate("fetch('/basket/empty', {method: 'POST'}).then(a => a.status)")


@pytest.fixture
def visit(engine: Engine, at: Addresses, request: pytest.FixtureRequest) -> Visit:
    made = Visit(engine, at, request.param)
    if ROW[made.key].shape == "password":
        made.opens("/")
        word = json.dumps({"password": PASSWORD})
        made.engine.evaluate(f"fetch('/enter', {{method: 'POST', body: new URLSearchParams({word})}}).then(a => a.ok)")
    made.opens("/basket")
    made.empties()
    return made


PLAIN = ["tollgate", "scullion", "footpath", "driftcomb", "latterwax", "ribbon", "loft", "bayt", "gate", "hedgerow"]


@pytest.mark.parametrize("visit", PLAIN, indirect=True)
def test_a_press_fills_the_basket_once(visit: Visit) -> None:
    visit.opens()
    visit.awaits_ours("ready")
    own = "getComputedStyle(document.querySelector('.product .own')).display"
    assert visit.engine.evaluate(own) == "none"
    assert visit.ours("b.getBoundingClientRect().height > 30")
    visit.press()
    visit.awaits("document.querySelector('.tally').textContent", "1")
    assert visit.basket() == 1


@pytest.mark.parametrize("visit", ["monogram"], indirect=True)
def test_two_options_are_chosen_first(visit: Visit) -> None:
    visit.opens()
    visit.awaits_ours("choose_first")
    assert visit.ours("b.getAttribute('aria-disabled')") == "true"
    visit.press()
    visit.awaits("document.activeElement.name", "size")
    for name in ("size", "finish"):
        visit.engine.evaluate(
            f"(s => {{ s.selectedIndex = 1; s.dispatchEvent(new Event('change', {{bubbles: true}})) }})"
            f"(document.querySelector('[name={name}]'))"
        )
    visit.awaits_ours("ready")
    time.sleep(0.6)
    visit.press()
    visit.awaits("document.querySelector('.tally').textContent", "1")
    assert visit.basket() == 1


@pytest.mark.parametrize("visit", ["tollgate"], indirect=True)
def test_what_is_refused_gives_the_shops_own_button_back(visit: Visit) -> None:
    visit.opens()
    visit.awaits_ours("ready")
    visit.engine.evaluate("document.querySelector('.about [name=word]').value = 'yesterday'")
    visit.press()
    visit.awaits("document.querySelector('.about [data-up-note]')?.dataset.upNote", "refused")
    own = "getComputedStyle(document.querySelector('.about .own')).display"
    assert visit.engine.evaluate(own) != "none"
    assert visit.basket() == 0


@pytest.mark.parametrize("visit", ["driftcomb"], indirect=True)
def test_nodes_that_are_used_again_add_what_they_show(visit: Visit) -> None:
    second = ROW["driftcomb"].goods[1]
    visit.opens()
    visit.awaits_ours("ready")
    visit.press(f".cards a[href='/p/{second.sku}']:not([tabindex])")
    visit.awaits("document.querySelector('h1').textContent", second.name)
    ends = time.monotonic() + WAIT_S
    while second.price_text not in (visit.ours("b.textContent") or ""):
        assert time.monotonic() < ends
        time.sleep(0.1)
    visit.press()
    visit.awaits("document.querySelector('.tally').textContent", "1")
    page = visit.engine.evaluate("fetch('/basket').then(a => a.text())")
    assert f"<td>{second.name}" in page


@pytest.mark.parametrize("visit", ["latterwax"], indirect=True)
def test_a_page_that_is_redrawn_keeps_one_button(visit: Visit) -> None:
    visit.opens()
    visit.awaits_ours("ready")
    time.sleep(2.5)
    # For a frame or two after it was drawn anew, the place is the shop's own.
    visit.awaits("document.querySelectorAll('#app [data-up-button]').length", 1)
    visit.awaits_ours("ready")


@pytest.mark.parametrize("visit", ["boxwell"], indirect=True)
def test_a_button_that_would_be_cut_off_leaves_the_shops_own(visit: Visit) -> None:
    visit.opens("/")
    kept = "document.querySelector('.cards .card [data-up-place]').dataset.upKept"
    visit.awaits(kept, "cut")


@pytest.mark.parametrize("visit", ["ribbon"], indirect=True)
def test_cards_of_a_strip_and_of_a_list_get_their_buttons(visit: Visit) -> None:
    visit.opens("/")
    visit.awaits("!!document.querySelector('ul.ribbon [data-up-stands]')")
    visit.engine.evaluate("document.querySelector('ul.ribbon .card:last-child').scrollIntoView({inline: 'center'})")
    visit.awaits("!!document.querySelector('ul.ribbon .card:last-child [data-up-stands]')")
    before = visit.engine.evaluate("document.querySelectorAll('.cards .card').length")
    visit.engine.evaluate("document.querySelector('.foot').scrollIntoView()")
    visit.awaits(f"document.querySelectorAll('.cards .card').length > {before}")
    visit.engine.evaluate("document.querySelector('.cards .card:last-child').scrollIntoView()")
    visit.awaits("!!document.querySelector('.cards .card:last-child [data-up-stands]')")


@pytest.mark.parametrize("visit", ["bayt"], indirect=True)
def test_a_bar_that_is_drawn_stands_where_and_when_it_says(visit: Visit) -> None:
    """At the upper edge, after a distance and once the page's own button has left, and closed by its key."""
    is_in = "!!document.querySelector('[data-up-bar][data-in]')"
    visit.opens()
    visit.awaits_ours("ready")
    visit.engine.evaluate("document.querySelector('main').style.paddingBottom = '3000px'")
    visit.awaits("!!document.querySelector('[data-up-bar]')")
    visit.engine.evaluate("scrollTo(0, 60)")
    time.sleep(0.4)
    assert visit.engine.evaluate(is_in) is False
    bottom = "document.querySelector('[data-up-place=product_page]').getBoundingClientRect().bottom + scrollY"
    visit.engine.evaluate(f"scrollTo(0, Math.max(140, {bottom} + 20))")
    visit.awaits(is_in)
    time.sleep(0.5)
    row = "document.querySelector('[data-up-bar]').shadowRoot.querySelector('.r')"
    assert visit.engine.evaluate(f"Math.round({row}.getBoundingClientRect().top)") == 0
    assert visit.engine.evaluate(f"{row}.querySelector('.x').getAttribute('aria-label')") == "إغلاق"
    visit.engine.evaluate(f"{row}.querySelector('.x').click()")
    visit.awaits(is_in, False)


@pytest.mark.parametrize("visit", ["scullion"], indirect=True)
def test_a_floating_button_comes_into_its_corner_and_buys(visit: Visit) -> None:
    is_in = "!!document.querySelector('[data-up-floating][data-in]')"
    visit.opens()
    visit.awaits_ours("ready")
    visit.engine.evaluate("document.querySelector('main').style.paddingBottom = '3000px'")
    visit.awaits("!!document.querySelector('[data-up-floating]')")
    visit.engine.evaluate("scrollTo(0, 120)")
    time.sleep(0.4)
    assert visit.engine.evaluate(is_in) is False
    visit.engine.evaluate("scrollTo(0, 1500)")
    visit.awaits(is_in)
    time.sleep(0.4)
    row = "document.querySelector('[data-up-floating]').shadowRoot.querySelector('.r').getBoundingClientRect()"
    wide = "document.documentElement.clientWidth"
    side, edge = visit.engine.evaluate(f"[{wide} - {row}.right, innerHeight - {row}.bottom].map(Math.round)")
    assert (side, edge) in {(12, 20), (16, 16), (24, 24)}
    visit.press("[data-in] [data-up-button] >> button.b")
    visit.awaits("document.querySelector('.tally').textContent", "1")
    assert visit.basket() == 1


@pytest.mark.parametrize("visit", ["loft"], indirect=True)
def test_a_button_lies_on_its_picture_in_what_is_drawn_smaller_and_comes_with_the_focus(visit: Visit) -> None:
    engine, place = visit.engine, "document.querySelector('[data-up-place=over_picture]')"
    visit.opens("/")
    visit.awaits(f"!!{place}.querySelector('[data-on]')")
    engine.evaluate(f"{place}.scrollIntoView({{block: 'center'}})")
    host = f"{place}.querySelector('[data-up-button]')"
    boxes = f"[{host}, document.querySelector('.case img')].map(e => e.getBoundingClientRect())"
    left, bottom = engine.evaluate(f"(([a, b]) => [a.left - b.left, b.bottom - a.bottom].map(Math.round))({boxes})")
    assert (left, bottom) == (14, 14)
    seen = f"getComputedStyle({host}).opacity"
    hovers = engine.evaluate("matchMedia('(hover: hover)').matches")
    assert engine.evaluate(seen) == ("0" if hovers else "1")
    engine.evaluate(f"{host}.shadowRoot.querySelector('.b').focus()")
    visit.awaits(seen, "1")
    visit.press("[data-up-place=over_picture] [data-up-button] >> button.b")
    visit.awaits("document.querySelector('.tally').textContent", "1")


@pytest.mark.parametrize("visit", ["hedgerow"], indirect=True)
def test_tiles_are_read_from_their_pages_and_buy_and_what_was_seen_stands_beside_another(visit: Visit) -> None:
    visit.opens("/")
    row = "document.querySelector('up-place[data-up-row=tile]')"
    visit.engine.evaluate("document.querySelector('main').scrollIntoView()")
    visit.awaits(f"!!{row}?.hasAttribute('data-up-filled')")
    goods = ROW["hedgerow"].goods
    names = visit.engine.evaluate(f"[...{row}.shadowRoot.querySelectorAll('.n')].map(one => one.textContent)")
    assert names == [item.name for item in goods[1:4]]
    place = f"[data-up-place=tile][data-up-product={goods[1].sku}]"
    visit.awaits(f"!!document.querySelector('{place} [data-up-button]')")
    visit.press(f"{place} [data-up-button] >> button.b")
    visit.awaits("document.querySelector('.tally').textContent", "1")
    assert visit.basket() == 1
    visit.opens(f"/p/{goods[0].sku}")
    visit.awaits_ours("ready")
    visit.awaits(f"!!localStorage['up.seen.hedgerow']?.includes('{goods[0].sku}')")
    visit.opens(f"/p/{goods[2].sku}")
    visit.engine.evaluate("document.querySelector('.foot').scrollIntoView()")
    seen = f"[data-up-place=strip][data-up-product={goods[0].sku}]"
    visit.awaits(f"!!document.querySelector('{seen} [data-up-button]')")


@pytest.mark.parametrize("visit", ["loft"], indirect=True)
def test_the_bar_comes_in_once_the_pages_button_is_gone(visit: Visit) -> None:
    visit.opens()
    visit.awaits_ours("ready")
    visit.engine.evaluate("document.querySelector('[data-close]').click()")
    # A window of a screen that is not ours may be as high as the page.
    visit.engine.evaluate("document.querySelector('main').style.paddingBottom = '2000px'")
    visit.engine.evaluate("scrollTo(0, document.body.scrollHeight)")
    visit.awaits("!!document.querySelector('[data-in] [data-up-button]')")
    time.sleep(0.5)
    visit.press("[data-in] [data-up-button] >> button.b")
    visit.awaits("document.querySelector('.tally').textContent", "1")
    assert visit.basket() == 1


SHEET = "document.querySelector('[data-up-sheet]')?.shadowRoot"
HEADING = f"{SHEET}?.querySelector('dialog[open] h2')?.textContent"


@pytest.mark.parametrize("visit", ["monogram"], indirect=True)
def test_a_choice_in_a_list_is_added_and_the_basket_is_shown_and_changed(visit: Visit) -> None:
    visit.opens("/")
    card = "[data-card=JV-SUIT] [data-up-button]"
    visit.engine.evaluate("document.querySelector('[data-card=JV-SUIT]').scrollIntoView({block: 'center'})")
    visit.awaits(f"!!document.querySelector('{card}')")
    visit.press(f"{card} >> button.b")
    visit.awaits(HEADING, "Full suit in cotton")
    # The page behind is out of reach.
    assert visit.engine.evaluate("document.elementFromPoint(5, 5).matches('[data-up-sheet]')")
    visit.press("[data-up-sheet] >> fieldset:nth-of-type(1) label:nth-of-type(4)")
    visit.press("[data-up-sheet] >> fieldset:nth-of-type(2) label:nth-of-type(2)")
    visit.awaits(f"{SHEET}.querySelector('.p').textContent", "£104.00")
    visit.press("[data-up-sheet] [data-up-button] >> button.b")
    visit.awaits(HEADING, "Your basket (1)")
    visit.awaits("document.querySelector('.tally').textContent", "1")
    # It has come in.
    visit.awaits(f"{SHEET}.querySelector('dialog').getAnimations().length", 0)
    visit.press("[data-up-sheet] >> .l[aria-label^=Remove]")
    visit.awaits(HEADING, "Your basket (0)")
    visit.awaits("document.querySelector('.tally').textContent", "0")
    visit.press("[data-up-sheet] >> .x")
    visit.awaits("!document.querySelector('[data-up-sheet]')")
    assert visit.engine.evaluate(f"document.activeElement === document.querySelector('{card}')")


@pytest.mark.parametrize("visit", ["veilrow"], indirect=True)
def test_a_closer_look_goes_on_to_the_next_and_back_to_where_it_came_from(visit: Visit) -> None:
    goods = ROW["veilrow"].goods
    visit.opens("/")
    card = f"[data-card={goods[1].sku}] [data-up-button]"
    visit.awaits(f"!!document.querySelector('{card}')")
    visit.press(f"{card} >> button.s")
    visit.awaits(HEADING, goods[1].name)
    visit.awaits(f"{SHEET}.querySelector('img').naturalWidth > 0")
    # What leads here is not there again.
    second = "document.querySelector('[data-up-sheet] [data-up-button]').shadowRoot.querySelector('.s')"
    visit.awaits(f"{second}.getClientRects().length", 0)
    visit.press("[data-up-sheet] >> nav button:last-child")
    visit.awaits(HEADING, goods[2].name)
    visit.press("[data-up-sheet] >> .x")
    visit.awaits("!document.querySelector('[data-up-sheet]')")
    assert visit.engine.evaluate(f"document.activeElement === document.querySelector('{card}')")
