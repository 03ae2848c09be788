"""The sticky bar on the shop's own page: when it comes and goes, what it holds, and that it is in nobody's way."""

from collections.abc import Callable
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from ops import demo
from tests.browser.conftest import Stack, Tab, open_tab, sign_in
from uptick.core.errors import BadDocument
from uptick.usecases import edit
from uptick.usecases.ports import Person
from uptick.wiring import clock

pytestmark = pytest.mark.browser
BAR = "[data-up-bar]"
IN = "[data-up-bar][data-in]"
ADA = Person(1, demo.NAME, demo.EMAIL, (demo.KEY,))
Draws = Callable[..., Page]


@pytest.fixture
def draws(own_demo: Stack, tab: Tab) -> Draws:
    """Return what draws the bar in the draft and opens a product's page with it, in a window of the shopper's."""

    def draw(bar: dict[str, Any], path: str = "/p/HV-NUC6", before: str = "") -> Page:
        sign_in(tab, own_demo)
        with own_demo.wiring.open_shop(demo.KEY) as shop:
            now = shop.drafts.read()
            whole = {**now.settings.placements["sticky_bar"], "bar": bar}
            patched = now.settings.with_layer("place:sticky_bar", whole)
            shop.drafts.append(now.version, patched, "the bar", ADA, clock())
        token = tab.page.request.get(f"{own_demo.at.studio}/api/stores/{demo.KEY}").json()["preview"]
        if before:
            tab.page.add_init_script(f"addEventListener('DOMContentLoaded', () => {{ {before} }})")
        mark = "&" if "?" in path else "?"
        tab.page.goto(f"{own_demo.at.practice}{path}{mark}up-draft={token}")
        tab.page.locator(BAR).wait_for(state="attached")
        return tab.page

    return draw


def at(page: Page, y: float) -> None:
    page.evaluate("y => scrollTo({ top: y, behavior: 'instant' })", y)
    page.wait_for_timeout(120)


def is_in(page: Page) -> bool:
    return page.locator(IN).count() == 1


def way(page: Page) -> int:
    return int(page.evaluate("document.documentElement.scrollHeight - innerHeight"))


def test_it_comes_after_a_distance_and_goes_before_the_end(draws: Draws) -> None:
    page = draws({"comes": {"kind": "distance", "px": 90}, "returns": False, "foot_px": 100})
    most = way(page)
    assert most > 250
    for y, there in ((0, False), (88, False), (92, True), (most - 110, True)):
        at(page, y)
        assert is_in(page) is there, y


def test_it_comes_after_a_share_of_the_way_whatever_the_page_grows_to(draws: Draws) -> None:
    page = draws({"comes": {"kind": "share", "share": 0.5}})
    page.evaluate("document.querySelector('main').style.paddingBottom = '2000px'")
    page.wait_for_timeout(200)
    half = way(page) / 2
    for y, there in ((half - 4, False), (half + 4, True), (half - 4, False)):
        at(page, y)
        assert is_in(page) is there, y


def test_it_waits_while_the_own_button_is_in_the_window(draws: Draws) -> None:
    page = draws({"comes": {"kind": "distance", "px": 0}})
    page.evaluate("document.querySelector('main').style.paddingBottom = '2000px'")
    bottom = page.evaluate("document.querySelector('.product [data-up-place]').getBoundingClientRect().bottom")
    for y, there in ((40, False), (bottom - 5, False), (bottom + 5, True), (bottom - 5, False)):
        at(page, y)
        assert is_in(page) is there, y


def test_it_comes_on_the_way_up_only_where_that_is_wished(draws: Draws) -> None:
    page = draws({"comes": {"kind": "distance", "px": 50}, "returns": False, "only_up": True})
    at(page, 200)
    assert not is_in(page)
    at(page, 180)
    assert is_in(page)
    at(page, 260)
    assert not is_in(page)


def test_a_bar_that_is_closed_stays_away_for_its_time_and_gives_the_focus_back(draws: Draws) -> None:
    page = draws({"comes": {"kind": "distance", "px": 10}, "returns": False, "close_hours": 24})
    at(page, 200)
    # Escape and a press beside it close nothing.
    page.keyboard.press("Escape")
    page.mouse.click(20, 300)
    assert is_in(page)
    page.get_by_role("button", name="Close").click()
    assert not is_in(page)
    place = page.evaluate("document.activeElement.closest('[data-up-place]').dataset.upPlace")
    assert place == "product_page"
    page.reload()
    page.locator(BAR).wait_for(state="attached")
    at(page, 200)
    assert not is_in(page)
    page.evaluate("localStorage['up.bar'] = Date.now() - 1")
    page.reload()
    page.locator(BAR).wait_for(state="attached")
    at(page, 200)
    assert is_in(page)


def test_it_stands_under_the_shops_own_header_and_keeps_what_is_focused_clear(draws: Draws) -> None:
    """Reference: WCAG 2.2, 2.4.11 Focus Not Obscured."""
    header = "document.querySelector('.top').style.cssText = 'position:sticky;top:0;background:white;z-index:9'"
    page = draws({"edge": "top", "comes": {"kind": "distance", "px": 10}, "returns": False}, before=header)
    at(page, 400)
    boxes = """() => ['.top', '.r'].map(name => (document.querySelector('[data-up-bar]').shadowRoot.querySelector(name)
      ?? document.querySelector(name)).getBoundingClientRect()).map(({ top, bottom }) => [top, bottom])"""
    page.wait_for_timeout(400)
    (_, header_ends), (bar_begins, bar_ends) = page.evaluate(boxes)
    assert bar_begins == pytest.approx(header_ends, abs=1)
    # Going back by Tab, nothing that gets the focus lies under the two.
    page.locator("footer a").last.focus()
    for _ in range(8):
        page.keyboard.press("Shift+Tab")
        page.wait_for_timeout(60)
        top, inside = page.evaluate(
            "() => { const e = document.activeElement; return [e.getBoundingClientRect().top, !!e.closest('.top')] }"
        )
        assert inside or top >= bar_ends - 1 or top < 0 or not is_in(page)


def test_it_keeps_room_at_the_end_and_what_is_focused_above_it(draws: Draws) -> None:
    """Reference: WCAG 2.2, 2.4.11 Focus Not Obscured."""
    page = draws({"comes": {"kind": "distance", "px": 10}, "returns": False})
    at(page, 1e6)
    page.wait_for_timeout(400)
    edges = """() => [document.querySelector('footer').getBoundingClientRect().bottom,
      document.querySelector('[data-up-bar]').shadowRoot.querySelector('.r').getBoundingClientRect().top]"""
    footer, bar = page.evaluate(edges)
    assert footer <= bar + 1
    at(page, 100)
    page.locator("h1").click()
    for _ in range(12):
        page.keyboard.press("Tab")
        page.wait_for_timeout(60)
        focused = page.evaluate(
            """() => { const e = document.activeElement, b = e.getBoundingClientRect();
              return [b.bottom, !!e.closest('[data-up-bar]') || e === document.body] }"""
        )
        top = page.evaluate(edges)[1]
        assert focused[1] or not is_in(page) or focused[0] <= top + 1, focused
    # What stands last on the screen comes last by Tab.
    assert page.evaluate("document.querySelector('[data-up-bar]') === document.documentElement.lastElementChild")


def test_what_it_holds_is_said_in_the_pages_language_and_hidden_by_device(
    draws: Draws, own_demo: Stack, browser: Any
) -> None:
    bar = {
        "parts": ["picture", "heading", "name", "price", "button"],
        "phone_without": ["picture", "name"],
        "heading": {"en-GB": "For this week", "de-DE": "Diese Woche"},
        "taxed": False,
    }
    page = draws(bar)
    at(page, 1e6)
    inner = page.locator(f"{BAR} .w")
    assert str(inner.locator("img.picture").get_attribute("src")).endswith("/pictures/HV-NUC6.svg")
    expect(inner.locator(".heading")).to_have_text("For this week")
    expect(inner.locator(".name")).to_have_text("Six-frame nucleus box")
    # 64.50 with a fifth of tax in it.
    expect(inner.locator(".price")).to_have_text("£53.75")
    page.set_viewport_size({"width": 375, "height": 740})
    shown = [part for part in ("picture", "heading", "name", "price") if inner.locator(f".{part}").is_visible()]
    assert shown == ["heading", "price"]
    german = page.url.replace("?", "?lang=de-DE&")
    page.goto(german)
    page.locator(BAR).wait_for(state="attached")
    expect(page.locator(f"{BAR} .heading")).to_have_text("Diese Woche")


def test_it_neither_slides_for_those_who_want_no_motion_nor_prints(draws: Draws, own_demo: Stack, browser: Any) -> None:
    page = draws({"slide_ms": 500})
    assert page.locator(f"{BAR} .r").evaluate("e => getComputedStyle(e).transitionDuration") == "0.5s, 0.5s"
    page.emulate_media(reduced_motion="reduce")
    assert page.locator(f"{BAR} .r").evaluate("e => getComputedStyle(e).transitionDuration") == "0s"
    page.emulate_media(media="print")
    assert page.locator(BAR).evaluate("e => getComputedStyle(e).display") == "none"


def test_without_our_file_for_the_bar_everything_else_stands(own_demo: Stack, browser: Any) -> None:
    tab = open_tab(browser)
    name = ""

    def refuse(route: Any) -> None:
        nonlocal name
        body = route.fetch()
        if "data-up-bar" in body.text() or "upBar" in body.text():
            name = route.request.url
            route.fulfill(status=404, body="")
        else:
            route.fulfill(response=body)

    tab.page.route("**/later/*", refuse)
    tab.page.goto(f"{own_demo.at.practice}/p/HV-NUC6")
    expect(tab.page.locator("[data-up-place=product_page] [data-up-button] button.b")).to_be_visible()
    at(tab.page, 1e6)
    tab.page.wait_for_timeout(300)
    assert name
    assert tab.page.locator(BAR).count() == 0
    at(tab.page, 0)
    tab.page.locator("[data-up-place=product_page] [data-up-button] button.b").click()
    expect(tab.page.locator(".skep b")).to_have_text("1")
    assert not [told for told in tab.told if "404" not in told], tab.told
    tab.context.close()


def test_the_draft_is_left_as_edits_make_it(own_demo: Stack) -> None:
    """A bar without its button is refused where it is written."""
    with own_demo.wiring.open_shop(demo.KEY) as shop, pytest.raises(BadDocument, match="must hold the button"):
        edit.change_layer(
            shop, "place:sticky_bar", {"bar": {"parts": ["name"]}}, shop.drafts.read().version, ADA,
            clock(),
        )  # fmt: skip
