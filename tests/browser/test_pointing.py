"""Places that were chosen by pointing: on pages that no code of ours marks, and in the studio where one points."""

import json
import random
import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import pytest
from playwright.sync_api import Browser, FrameLocator, Locator, Page, Route, expect

from practice.row import ROW
from tests.browser.conftest import ADA, Stack, Tab, barriers, open_tab, sign_in
from tests.browser.test_row import SHIFT, SINCE
from tests.browser.test_strange_pages import Strange, goods, told
from tests.strangers import HERE
from uptick.core.button.document import Placement
from uptick.core.pages import PageRead, Taken, candidates
from uptick.core.release.compiling import compile_pointed
from uptick.core.rules.pointed import (
    PointedPlace,
    Telling,
    ToldByAddress,
    ToldByAttribute,
    ToldByLink,
    ToldByPage,
    Where,
)
from uptick.wiring import clock

pytestmark = pytest.mark.browser
KEY = "hedgerow"
OURS = "up-place[data-up-place=product_page] [data-up-button] button.b"
SKU, OTHER = (goods.sku for goods in ROW[KEY].goods[:2])


@pytest.fixture
def origin(demo_shop: Stack) -> str:
    return demo_shop.at.practice.replace("://", f"://{KEY}.")


@pytest.fixture
def strange(demo_shop: Stack, tab: Tab, origin: str) -> Iterator[Strange]:
    made = Strange(tab.page, origin, KEY, demo_shop.at.edge, "?a=1")
    yield made
    assert all("Failed to load resource" in message for message in tab.told), tab.told


def form(sku: str = SKU, more: str = "") -> str:
    return (
        f'<form method=post action="/basket/add"><input type=hidden name=sku value="{sku}">'
        f'<input type=hidden name=qty value=1>{more}<button type=submit data-action="add">Add</button></form>'
    )


def place(at: Strange) -> Locator:
    return at.page.locator(OURS)


# A page of the shop's own, without a mark of ours.


def test_a_button_stands_instead_of_the_shops_own_and_sends_its_form_once(tab: Tab, origin: str) -> None:
    page = tab.page
    page.add_init_script(SINCE)
    page.goto(f"{origin}/p/{SKU}")
    ours = page.locator(OURS)
    own = page.locator('[data-action="add"]')
    expect(ours).to_be_visible()
    expect(own).to_be_hidden()
    # Nothing of the shop's was touched, and ours has the room that its own had.
    assert own.evaluate("b => [...b.attributes].map(a => a.name).sort()") == ["class", "data-action", "type"]
    assert page.evaluate(SHIFT) == []
    page.get_by_label("Pieces").fill("3")
    with page.expect_request("**/basket/add") as sent:
        ours.dblclick()
    assert f"sku={SKU}&qty=3" in (sent.value.post_data or "") or 'name="qty"\r\n\r\n3' in (sent.value.post_data or "")
    expect(page.locator(".tally")).to_have_text("3")
    page.wait_for_timeout(300)
    expect(page.locator(".tally")).to_have_text("3")


def test_the_shops_own_button_is_back_when_a_press_came_to_nothing(strange: Strange) -> None:
    strange.opens(form(), told(goods(SKU)))
    ours = place(strange)
    expect(ours).to_be_visible()
    strange.answer = lambda route: route.fulfill(status=422, body="no")
    ours.click()
    expect(strange.page.locator("[data-up-note=refused]")).to_be_visible()
    expect(strange.page.get_by_role("button", name="Add")).to_be_focused()
    assert len(strange.posts) == 1


def test_a_page_that_draws_its_form_anew_gets_one_button_each_time(strange: Strange) -> None:
    strange.opens(f"<div id=app>{form()}</div>", told(goods(SKU)))
    expect(place(strange)).to_be_visible()
    for _ in range(5):
        strange.page.evaluate("html => { document.querySelector('#app').innerHTML = html }", form())
        expect(place(strange)).to_be_visible()
    assert strange.page.locator("up-place").count() == 1
    expect(strange.page.locator('[data-action="add"]')).to_be_hidden()


def test_a_page_that_takes_it_out_again_and_again_keeps_its_own(strange: Strange) -> None:
    strange.opens(f"<div id=app>{form()}</div>", told(goods(SKU)))
    expect(place(strange)).to_be_visible()
    strange.page.evaluate(
        "() => new MutationObserver(() => document.querySelectorAll('up-place').forEach(p => p.remove()))"
        ".observe(document.body, { subtree: true, childList: true })"
    )
    strange.page.evaluate("document.querySelector('up-place').remove()")
    strange.page.wait_for_timeout(500)
    expect(strange.page.locator('[data-action="add"]')).to_be_visible()
    assert strange.page.locator("up-place").count() == 0


def test_the_place_follows_the_product_that_a_page_shows_now(strange: Strange) -> None:
    strange.opens(form(), told(goods(SKU, "12.50")))
    ours = place(strange)
    expect(ours).to_contain_text("12.50")
    strange.page.evaluate(
        """([ld, sku]) => { document.querySelector('script[type="application/ld+json"]').textContent = ld;
           document.querySelector('[name=sku]').value = sku; }""",
        [json.dumps({"@graph": [goods(OTHER, "99.00")]}), OTHER],
    )
    expect(ours).to_contain_text("99.00")
    ours.click()
    expect(ours).to_have_attribute("data-moment", "added")
    assert [post["sku"] for post in strange.posts] == [[OTHER]]


def test_it_leaves_when_the_page_is_no_longer_one_that_is_meant(strange: Strange) -> None:
    strange.opens(form(), told(goods(SKU)))
    expect(place(strange)).to_be_visible()
    two = json.dumps({"@graph": [goods(SKU), goods(OTHER)]})
    set_data = "ld => { document.querySelector('script[type=\"application/ld+json\"]').textContent = ld }"
    strange.page.evaluate(set_data, two)
    expect(place(strange)).to_have_count(0)
    expect(strange.page.locator('[data-action="add"]')).to_be_visible()
    strange.page.evaluate(set_data, json.dumps({"@graph": [goods(SKU)]}))
    expect(place(strange)).to_be_visible()


def test_what_the_shops_code_marks_counts_before_what_was_pointed_at(strange: Strange) -> None:
    marked = f'<div data-up-place="product_page" data-up-product="{SKU}">{form()}</div>'
    ours = strange.opens(marked, told(goods(SKU)))
    expect(ours).to_be_visible()
    assert strange.page.locator("up-place").count() == 0


def serves(at: Strange, places: list[PointedPlace]) -> None:
    """Let the shop's script be told of other places than those of its release."""

    def answer(route: Route) -> None:
        text = route.fetch().text()
        told = text[text.index("JSON.parse('") + 12 : text.index("'),pieces)")]
        manifest = json.loads(told.replace("\\'", "'").replace("\\\\", "\\"))
        manifest["pointed"] = [compile_pointed(place) for place in places]
        changed = json.dumps(manifest).replace("\\", "\\\\").replace("'", "\\'")
        route.fulfill(body=text.replace(told, changed), content_type="text/javascript")

    at.page.route("**/up.js", answer)


def listed(*skus: str, more: str = "") -> str:
    """A list whose cards tell their product in every way that there is."""
    cards = "".join(
        f'<li class=card data-code="{sku}"><a href="/buy/{sku}/now">…</a>'
        f'<form><input type=hidden name=sku value="{sku}"><b class=x></b></form></li>'
        for sku in skus
    )
    return f"<main><ul>{cards}{more}</ul></main>"


# One that tells nothing of itself lies among them, and one whose link cannot be read.
MUTE = (
    "<li class=card><b class=x></b></li>"
    '<li class=card data-code=""><a href="/buy/%E0%A4%A/now">…</a><b class=x></b></li>'
)
TELLINGS: list[Telling] = [
    ToldByPage(), ToldByAttribute(name="data-code"), ToldByLink(path="/buy/{code}/now"), ToldByAddress(),
]  # fmt: skip


@pytest.mark.parametrize("telling", TELLINGS, ids=lambda way: way.kind)
def test_the_script_and_the_core_say_the_same_of_whose_a_place_is(strange: Strange, telling: Telling) -> None:
    place_of = PointedPlace(placement=Placement.LISTING_CARD, selector=".x", where=Where.AFTER, telling=telling)
    serves(strange, [place_of])
    urls = {sku: {"url": f"/buy/{sku}/now"} for sku in (SKU, OTHER)}
    body = listed(SKU, OTHER, more=MUTE)
    head = told(
        *(goods(sku, **more) for sku, more in urls.items()), {"@type": "Product", "sku": "Z", "url": "http://["}
    )
    strange.opens(body, head)
    expect(strange.page.locator("up-place").first).to_be_attached()
    strange.page.wait_for_timeout(300)
    codes = Taken.on(PageRead(head + body), ".x", "sku").codes(telling)
    assert codes == (SKU, OTHER, "", "")
    by_script = strange.page.evaluate(
        "[...document.querySelectorAll('.x')].map(x => x.nextElementSibling?.matches('up-place')"
        " ? x.nextElementSibling.dataset.upProduct || x.closest('form')?.elements.sku.value : '')"
    )
    assert tuple(by_script) == codes


FAR = "<div style='height:4000px'></div>"


def waits(at: Strange, body: str, style: str = "") -> Locator:
    """Open a page whose only button is far below the window, and return its place."""
    serves(at, [PointedPlace(placement=Placement.PRODUCT_PAGE, selector="form button", where=Where.INSTEAD)])
    at.opens(f"<main>{FAR}{body}{FAR}</main>", f"<style>{style}</style>{told(goods(SKU))}")
    spot = at.page.locator("up-place")
    expect(spot).to_be_attached()
    at.page.wait_for_timeout(300)
    assert spot.locator("[data-up-button]").count() == 0
    return spot


def test_a_place_that_waits_has_no_box_and_gets_its_button_when_one_scrolls_there(strange: Strange) -> None:
    spot = waits(strange, form())
    assert spot.evaluate("e => e.getClientRects().length") == 0
    strange.page.evaluate("scrollTo(0, 3500)")
    expect(place(strange)).to_be_visible()
    expect(strange.page.locator('[data-action="add"]')).to_be_hidden()


def test_a_shop_that_hides_its_own_button_gets_ours_all_the_same(strange: Strange) -> None:
    waits(strange, form(), "form button { display: none } form:hover button { display: block }")
    strange.page.evaluate("scrollTo(0, 3500)")
    expect(place(strange)).to_be_visible()


def test_a_shop_that_hides_its_own_button_in_a_narrower_window_gets_ours_there(strange: Strange) -> None:
    spot = waits(strange, form(), "@media (max-width: 1100px) { form button { display: none } }")
    assert spot.get_attribute("data-up-waits") is not None
    # Not so much narrower that it is another device.
    strange.page.set_viewport_size({"width": 1060, "height": 800})
    expect(spot).not_to_have_attribute("data-up-waits", "")
    strange.page.evaluate("scrollTo(0, 3500)")
    expect(place(strange)).to_be_visible()


def test_our_line_twice_finds_one_place_that_waits(strange: Strange) -> None:
    spot = waits(strange, form())
    strange.page.evaluate(
        "src => document.head.append(Object.assign(document.createElement('script'), { src }))",
        f"{strange.edge}/s/{KEY}/up.js",
    )
    strange.page.evaluate("scrollTo(0, 3500)")
    expect(place(strange)).to_be_visible()
    strange.page.wait_for_timeout(500)
    # The sticky bar has one of its own.
    assert (spot.count(), spot.locator("[data-up-button]").count()) == (1, 1)
    assert strange.page.locator("[data-up-button]").count() == 1 + strange.page.locator("[data-up-bar]").count()


def test_of_several_places_on_a_page_of_one_product_none_is_guessed(strange: Strange) -> None:
    serves(strange, [PointedPlace(placement=Placement.PRODUCT_PAGE, selector=".x", where=Where.AFTER)])
    strange.opens("<main><p class=x></p><p class=x></p></main>", told(goods(SKU)))
    strange.page.wait_for_timeout(800)
    assert strange.page.locator("up-place").count() == 0


def test_a_place_far_from_a_link_does_not_take_the_next_best_product(strange: Strange) -> None:
    at = PointedPlace(
        placement=Placement.LISTING_CARD, selector=".x", where=Where.AFTER, telling=ToldByLink(path="/p/{code}")
    )
    serves(strange, [at])
    strange.opens(
        f'<main><ul><li><b class=x></b></li></ul><a href="/p/{OTHER}">Goes with it</a></main>', told(goods(SKU))
    )
    strange.page.wait_for_timeout(800)
    assert strange.page.locator("up-place").count() == 0


# In the studio.


@dataclass
class Station:
    """The Place station with the shop's page in it."""

    page: Page
    key: str

    @property
    def shop(self) -> FrameLocator:
        return self.page.frame_locator("section.page iframe")

    def points(self, what: str, at: str, n: int = 0) -> None:
        self.page.get_by_role("button", name="Point at a place").click()
        self.page.get_by_label("What the place is for").click()
        self.page.get_by_role("option", name=what).click()
        expect(self.page.get_by_role("button", name="arrow keys move over the page")).to_be_visible()
        # Playwright does not reckon with the scale at which the frame is drawn.
        frame = self.page.locator("section.page iframe")
        left, top, scale = frame.evaluate(
            "f => { const b = f.getBoundingClientRect(); return [b.x, b.y, b.width / f.offsetWidth] }"
        )
        x, y = (
            self.shop.locator(at)
            .nth(n)
            .evaluate("e => { const b = e.getBoundingClientRect(); return [b.x + 8, b.y + b.height / 2] }")
        )
        self.page.mouse.move(left + x * scale - 2, top + y * scale)
        self.page.mouse.click(left + x * scale, top + y * scale)

    def keeps(self) -> None:
        keep = self.page.get_by_role("button", name="Keep the place")
        expect(keep).to_be_enabled()
        keep.click()
        expect(self.page.get_by_role("heading", name="pointed at")).to_be_visible()


@pytest.fixture
def station(demo_shop: Stack, tab: Tab) -> Iterator[Station]:
    """The station of a shop in which one place was pointed at; its rows of tiles are there again afterwards."""
    with demo_shop.wiring.open_shop(KEY) as shop:
        was = shop.drafts.read()
        bare = was.settings.model_copy(update={"pointed": {"p1": was.settings.pointed["p1"]}})
        shop.drafts.append(was.version, bare, "one place", ADA, clock())
    sign_in(tab, demo_shop)
    tab.page.goto(demo_shop.at.studio)
    tab.page.evaluate(f"localStorage.setItem('uptick.store', '{KEY}')")
    tab.page.goto(f"{demo_shop.at.studio}/place/points")
    expect(tab.page.get_by_role("heading", name="pointed at")).to_be_visible()
    yield Station(tab.page, KEY)
    with demo_shop.wiring.open_shop(KEY) as shop:
        shop.drafts.append(shop.drafts.read().version, was.settings, "as it was", ADA, clock())


def test_a_card_is_pointed_at_seen_on_every_page_kept_and_undone(station: Station, demo_shop: Stack) -> None:
    page = station.page
    expect(station.shop.locator(".card .price").nth(8)).to_be_visible()
    station.points("a card in a list", ".card .price", 2)
    # The page's own price is no card's: the selector is the one that says so.
    expect(page.get_by_label("Selector by hand")).to_have_value(".card .price")
    expect(page.get_by_text("9 places, each with its product.")).to_be_visible()
    expect(page.get_by_text("It holds on 6 of 6 pages that are meant")).to_be_visible()
    # The draft stands in the shop's page, in each of its cards.
    expect(station.shop.locator("up-place[data-up-place=listing_card][data-up-stands]")).to_have_count(9)
    expect(page.get_by_text("by a link to /p/{code}")).to_be_visible()
    assert barriers(page) == []
    station.keeps()
    with demo_shop.wiring.open_shop(KEY) as shop:
        kept = shop.drafts.read().settings.pointed["p2"]
    assert (kept.selector, kept.where.value, kept.page_path) == (".card .price", "after", "/")
    # Measured on the three windows of the shop's own page.
    assert {device.value: round(width) for device, width in kept.widths_px.items()} == {
        "phone": 162, "tablet": 227, "desktop": 307,
    }  # fmt: skip
    page.keyboard.press("Control+z")
    expect(page.get_by_role("heading", name="One place was pointed at.")).to_be_visible()


def test_a_picture_is_pointed_at_and_the_button_lies_on_it_beside_its_link(station: Station, demo_shop: Stack) -> None:
    page = station.page
    expect(station.shop.locator(".card img").nth(8)).to_be_visible()
    station.points("a picture", ".card img", 2)
    expect(page.get_by_text("9 places, each with its product.")).to_be_visible()
    laid = station.shop.locator("up-place[data-up-place=over_picture] [data-up-button][data-on]")
    expect(laid).to_have_count(9)
    # It lies in the picture's lower corner, outside the link, and takes no room.
    told = (
        station.shop.locator("up-place[data-up-place=over_picture]")
        .nth(2)
        .evaluate(
            """place => {
          const [a, b] = [place.querySelector('[data-up-button]'), place.parentElement.querySelector('img')]
            .map(e => e.getBoundingClientRect());
          return [Math.round(b.right - a.right), Math.round(b.bottom - a.bottom), !!place.closest('a'),
            getComputedStyle(place).position];
        }"""
        )
    )
    assert told == [12, 12, False, "absolute"]
    page.get_by_label("Where:").click()
    expect(page.get_by_role("option", name="instead of")).to_have_count(0)
    page.keyboard.press("Escape")
    station.keeps()
    with demo_shop.wiring.open_shop(KEY) as shop:
        kept = next(p for p in shop.drafts.read().settings.pointed.values() if p.placement == "over_picture")
        assert "over_picture" in shop.store.places
    assert (kept.where.value, set(kept.widths_px)) == ("after", {"phone", "tablet", "desktop"})
    page.keyboard.press("Control+z")
    expect(page.get_by_role("heading", name="One place was pointed at.")).to_be_visible()


def test_a_place_is_as_wide_as_what_it_stands_instead_of(station: Station) -> None:
    """In a row that shares its room out, an empty place would have next to none: it is measured once ours stands."""
    page = station.page
    page.get_by_role("button", name="Look at").first.click()
    expect(page.get_by_role("button", name="Keep the place")).to_be_enabled()
    said = page.get_by_text("on a phone,").inner_text()
    widths = [int(width) for width in re.findall(r"(\d+) on a", said)]
    assert len(widths) == 3, said
    assert min(widths) > 220, said


def test_one_points_by_keys_alone_and_leaves_by_escape(station: Station) -> None:
    page = station.page
    page.get_by_role("button", name="Point at a place").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="arrow keys move over the page")).to_be_focused()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowUp")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Keep the place")).to_be_visible()
    page.get_by_role("button", name="Cancel").click()
    page.get_by_role("button", name="Point at a place").click()
    page.keyboard.press("Escape")
    expect(page.get_by_role("heading", name="One place was pointed at.")).to_be_visible()


def test_a_selector_that_leads_to_none_or_cannot_be_read_is_told_where_it_was_written(station: Station) -> None:
    page = station.page
    page.get_by_role("button", name="Look at").first.click()
    by_hand = page.get_by_label("Selector by hand")
    by_hand.fill(".nowhere")
    by_hand.press("Tab")
    expect(page.get_by_text("▲ It holds on 0 of 5 pages that are meant")).to_be_visible()
    expect(page.get_by_text("“.nowhere” finds nothing here.").first).to_be_visible()
    by_hand.fill("p[")
    by_hand.press("Tab")
    expect(page.get_by_text("The selector 'p[' cannot be read")).to_be_visible()


# Other people's pages, and the browser's own engine.
PAGES = (
    "uikit/tests/card.html",
    "uikit/tests/navbar.html",
    "spectre.css/docs/elements/forms.html",
    "spectre.css/docs/components/menu.html",
    "picnic/docs/documentation.html",
    "typicons.font/src/font/demo.html",
)


@pytest.fixture(scope="module")
def blank(browser: Browser) -> Iterator[Page]:
    made = open_tab(browser, java_script_enabled=True)
    made.page.route("**/*", lambda route: route.abort())
    yield made.page
    made.context.close()


@pytest.mark.parametrize("file", PAGES)
def test_selectors_find_in_the_browser_just_what_the_core_says(blank: Page, file: str) -> None:
    """Reference: Chromium's own querySelectorAll on pages of open-source libraries that we did not write."""
    html = (HERE / file).read_text(errors="ignore")
    blank.set_content(html)
    # The tree as the browser has made it, of which each tag has a number.
    numbered = blank.evaluate(
        """() => { document.querySelectorAll('script,style,noscript,template').forEach(e => e.remove());
          [...document.body.querySelectorAll('*')].forEach((e, n) => e.setAttribute('data-index', n));
          return document.documentElement.outerHTML; }"""
    )
    page = PageRead(numbered)
    tags = [tag for tag in page.elements if tag.has_attr("data-index")]
    chance = random.Random(7)
    tried = made = 0
    for target in chance.sample(tags, min(30, len(tags))):
        here = target["data-index"]
        tried += 1
        for candidate in candidates(page, target):
            found: list[Any] = blank.evaluate(
                "css => [...document.querySelectorAll(css)].map(e => e.dataset.index)", candidate.selector
            )
            assert here in found, (candidate.selector, target.name)
            assert len(found) == candidate.count, candidate.selector
            assert candidate.each or found == [here]
            made += 1
    assert made > tried


# A strange shop, from nothing to a connection that was seen to work.


def test_a_shop_becomes_a_store_with_its_own_catalogue_and_connection(demo_shop: Stack, tab: Tab, origin: str) -> None:
    page = tab.page
    sign_in(tab, demo_shop)
    page.goto(demo_shop.at.studio)
    page.get_by_role("button", name="new store").click()
    page.get_by_role("button", name="Make the store").click()
    expect(page.get_by_text("origin must be the shop's address")).to_be_visible()
    page.get_by_label("Name of the shop").fill("Hedge Again")
    page.get_by_label("Address of the shop").fill(origin)
    assert barriers(page) == []
    page.get_by_role("button", name="Make the store").click()
    expect(page.get_by_label("Store: Hedge Again")).to_be_visible()
    page.get_by_role("button", name="Read it off the shop’s pages").click()
    sheet = page.get_by_role("dialog")
    expect(sheet.get_by_text("12 new")).to_be_visible()
    sheet.get_by_role("button", name="Import 12 products").click()
    expect(sheet.get_by_text("Taken in")).to_be_visible()
    page.keyboard.press("Escape")
    expect(sheet).to_have_count(0)
    expect(page.get_by_text("12 products in 2 categories")).to_be_visible()
    page.get_by_role("button", name="connection").click()
    sheet.get_by_role("button", name="Read it", exact=True).click()
    expect(sheet.get_by_text("A form sends to /basket/add by POST.")).to_be_visible()
    sheet.get_by_role("button", name="Try it").click()
    expect(sheet.get_by_text("It was added.")).to_be_visible()
    # What the form's own page does not show is found while one lies in the basket.
    sheet.get_by_role("button", name="Read it as JSON").click()
    expect(sheet.get_by_text("Something was changed since.")).to_be_visible()
    sheet.get_by_role("button", name="Try it").click()
    expect(sheet.get_by_text("Something was changed since.")).to_have_count(0)
    expect(sheet.get_by_text("It was taken out again.")).to_be_visible()
    sheet.get_by_role("button", name="Keep it").click()
    expect(sheet).to_have_count(0)
    with demo_shop.wiring.open_shop("hedge-again") as shop:
        kept = shop.store.connection
        assert (kept.kind, kept.product_field, kept.quantity_field) == ("form_post", "sku", "qty")
        assert kept.read is not None
        assert kept.read.kind == "json"
    # Its pages carry another store's line: the station says so instead of waiting.
    page.goto(f"{demo_shop.at.studio}/place")
    expect(page.get_by_text("The page does not answer.")).to_be_visible()


def test_reading_the_pages_is_stopped_and_what_was_read_is_looked_at(station: Station) -> None:
    page = station.page
    page.goto(page.url.replace("/place/points", "/"))
    page.get_by_role("button", name="Read it off the shop’s pages").click()
    # On a busy machine one may see it only a few products later.
    expect(page.get_by_text(re.compile(r"\b([3-9]|1\d) products so far"))).to_be_visible()
    page.get_by_role("button", name="Stop, and look at these").click()
    expect(page.get_by_role("dialog").get_by_text("What the shop’s pages tell")).to_be_visible()
