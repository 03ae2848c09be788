"""The script on the practice store's pages: it fits in, it does no harm, and it tells the truth."""

import json
import re
import time

import pytest
from playwright.sync_api import Browser, Page, Route, expect
from sqlalchemy import text

from ops import demo
from tests.browser.conftest import Stack, Tab, open_tab
from uptick.core.button.document import Device, Placement

pytestmark = pytest.mark.browser
OURS = ":is([data-up-place=product_page], [data-up-place=listing_card]) [data-up-button] button"
ANY = "[data-up-place] [data-up-button] button"
WIDTHS = {Device.PHONE: 375, Device.TABLET: 768, Device.DESKTOP: 1280}
SHIFT = """() => new Promise(done => {
  let sum = 0;
  new PerformanceObserver(list => list.getEntries().forEach(e => sum += e.value))
    .observe({ type: 'layout-shift', buffered: true });
  setTimeout(() => done(sum), 1500);
})"""


def visits_of(stack: Stack, shopper: str) -> list[str]:
    with stack.wiring.engine.connect() as db:
        rows = db.execute(
            text("SELECT kind FROM events WHERE shopper = :s AND place <> 'strip' ORDER BY at, id"), {"s": shopper}
        )
        return [row.kind for row in rows]


def shopper_of(page: Page) -> str:
    return str(page.evaluate("localStorage.getItem('up.shopper')"))


@pytest.mark.parametrize("path", ["/p/HV-NUC6", "/p/HV-CEDAR", "/c/everything", "/"])
@pytest.mark.parametrize("width", [375, 1280])
def test_nothing_moves_when_our_buttons_stand(demo_shop: Stack, browser: Browser, path: str, width: int) -> None:
    tab = open_tab(browser, viewport={"width": width, "height": 800})
    tab.page.goto(demo_shop.at.practice + path)
    assert tab.page.evaluate(SHIFT) == 0
    assert tab.page.locator(ANY).count() >= 1
    # The strict policy was not broken once, nor anything else.
    assert tab.told == []
    tab.context.close()


def test_containers_are_as_wide_and_own_buttons_as_high_as_the_store_says(demo_shop: Stack, browser: Browser) -> None:
    store = demo.demo_store("http://x.test")
    for device, width in WIDTHS.items():
        tab = open_tab(browser, viewport={"width": width, "height": 900})
        for placement, path in ((Placement.PRODUCT_PAGE, "/p/HV-NUC6"), (Placement.LISTING_CARD, "/c/hives"),
                                (Placement.STRIP, "/p/HV-NUC6")):  # fmt: skip
            tab.page.goto(f"{demo_shop.at.practice}{path}?without-snippet")
            place = tab.page.locator(f"[data-up-place={placement}]").first
            surface = store.surfaces[placement]
            measured = place.evaluate("e => [e.clientWidth, e.firstElementChild.getBoundingClientRect().height]")
            assert measured[0] == pytest.approx(surface.widths_px[device], abs=0.6), (placement, device)
            assert measured[1] == pytest.approx(surface.own_height_px, abs=0.6), (placement, device)
        tab.context.close()


def test_without_the_snippet_the_shop_sells_as_before(demo_shop: Stack, tab: Tab) -> None:
    tab.page.goto(f"{demo_shop.at.practice}/p/TL-BRUSH?without-snippet")
    tab.page.locator(".buy").get_by_role("button", name="Add to basket").click()
    expect(tab.page.get_by_role("cell", name="Goose-wing bee brush")).to_be_visible()
    assert tab.page.url.endswith("/basket")


BROKEN = {
    "not there": lambda route: route.abort(),
    "an error": lambda route: route.fulfill(status=500, body="oops"),
    "half a file": lambda route: route.fulfill(status=200, content_type="text/javascript", body="(function(){"),
    "wrong inside": lambda route: route.fulfill(
        status=200, content_type="text/javascript", body=route.fetch().text().replace('"places":', '"palaces":')
    ),
    "another page's": lambda route: route.fulfill(
        status=200, content_type="text/javascript", body=route.fetch().text().replace(".b{all:unset", "}}{")
    ),
}


@pytest.mark.parametrize("how", ["not there", "an error", "half a file", "wrong inside"])
def test_a_broken_script_leaves_the_shops_own_button(demo_shop: Stack, tab: Tab, how: str) -> None:
    tab.page.route("**/up.js", BROKEN[how])
    tab.page.goto(f"{demo_shop.at.practice}/p/TL-BRUSH")
    tab.page.wait_for_timeout(700)
    tab.page.locator(".buy").get_by_role("button", name="Add to basket").click()
    tab.page.wait_for_url("**/basket")
    expect(tab.page.get_by_role("cell", name="Goose-wing bee brush")).to_be_visible()


def test_a_basket_that_does_not_answer_gives_the_shops_own_button_back(demo_shop: Stack, tab: Tab) -> None:
    tab.page.goto(f"{demo_shop.at.practice}/p/TL-BRUSH")
    expect(tab.page.locator(OURS)).to_be_visible()
    tab.page.route("**/basket/add", lambda route: _only_first(route))
    tab.page.locator(OURS).click()
    own = tab.page.locator(".buy").get_by_role("button", name="Add to basket")
    expect(own).to_be_focused()
    expect(tab.page.locator(".buy [data-up-note=refused]")).to_have_text("It was not added. Please use this button.")
    own.click()
    tab.page.wait_for_url("**/basket")
    expect(tab.page.get_by_role("cell", name="Goose-wing bee brush")).to_be_visible()


def _only_first(route: Route) -> None:
    """Fail the script's request; let the shop's own form through."""
    if "application/json" in route.request.headers.get("accept", ""):
        route.fulfill(status=502, body="gone")
    else:
        route.continue_()


def test_choose_first_leads_to_the_choice_and_sold_out_cannot_be_pressed(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    page.goto(f"{demo_shop.at.practice}/p/HV-CEDAR")
    ours = page.locator(OURS)
    expect(ours).to_have_attribute("data-moment", "choose_first")
    expect(ours).to_have_attribute("aria-disabled", "true")
    # It cannot be pressed, but whoever tries is led to the choice.
    ours.click(force=True)
    expect(page.locator("select[name=option]")).to_be_focused()
    page.locator("select[name=option]").select_option(index=1)
    expect(ours).to_have_attribute("data-moment", "ready")
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")
    expect(page.locator("[data-basket-count]")).to_have_text("1")

    page.goto(f"{demo_shop.at.practice}/c/hives")
    page.locator("li", has_text="Cedar hive").locator(OURS).click()
    page.wait_for_url("**/p/HV-CEDAR")

    page.goto(f"{demo_shop.at.practice}/c/everything")
    gone = page.locator(f"{OURS}[data-moment=sold_out]").first
    expect(gone).to_have_attribute("aria-disabled", "true")
    gone.click(force=True)
    expect(page.locator("[data-basket-count]")).to_have_text("1")


def test_our_button_works_by_keyboard_keeps_the_focus_and_says_what_happened(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    page.goto(f"{demo_shop.at.practice}/p/TL-BRUSH")
    ours = page.locator(OURS)
    expect(page.get_by_role("button", name=re.compile("^Take it home.*, Goose-wing bee brush$"))).to_be_visible()
    ours.focus()
    assert ours.evaluate("b => getComputedStyle(b).outlineStyle") == "solid"
    page.keyboard.press("Enter")
    expect(ours).to_have_attribute("data-moment", "added")
    assert ours.evaluate("b => b.getRootNode().activeElement === b")
    expect(page.get_by_role("status").first).to_have_text("In your skep, Goose-wing bee brush")


def test_leaving_the_page_at_once_loses_no_signal(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    page.goto(f"{demo_shop.at.practice}/p/TL-BRUSH")
    expect(page.locator(OURS)).to_be_visible()
    page.wait_for_timeout(1200)
    page.locator(OURS).click()
    page.goto("about:blank")
    page.goto(f"{demo_shop.at.practice}/basket")
    shopper = shopper_of(page)
    ends = time.monotonic() + 8
    while visits_of(demo_shop, shopper)[:2] != ["shown", "clicked"] and time.monotonic() < ends:
        time.sleep(0.1)
    assert visits_of(demo_shop, shopper)[:2] == ["shown", "clicked"]


def test_while_the_edge_cannot_be_reached_signals_wait_and_come_once(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    page.route("**/signals", lambda route: route.abort())
    page.goto(f"{demo_shop.at.practice}/p/TL-BRUSH")
    expect(page.locator(OURS)).to_be_visible()
    page.wait_for_timeout(2800)
    shopper = shopper_of(page)
    assert visits_of(demo_shop, shopper) == []
    page.unroute("**/signals")
    for _ in range(2):
        page.goto(f"{demo_shop.at.practice}/basket")
        page.wait_for_timeout(500)
    for _ in range(100):
        if visits_of(demo_shop, shopper):
            break
        page.wait_for_timeout(100)
    page.goto(f"{demo_shop.at.practice}/c/everything?without-snippet")
    assert visits_of(demo_shop, shopper) == ["shown"]


def test_whoever_asks_not_to_be_followed_has_no_id(demo_shop: Stack, tab: Tab) -> None:
    tab.context.add_init_script("Object.defineProperty(navigator, 'globalPrivacyControl', { value: true })")
    tab.page.goto(f"{demo_shop.at.practice}/p/TL-BRUSH")
    with tab.page.expect_request("**/signals") as asked:
        tab.page.wait_for_timeout(2800)
    assert json.loads(asked.value.post_data or "{}")["shopper"] == ""
    assert tab.page.evaluate("localStorage.getItem('up.shopper')") is None


def test_a_shopper_gets_the_same_version_on_every_page(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    seen = set()
    for sku in ("TL-BRUSH", "HV-NUC6", "TL-BRUSH"):
        page.goto(f"{demo_shop.at.practice}/p/{sku}")
        expect(page.locator(OURS)).to_be_visible()
        seen.add("£" in page.locator(OURS).inner_text())
    assert len(seen) == 1


def test_cards_that_come_later_get_their_buttons_too(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    page.goto(f"{demo_shop.at.practice}/c/starter-sets")
    expect(page.locator(OURS)).to_have_count(6)
    page.evaluate("document.querySelector('li.card').parentElement.append(...['TL-BRUSH'].map(sku => {"
                  "const card = document.querySelectorAll('li.card')[1].cloneNode(true);"
                  "const place = card.querySelector('[data-up-place]');"
                  "place.replaceChildren(); delete place.dataset.upTried; delete place.dataset.upStands;"
                  "return card; }))")  # fmt: skip
    expect(page.locator(OURS)).to_have_count(7)


def test_the_draft_is_seen_in_the_shop_by_a_signed_link_without_a_signal(demo_shop: Stack, tab: Tab) -> None:
    token = demo_shop.wiring.studio_parts().preview_token(demo.KEY)
    page = tab.page
    sent: list[str] = []
    page.on("request", lambda request: sent.append(request.url) if request.url.endswith("/signals") else None)
    page.goto(f"{demo_shop.at.practice}/p/HV-CEDAR?up-draft={token}")
    expect(page.locator(OURS)).to_contain_text("Pick your frame standard")
    page.wait_for_timeout(2800)
    assert sent == []
    page.goto(f"{demo_shop.at.practice}/p/HV-CEDAR")
    expect(page.locator(OURS)).to_contain_text("Pick one first")
