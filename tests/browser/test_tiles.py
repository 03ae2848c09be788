"""Rows of tiles that a place brings itself, and what a browser saw last, on the shops' own pages."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import pytest
from playwright.sync_api import Browser, Locator, Page, expect

from practice.row import ROW
from tests.browser.conftest import ADA, Drafted, Stack, Tab, barriers, open_tab, sign_in
from uptick.core.button.document import Device, Placement
from uptick.core.button.row import Row, Tile
from uptick.core.rules.pointed import Pages, PointedPlace, Where
from uptick.usecases import publish
from uptick.wiring import clock

pytestmark = pytest.mark.browser
KEY = "hedgerow"
SHELF = "up-place[data-up-row=tile]"
BEFORE = "up-place[data-up-row=strip]"
TILE = "[data-up-place=tile]"
KEPT = f"up.seen.{KEY}"
# All that has moved so far without anybody's press.
SHIFT = """new Promise(done => {
  let sum = 0;
  new PerformanceObserver(list => list.getEntries().forEach(e => { if (!e.hadRecentInput) sum += e.value }))
    .observe({ type: 'layout-shift', buffered: true });
  setTimeout(() => done(sum), 300);
})"""
WIDTHS = {Device.PHONE: 343, Device.TABLET: 720, Device.DESKTOP: 960}
Draws = Callable[[str, Row, str, str, Where], Page]


@dataclass
class Shop:
    page: Page
    origin: str

    def opens(self, path: str) -> Page:
        self.page.goto(self.origin + path)
        return self.page

    def basket(self) -> Any:
        return self.page.evaluate("fetch('/basket.json').then(a => a.json())")["items"]


@pytest.fixture
def hedgerow(demo_shop: Stack, tab: Tab) -> Shop:
    return Shop(tab.page, demo_shop.at.practice.replace("://", f"://{KEY}."))


@pytest.fixture
def draws(drafted: Drafted) -> Draws:
    """Return what brings a row in a shop's draft and opens a page with it."""

    def draw(key: str, row: Row, selector: str, path: str, where: Where) -> Page:
        place = PointedPlace(
            placement=Placement.TILE, selector=selector, where=where, pages=Pages(), widths_px=WIDTHS, row=row
        )
        return drafted(key, lambda was: was.model_copy(update={"pointed": {**was.pointed, "p9": place}}), path)

    return draw


def of(sku: str) -> str:
    return f"{TILE}[data-up-product={sku}]"


def filled(page: Page, which: str = SHELF) -> Locator:
    row = page.locator(f"{which}[data-up-filled]")
    row.wait_for(state="attached")
    row.scroll_into_view_if_needed()
    return row


def names(row: Locator) -> list[str]:
    told: list[str] = row.evaluate("row => [...row.shadowRoot.querySelectorAll('.n')].map(one => one.textContent)")
    return told


def test_tiles_tell_what_their_pages_tell_buy_it_and_lead_there(hedgerow: Shop, tab: Tab) -> None:
    page = hedgerow.opens("/")
    row = filled(page)
    goods = ROW[KEY].goods[1:4]
    assert names(row) == [item.name for item in goods]
    prices = row.evaluate("row => [...row.shadowRoot.querySelectorAll('.m')].map(one => one.textContent)")
    assert prices == [item.price_text for item in goods]
    page.locator(f"{of(goods[0].sku)} button.b").click()
    expect(page.locator(f"{of(goods[0].sku)} button.b")).to_have_attribute("data-moment", "added")
    assert [(line["sku"], line["quantity"]) for line in hedgerow.basket()] == [(goods[0].sku, 1)]
    # What is sold out says so and cannot be pressed.
    assert page.locator(f"{of('HV-POLY')} button.b").get_attribute("aria-disabled") == "true"
    assert barriers(page) == []
    row.locator(".p a").nth(1).click(position={"x": 20, "y": 20})
    page.wait_for_url(f"**/p/{goods[1].sku}")
    assert tab.told == []


def test_nothing_moves_once_a_row_stands_however_late_its_products_come(hedgerow: Shop, browser: Browser) -> None:
    page = hedgerow.page
    page.route("**/p/*", lambda route: (page.wait_for_timeout(400), route.continue_()))
    hedgerow.opens("/")
    page.locator(SHELF).wait_for(state="attached")
    page.wait_for_function(f"document.querySelector('{SHELF}').shadowRoot?.querySelector('li')")
    high = page.locator(SHELF).bounding_box()
    assert high is not None
    moved = page.evaluate(SHIFT)
    filled(page)
    page.locator(f"{TILE} button.b").first.wait_for()
    after = page.locator(SHELF).bounding_box()
    assert after is not None
    assert after["height"] == pytest.approx(high["height"], abs=1)
    assert page.evaluate(SHIFT) == moved


def test_a_product_whose_page_no_longer_tells_it_is_left_out_and_a_row_without_any_is_not_there(
    hedgerow: Shop,
) -> None:
    page = hedgerow.page
    page.route("**/p/HV-ROOF", lambda route: route.fulfill(status=404, body="gone"))
    hedgerow.opens("/")
    assert names(filled(page)) == [item.name for item in ROW[KEY].goods[2:4]]
    page.route("**/p/*", lambda route: route.fulfill(body="<title>Another shop</title>", content_type="text/html"))
    hedgerow.opens("/")
    page.locator(f"{SHELF}[data-up-kept=told]").wait_for(state="attached")
    assert page.locator(SHELF).evaluate("row => row.getBoundingClientRect().height") == 0


def test_what_was_seen_stands_in_its_order_without_the_page_itself_and_without_an_id(hedgerow: Shop) -> None:
    skus = [item.sku for item in ROW[KEY].goods]
    for sku in (*skus, skus[0]):
        page = hedgerow.opens(f"/p/{sku}")
        page.wait_for_function(f"localStorage['{KEPT}']?.includes('{sku}')")
    kept = page.evaluate(f"JSON.parse(localStorage['{KEPT}'])")
    # The newest first, each once, and twelve at most.
    assert [tile["sku"] for tile in kept] == [skus[0], *reversed(skus[1:])][:12]
    assert {name for tile in kept for name in tile} == {"sku", "path"}
    hedgerow.opens(f"/p/{skus[11]}")
    wanted = [skus[0], skus[10], skus[9], skus[8]]
    filled(page, BEFORE)
    assert (
        page.locator(f"{BEFORE} [data-up-product]").evaluate_all("all => all.map(e => e.dataset.upProduct)") == wanted
    )


def test_it_is_kept_for_the_visit_only_until_consent_is_given_and_forgotten_once_it_is_refused(
    hedgerow: Shop, browser: Browser
) -> None:
    page = hedgerow.page
    quiet = open_tab(browser)
    quiet.page.add_init_script(
        "new MutationObserver(() => document.documentElement?.removeAttribute('data-up-consent'))"
        ".observe(document, { childList: true })"
    )
    Shop(quiet.page, hedgerow.origin).opens("/p/HV-NUC6")
    quiet.page.wait_for_function(f"sessionStorage['{KEPT}']?.includes('HV-NUC6')")
    assert quiet.page.evaluate(f"localStorage['{KEPT}']") is None
    quiet.context.close()
    hedgerow.opens("/p/FW-SUPER")
    page.wait_for_function(f"localStorage['{KEPT}']?.includes('FW-SUPER')")
    page.evaluate("document.documentElement.dataset.upConsent = 'no'")
    page.wait_for_function(f"localStorage['{KEPT}'] === undefined && sessionStorage['{KEPT}'] === undefined")
    page.locator(f"{BEFORE}[data-up-kept='nothing seen']").wait_for(state="attached")


@pytest.mark.parametrize("junk", ["{", "7", "[null]", '[{"sku":"X","path":"//elsewhere.test/p"}]', '[{"sku":1}]'])
def test_what_somebody_else_wrote_there_is_passed_over(hedgerow: Shop, tab: Tab, junk: str) -> None:
    page = hedgerow.page
    page.add_init_script(f"if (self === top) localStorage[{KEPT!r}] = {junk!r}")
    asked: list[str] = []
    page.on("request", lambda request: asked.append(request.url))
    hedgerow.opens("/p/HV-NUC6")
    page.locator(f"{BEFORE}[data-up-kept]").wait_for(state="attached")
    assert not any("elsewhere" in url for url in asked)
    assert tab.told == []


def test_a_row_in_a_shop_with_a_hidden_word_sends_what_that_products_page_would(draws: Draws) -> None:
    sku, other = (goods.sku for goods in ROW["tollgate"].goods[:2])
    row = Row(products=(Tile(sku=other, path=f"/p/{other}"),))
    # Within the product's own form it would send that one's product.
    page = draws("tollgate", row, ".about form.buys", f"/p/{sku}", Where.INSIDE)
    filled(page)
    assert page.locator(SHELF).evaluate("row => row.closest('form')") is None
    with page.expect_request("**/cart/put") as sent:
        page.locator(f"{of(other)} button.b").click()
    assert "word=" in (sent.value.post_data or "")
    expect(page.locator(f"{of(other)} button.b")).to_have_attribute("data-moment", "added")
    lines = page.evaluate("fetch('/basket').then(a => a.text())")
    assert ROW["tollgate"].goods[1].name in lines
    assert ROW["tollgate"].goods[0].name not in lines


def test_a_refused_press_leads_to_the_products_page_where_no_button_of_the_shops_is(hedgerow: Shop) -> None:
    page = hedgerow.opens("/")
    filled(page)
    page.route("**/basket/add", lambda route: route.fulfill(status=403, body="no"))
    page.locator(f"{of('HV-ROOF')} button.b").click()
    note = page.locator(f"{of('HV-ROOF')} [data-up-note=refused]")
    expect(note).to_have_text("It was not added. Winter roof with cork lining")
    note.get_by_role("link").click()
    page.wait_for_url("**/p/HV-ROOF")


def test_a_row_shows_nothing_of_the_page_it_is_on(draws: Draws) -> None:
    skus = [goods.sku for goods in ROW["latterwax"].goods[:3]]
    row = Row(products=tuple(Tile(sku=sku, path=f"/p/{sku}") for sku in skus), anchor="bottom")
    page = draws("latterwax", row, "main", f"/p/{skus[0]}", Where.INSIDE)
    filled(page)
    assert page.locator(f"{SHELF} [data-up-product]").count() == 2
    # It lies within its picture.
    button = page.locator(f"{of(skus[1])} button.b")
    # Both at once: the page's own picture may come in between.
    top, bottom, picture_top, picture_bottom = button.evaluate(
        """b => [b, b.getRootNode().host.closest('up-place').shadowRoot.querySelector('.p')].flatMap(e => {
          const { top, bottom } = e.getBoundingClientRect(); return [top, bottom] })"""
    )
    assert picture_top < top
    assert bottom == pytest.approx(picture_bottom - 10, abs=1)


def test_a_row_is_pointed_at_in_the_studio_and_made_again_for_another_product(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    sign_in(tab, demo_shop)
    page.add_init_script("if (self === top) localStorage['uptick.store'] = 'footpath'")
    page.goto(f"{demo_shop.at.studio}/place/points?point=1")
    page.get_by_label("What the place is for").click()
    page.get_by_role("option", name="tiles, which bring their pictures").click()
    keys = page.get_by_role("button", name="While this is marked")
    keys.focus()
    keys.press("Enter")
    row = page.get_by_role("region", name="What it brings")
    expect(row.get_by_role("listitem")).to_have_count(4, timeout=30_000)
    keep = page.get_by_role("button", name="Keep the place")
    row.get_by_label("Heading of the row").fill("Along the path")
    row.get_by_label("Heading of the row").blur()
    expect(keep).to_be_enabled(timeout=60_000)
    for _ in range(3):
        row.get_by_role("button", name="Remove").first.click()
    expect(row.get_by_role("listitem")).to_have_count(1)
    expect(keep).to_be_enabled(timeout=60_000)
    assert barriers(page) == []
    keep.press("Enter")
    expect(page.get_by_role("heading", name="One place was pointed at.")).to_be_visible()
    with demo_shop.wiring.open_shop("footpath") as shop:
        (place,) = shop.drafts.read().settings.pointed.values()
        assert place.row is not None
        assert place.row.heading == {"en-GB": "Along the path"}
        assert place.row.products[0].path == f"/p/{place.row.products[0].sku}"
        version = shop.drafts.read().version
    page.get_by_role("button", name="again for another product").press("Enter")
    row.get_by_label("Product:").first.click()
    page.get_by_role("option").nth(3).click()
    expect(keep).to_be_enabled(timeout=60_000)
    keep.press("Enter")
    expect(page.get_by_role("heading", name="2 places were pointed at.")).to_be_visible()
    with demo_shop.wiring.open_shop("footpath") as shop:
        draft = shop.drafts.read()
        first, second = draft.settings.pointed.values()
        assert first.row is not None
        assert second.row is not None
        assert first.row.products[0].sku != second.row.products[0].sku
        assert draft.version == version + 1
        bare = draft.settings.model_copy(update={"pointed": {}})
        shop.drafts.append(draft.version, bare, "as it was", ADA, clock())


def test_what_a_tiles_button_hides_of_its_picture_is_told_in_place(demo_shop: Stack, tab: Tab) -> None:
    with demo_shop.wiring.open_shop(KEY) as shop:
        draft = shop.drafts.read()
        place = draft.settings.pointed["p2"]
        assert place.row is not None
        middle = place.model_copy(update={"row": place.row.model_copy(update={"anchor": "middle"})})
        settings = draft.settings.model_copy(update={"pointed": {**draft.settings.pointed, "p2": middle}})
        shop.drafts.append(draft.version, settings, "in the middle", ADA, clock())
    page = tab.page
    sign_in(tab, demo_shop)
    page.add_init_script(f"if (self === top) localStorage['uptick.store'] = '{KEY}'")
    page.goto(f"{demo_shop.at.studio}/place")
    page.get_by_label("Page:").click()
    page.get_by_role("option", name="front page").click()
    hides = page.get_by_role("region", name="Findings along the page").locator("[data-rule=hides]")
    expect(hides).to_contain_text("The button hides the middle of what is shown", timeout=20_000)
    expect(hides).to_contain_text("Free is: ")
    with demo_shop.wiring.open_shop(KEY) as shop:
        shop.drafts.append(shop.drafts.read().version, draft.settings, "as it was", ADA, clock())


def test_a_shop_with_rows_alone_finds_them_once_its_buttons_stand(demo_shop: Stack, tab: Tab) -> None:
    sku = ROW["footpath"].goods[1].sku
    place = PointedPlace(
        placement=Placement.TILE, selector="main > h1", where=Where.AFTER, widths_px=WIDTHS,
        row=Row(products=(Tile(sku=sku, path=f"/p/{sku}"),)),
    )  # fmt: skip
    with demo_shop.wiring.open_shop("footpath") as shop:
        was = shop.drafts.read()
        changed = was.settings.model_copy(update={"pointed": {"p1": place}})
        shop.drafts.append(was.version, changed, "a row", ADA, clock())
    with demo_shop.wiring.open_shop("footpath") as shop:
        publish.publish(shop, "A row", ADA, clock(), ("findings",))
    page = tab.page
    # Also where no other button of ours is.
    for path in ("/", "/basket"):
        page.goto(f"{demo_shop.at.practice.replace('://', '://footpath.')}{path}")
        filled(page)
        assert names(page.locator(SHELF)) == [ROW["footpath"].goods[1].name]
    assert "UpFind" not in page.evaluate(f"fetch('{demo_shop.at.edge}/s/footpath/up.js').then(a => a.text())")
    assert tab.told == []
    with demo_shop.wiring.open_shop("footpath") as shop:
        shop.drafts.append(shop.drafts.read().version, was.settings, "as it was", ADA, clock())
    with demo_shop.wiring.open_shop("footpath") as shop:
        publish.publish(shop, "As before", ADA, clock(), ("findings",))
