"""What a press opens on the practice shops' own pages: the basket, a choice in a list, and a closer look."""

import re
import time
from typing import Any

import httpx2
import pytest
from playwright.sync_api import Browser, Locator, Page, Route, expect

from ops import demo, demo_row
from practice.row import ROW
from tests.browser.conftest import Drafted, Stack, Tab, barriers, open_tab, sign_in
from uptick.core.button.document import Placement
from uptick.core.button.merge import Json, merge_layer
from uptick.core.rules.settings import Settings
from uptick.core.shop.connection import VariantsJson

pytestmark = pytest.mark.browser
SHEET = "[data-up-sheet]"


def shop_at(stack: Stack, key: str, path: str) -> str:
    return stack.at.practice.replace("://", f"://{key}.") + path


def ours(page: Page, placement: str = "product_page") -> Locator:
    return page.locator(f"body > :not({SHEET}) [data-up-place={placement}] [data-up-button] button.b")


def in_sheet(page: Page) -> Locator:
    """Return the button of ours that stands on the sheet."""
    return page.locator(f"{SHEET} [data-up-button] button.b")


def focused(page: Page) -> str:
    """Return what has the focus, however deep it is: its name, or what it says."""
    return str(
        page.evaluate(
            """() => {
                let at = document.activeElement;
                while (at?.shadowRoot?.activeElement) at = at.shadowRoot.activeElement;
                return at?.ariaLabel || at?.innerText || at?.value || at?.tagName;
            }"""
        )
    )


def with_layers(**placements: Json) -> Any:
    """Return what lays more over a draft's placements; `baseline` is the store's own layer."""

    def change(settings: Settings) -> Settings:
        baseline = merge_layer(settings.baseline, placements.get("baseline", {}))
        own = {
            place: merge_layer(settings.placements.get(place, {}), placements.get(place.value, {}))
            for place in {*settings.placements, *(Placement(name) for name in placements if name != "baseline")}
        }
        return settings.model_copy(update={"baseline": baseline, "placements": own})

    return change


SHOWS: Json = {"afterwards": {"kind": "show", "free_from": 60}}
CLOSER: Json = {
    "kind": "closer", "side": "under", "wording": {"en-GB": "Look closer"}, "border": {"kind": "none"}, "radius": 0,
    "padding": {"top": 8, "right": 8, "bottom": 8, "left": 8},
}  # fmt: skip


def test_a_press_shows_the_basket_which_is_changed_there(drafted: Drafted) -> None:
    page = drafted("scullion", with_layers(baseline=SHOWS), "/p/HV-NUC6")
    ours(page).click()
    basket = page.get_by_role("dialog", name="Your basket (1)")
    expect(basket).to_be_visible()
    # In pence the shop tells it, with names of its own.
    expect(basket.get_by_role("listitem")).to_contain_text("Six-frame nucleus box")
    expect(basket.get_by_role("listitem")).to_contain_text("£64.50")
    expect(basket).to_contain_text("Delivery is free.")
    expect(basket.locator("img")).to_have_js_property("naturalWidth", 200)
    assert barriers(page) == []
    basket = page.get_by_role("dialog")
    many = basket.get_by_role("spinbutton", name="Quantity, Six-frame nucleus box")
    many.focus()
    page.keyboard.press("ArrowUp")
    page.keyboard.press("Enter")
    page.keyboard.press("Tab")
    expect(basket.get_by_text("£129.00").first).to_be_visible()
    expect(page.locator(".tally").first).to_have_text("2")
    expect(ours(page)).to_have_text(re.compile("^2 put by"))
    # The page behind is out of reach, for the keyboard as well, and does not scroll.
    assert page.evaluate("getComputedStyle(document.documentElement).overflow") == "hidden"
    for _ in range(12):
        page.keyboard.press("Tab")
        assert page.evaluate(f"!document.activeElement || document.activeElement.matches('{SHEET}, body')")
    page.keyboard.press("Escape")
    expect(page.locator(SHEET)).to_have_count(0)
    assert focused(page).startswith("2 put by")
    assert page.evaluate("getComputedStyle(document.documentElement).overflow") == "visible"


def test_a_line_that_the_shop_does_not_take_back_is_said_to_be_gone(drafted: Drafted) -> None:
    page = drafted("scullion", with_layers(baseline=SHOWS), "/p/HV-NUC6")
    ours(page).click()
    basket = page.get_by_role("dialog")
    basket.get_by_role("button", name="Remove: Six-frame nucleus box").press("Enter")
    expect(basket.get_by_text("Six-frame nucleus box is taken out.")).to_be_visible()
    expect(page.locator(".tally").first).to_have_text("0")
    assert focused(page) == "Undo: Six-frame nucleus box"
    expect(basket.get_by_role("link", name="To the checkout")).to_be_hidden()
    # This shop knows lines by numbers that are gone with them: what it answers is said, and nothing is pretended.
    page.keyboard.press("Enter")
    expect(basket.get_by_role("status")).to_have_text("The shop did not take that.")
    expect(basket.get_by_text("Six-frame nucleus box is taken out.")).to_be_visible()
    expect(page.locator(".tally").first).to_have_text("0")


def test_lines_come_back_by_undo_and_what_delivery_costs_follows(drafted: Drafted) -> None:
    shows: Json = {"kind": "show", "where": "middle", "free_from": 80}
    page = drafted(demo.KEY, with_layers(baseline={"afterwards": shows}), "/p/TL-SMOKER")
    page.request.post(f"{page.url.partition('/p/')[0]}/basket/empty")
    page.request.post(
        f"{page.url.partition('/p/')[0]}/basket/add", form={"sku": "JV-JACKET", "option": "Large", "qty": "1"}
    )
    page.reload()
    ours(page).click()
    basket = page.get_by_role("dialog")
    # By product and by choice, once each.
    expect(basket.get_by_role("listitem")).to_have_text(
        [re.compile("Vented jacket, Large.*£119.00"), re.compile("Copper smoker.*£42.00")]
    )
    expect(basket).to_contain_text("Delivery is free.")
    basket.get_by_role("button", name="Remove: Vented jacket, Large").click()
    expect(basket).to_contain_text("£38.00 more and delivery is free.")
    expect(page.locator("[data-basket-count]")).to_have_text("1")
    basket.get_by_role("button", name="Undo: Vented jacket, Large").click()
    expect(basket).to_contain_text("Delivery is free.")
    expect(basket.get_by_role("listitem")).to_have_count(2)
    expect(page.locator("[data-basket-count]")).to_have_text("2")
    assert basket.get_by_role("link", name="To the basket").get_attribute("href") == "/basket"
    assert basket.get_by_role("link", name="To the checkout").get_attribute("href") == "/checkout"
    # The store keeps at most 200 of a thing: it is said, and the number is the shop's again.
    many = basket.get_by_role("spinbutton", name="Quantity, Copper smoker")
    many.fill("500")
    many.press("Tab")
    expect(basket.get_by_role("status")).to_have_text("The shop did not take that.")
    expect(basket.get_by_role("spinbutton", name="Quantity, Copper smoker")).to_have_value("1")
    page.keyboard.press("Escape")
    page.goto(page.url.partition("?")[0].replace("/p/TL-SMOKER", "/checkout"))
    expect(page.get_by_role("main")).to_contain_text("161.00")


def test_a_basket_whose_lines_nobody_tells_is_shown_by_its_count(drafted: Drafted) -> None:
    page = drafted("tollgate", with_layers(baseline={"afterwards": {"kind": "show"}}), "/p/HV-NUC6")
    ours(page).click()
    basket = page.get_by_role("dialog", name="Your basket (1)")
    expect(basket.get_by_role("link", name="To the basket")).to_be_visible()
    expect(basket.get_by_role("listitem")).to_have_count(0)
    assert barriers(page) == []


def test_one_page_that_never_loads_again_shows_its_basket_too(drafted: Drafted) -> None:
    page = drafted("driftcomb", with_layers(baseline={"afterwards": {"kind": "show"}}), "/p/HV-NUC6")
    expect(ours(page)).to_be_visible()
    page.get_by_role("link", name="Winter roof with cork lining").first.click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Winter roof with cork lining")
    ours(page).click()
    basket = page.get_by_role("dialog", name="Your basket (1)")
    # This connection names no names: a line is called by its code.
    expect(basket.get_by_role("listitem")).to_contain_text("HV-ROOF")
    expect(basket.get_by_role("spinbutton")).to_have_count(0)
    basket.get_by_role("button", name="Go on shopping").click()
    # The button goes on from saying that something was added.
    expect(ours(page)).to_have_text(re.compile("^1 put by"))
    assert focused(page).startswith("1 put by")


def test_a_choice_is_made_on_the_card_by_keyboard(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    page.goto(shop_at(demo_shop, "veilrow", "/"))
    card = ours(page, "listing_card").nth(1)
    expect(card).to_have_text(re.compile("^Choose a kind"))
    card.press("Enter")
    sheet = page.get_by_role("dialog", name="Open mesh floor")
    expect(sheet.get_by_role("radiogroup").or_(sheet.get_by_role("group", name="Frame standard"))).to_be_visible()
    expect(page.locator(f"{SHEET} input[type=radio]").first).to_be_focused()
    assert barriers(page) == []
    # Over its own card, and as wide.
    at = sheet.bounding_box()
    under = page.locator(".card").nth(1).bounding_box()
    assert at is not None
    assert under is not None
    assert abs(at["x"] - under["x"]) <= 1
    assert abs(at["width"] - under["width"]) <= 1
    # Too early: it leads to the choice, and nothing is sent.
    in_sheet(page).press("Enter")
    expect(page.locator(f"{SHEET} input[type=radio]").first).to_be_focused()
    page.keyboard.press("ArrowDown")
    expect(in_sheet(page)).to_have_text(re.compile("^Put it by"))
    in_sheet(page).press("Enter")
    # It is heard on the sheet: the page's own region is out of reach.
    expect(page.get_by_role("dialog").get_by_role("status")).to_have_text("It is put by, Open mesh floor")
    expect(page.locator(".tally").first).to_have_text("1")
    expect(page.locator(SHEET)).to_have_count(0)
    assert focused(page).startswith("Choose a kind")
    told = page.evaluate("fetch('/basket.json').then((answer) => answer.json())")
    assert told["items"] == [{"sku": "HV-FLOOR", "option": "Langstroth", "quantity": 1}]


def test_what_is_sold_out_among_choices_is_said_and_the_price_follows(drafted: Drafted) -> None:
    says = {"ready": {"en-GB": "Put it by, {price}"}}
    page = drafted("monogram", with_layers(listing_card={"wording": says}), "/")
    jacket = page.locator("[data-card=JV-JACKET] [data-up-button] button.b")
    jacket.click()
    sheet = page.get_by_role("dialog", name="Vented jacket")
    gone = sheet.get_by_role("radio", name="Small (sold out)")
    gone.check()
    sheet.get_by_role("radio", name="Oiled").check()
    expect(in_sheet(page)).to_have_attribute("data-moment", "sold_out")
    in_sheet(page).click(force=True)
    sheet.get_by_role("radio", name="Large").check()
    expect(in_sheet(page)).to_have_text(re.compile("^Put it by, £119.00"))
    page.keyboard.press("Escape")
    suit = page.locator("[data-card=JV-SUIT] [data-up-button] button.b")
    suit.click()
    sheet = page.get_by_role("dialog", name="Full suit in cotton")
    expect(sheet.get_by_text("£94.00")).to_be_visible()
    sheet.get_by_role("radio", name="Extra large").check()
    sheet.get_by_role("radio", name="Painted").check()
    # In the sheet and on its button.
    expect(sheet.get_by_text("£104.00", exact=True)).to_be_visible()
    expect(in_sheet(page)).to_have_text(re.compile("^Put it by, £104.00"))
    in_sheet(page).click()
    # The choice makes room for the basket, which comes from the same answer.
    basket = page.get_by_role("dialog", name="Your basket (1)")
    expect(basket.get_by_role("listitem")).to_contain_text("Full suit in cotton, Extra large, Painted")
    expect(basket).to_contain_text("£16.00 more and delivery is free.")
    expect(page.locator(SHEET)).to_have_count(1)
    expect(page.locator(".tally").first).to_have_text("1")
    page.keyboard.press("Escape")
    expect(page.locator(SHEET)).to_have_count(0)
    assert focused(page).startswith("Choose a kind")
    told = page.evaluate("fetch('/bag.json').then((answer) => answer.json())")
    # What nobody could add is not there.
    assert [line["with"] for line in told["bag"]["lines"]] == [{"size": "Extra large", "finish": "Painted"}]


def test_a_closer_look_goes_on_to_the_next_and_buys(drafted: Drafted) -> None:
    asked: list[str] = []
    page = drafted("ribbon", with_layers(listing_card={"second": CLOSER}), "/")
    card = page.locator("[data-up-place=listing_card] [data-up-button]").nth(2)
    expect(card.locator("button.s")).to_be_visible()
    page.on("request", lambda request: asked.append(request.url))
    # It is fetched while the pointer rests on it.
    with page.expect_response(re.compile(r"/p/")):
        card.locator("button.s").hover()
    card.locator("button.s").click()
    sheet = page.get_by_role("dialog", name="Oak hive stand")
    expect(sheet.get_by_text("Four pegged legs")).to_be_visible()
    assert barriers(page) == []
    # What leads here is not there again.
    expect(page.locator(f"{SHEET} [data-up-button] button.s")).to_be_hidden()
    assert sheet.get_by_role("link", name="To its own page").get_attribute("href") == "/p/HV-STAND"
    sheet.get_by_role("button", name="The next one").click()
    expect(page.get_by_role("dialog", name="Warm-walled hive")).to_be_visible()
    assert focused(page) == "Warm-walled hive"
    # Sold out never reaches a basket.
    expect(in_sheet(page)).to_have_attribute("aria-disabled", "true")
    in_sheet(page).click(force=True)
    page.get_by_role("dialog").get_by_role("button", name="The one before").click()
    expect(page.get_by_role("dialog", name="Oak hive stand")).to_be_visible()
    in_sheet(page).click()
    expect(in_sheet(page)).to_have_text(re.compile("^It is put by"))
    expect(page.locator(".tally").first).to_have_text("1")
    page.keyboard.press("Escape")
    expect(page.locator(SHEET)).to_have_count(0)
    assert focused(page) == "Look closer"
    pages = [url for url in asked if "/p/" in url]
    assert len(pages) == len(set(pages))


def test_the_picture_follows_the_choice(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    page.goto(shop_at(demo_shop, "veilrow", "/"))
    page.locator("[data-card=JV-SUIT] [data-up-button] button.s").click()
    sheet = page.get_by_role("dialog", name="Full suit in cotton")
    shown = sheet.locator("img")
    expect(shown).to_have_attribute("src", re.compile(r"/pictures/JV-SUIT\.svg$"))
    sheet.get_by_role("radio", name="Extra large").check()
    expect(shown).to_have_attribute("src", re.compile(r"/pictures/JV-SUIT\.svg\?kind=4$"))
    expect(shown).to_have_js_property("complete", True)
    # The next product begins with its own.
    sheet.get_by_role("button", name="The next one").click()
    expect(page.get_by_role("dialog").locator("img")).to_have_attribute("src", re.compile(r"\.svg$"))


def test_what_ran_out_between_showing_and_pressing_is_said(demo_shop: Stack, tab: Tab) -> None:
    page, at = tab.page, demo_shop.at
    page.goto(f"{at.practice}/p/TL-BRUSH")
    expect(ours(page)).to_have_attribute("data-moment", "ready")
    page.request.post(f"{at.practice}/shelf/TL-BRUSH/empty")
    ours(page).click()
    expect(page.locator("[data-up-note=refused]")).to_contain_text("It was not added.")
    expect(page.locator("[data-basket-count]")).to_have_text("0")
    page.request.post(f"{at.practice}/shelf/TL-BRUSH/full")


def test_another_tab_fills_the_basket_and_the_count_is_right_in_both(demo_shop: Stack, browser: Browser) -> None:
    first = open_tab(browser)
    page = first.page
    page.goto(f"{demo_shop.at.practice}/p/TL-HOOK")
    expect(ours(page)).to_have_attribute("data-moment", "ready")
    other = first.context.new_page()
    other.goto(f"{demo_shop.at.practice}/p/TL-HOOK")
    ours(other).click()
    expect(ours(other)).to_have_attribute("data-moment", "in_basket")
    # The first one is looked at again.
    page.bring_to_front()
    page.evaluate("document.dispatchEvent(new Event('visibilitychange', { bubbles: true }))")
    expect(ours(page)).to_have_attribute("data-moment", "in_basket")
    expect(page.locator("[data-basket-count]")).to_have_text("1")
    # And by the back button, after the other one went on.
    other.goto(f"{demo_shop.at.practice}/c/everything")
    page.evaluate("fetch('/basket/empty', { method: 'POST' })")
    other.go_back()
    expect(ours(other)).to_have_attribute("data-moment", "ready")
    first.context.close()


def test_kinds_may_be_told_by_an_address_of_the_shops(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    usual = demo_row.connection_of(ROW["veilrow"])
    kinds = VariantsJson(
        path="/kinds/{product}", items="kinds", product="code", options=("as.kind",), price="pence", smallest=True,
        available="left",
    )  # fmt: skip
    with demo_shop.wiring.open_shop("veilrow") as shop:
        shop.side.connect(usual.model_copy(update={"variants": kinds}))
    try:
        # Nothing of it is in the page's data.
        bare = page_of(demo_shop, "veilrow", "/p/JV-SUIT").replace("hasVariant", "somethingElse")
        page.route("**/p/JV-SUIT", lambda route: route.fulfill(body=bare, content_type="text/html"))
        page.goto(shop_at(demo_shop, "veilrow", "/"))
        page.locator("[data-card=JV-SUIT] [data-up-button] button.b").click()
        sheet = page.get_by_role("dialog", name="Full suit in cotton")
        sheet.get_by_role("radio", name="Extra large").check()
        expect(sheet.get_by_text("£104.00", exact=True)).to_be_visible()
    finally:
        with demo_shop.wiring.open_shop("veilrow") as shop:
            shop.side.connect(usual)


def page_of(stack: Stack, key: str, path: str) -> str:
    """Return a page of a shop of the row; its name is one that only browsers know."""
    at = stack.at.practice.replace("localhost", "127.0.0.1")
    return httpx2.get(f"{at}{path}", headers={"Host": f"{key}.localhost"}).text


def test_a_slow_page_is_opened_once_however_often_it_is_pressed(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    page.goto(shop_at(demo_shop, "veilrow", "/"))
    card = ours(page, "listing_card").first
    expect(card).to_be_visible()
    page.route("**/p/*", lambda route: (page.wait_for_timeout(900), route.continue_()))
    card.click()
    card.click(delay=50)
    expect(page.locator(SHEET)).to_have_count(1)
    page.keyboard.press("Escape")
    expect(page.locator(SHEET)).to_have_count(0)


def test_a_page_that_cannot_be_read_is_gone_to(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    page.goto(shop_at(demo_shop, "veilrow", "/"))
    expect(ours(page, "listing_card").first).to_be_visible()
    page.route(
        "**/p/*", lambda route: route.abort() if route.request.resource_type in ("fetch", "xhr") else route.continue_()
    )
    ours(page, "listing_card").first.click()
    page.wait_for_url(re.compile("/p/"))


def test_on_a_phone_a_sheet_comes_from_the_lower_edge(drafted: Drafted) -> None:
    phone = {"viewport": {"width": 375, "height": 667}, "reduced_motion": "reduce"}
    page = drafted("scullion", with_layers(baseline=SHOWS), "/p/HV-NUC6", **phone)
    ours(page).click()
    dialog = page.get_by_role("dialog")
    expect(dialog).to_be_visible()
    box = dialog.bounding_box()
    assert box
    assert (box["x"], box["width"], box["y"] + box["height"]) == (0, 375, 667)
    assert dialog.evaluate("(at) => getComputedStyle(at).animationName") == "none"


def test_a_hostile_theme_moves_nothing_on_a_sheet(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    page.goto(shop_at(demo_shop, "veilrow", "/"))
    expect(ours(page, "listing_card").first).to_be_visible()
    # Rules of a theme that means its own dialogs, forms and boxes; those that have no form of ours in them stay.
    theme = """
        dialog, [role=dialog] { display: none !important; } label, legend, h2 { font-size: 40px !important; }
        form { display: none !important; float: left !important; width: 50px !important; padding: 90px !important; }
        [data-up-place] { margin: 70px !important; border: 9px solid red !important; }
    """
    page.evaluate("theme => { const own = new CSSStyleSheet(); own.replaceSync(theme); window.theme = own; }", theme)
    page.locator("[data-card=JV-SUIT] [data-up-button] button.b").click()
    sheet = page.get_by_role("dialog", name="Full suit in cotton")

    def drawn() -> list[float]:
        """Return how large the sheet and its button are, and where on the sheet that stands."""
        whole, button = sheet.bounding_box(), in_sheet(page).bounding_box()
        assert whole is not None
        assert button is not None
        sizes = [box[side] for box in (whole, button) for side in ("width", "height")]
        return [*sizes, button["x"] - whole["x"], button["y"] - whole["y"]]

    before = drawn()
    page.evaluate("document.adoptedStyleSheets.push(window.theme)")
    page.wait_for_timeout(300)
    # The page itself is moved by it, and with it the card that the sheet lies over.
    assert drawn() == before


def test_what_a_press_opens_is_said_and_drawn_in_draw(demo_shop: Stack, drafted: Drafted) -> None:
    # The draft comes back as it was.
    page = drafted(demo.KEY, lambda settings: settings, "/p/TL-SMOKER")
    page.goto(f"{demo_shop.at.studio}/draw/product_page?product=TL-SMOKER")
    page.get_by_label("Afterwards:").click()
    page.get_by_role("option", name="sees the basket").click()
    expect(page.get_by_role("img", name="The basket shown: Your basket (2)")).to_be_visible()
    page.get_by_label("Where the basket is shown:").click()
    page.get_by_role("option", name="in the middle").click()
    own = page.get_by_label("Heading of the basket")
    own.fill("In your skep")
    own.press("Tab")
    drawn = page.get_by_role("img", name="The basket shown: In your skep (2)")
    expect(drawn).to_be_visible()
    pays = page.get_by_label("Way to the checkout")
    pays.fill("Pay")
    pays.press("Tab")
    expect(drawn.locator(".b")).to_have_text("Pay")
    wide = page.get_by_label("sheet width, px")
    wide.fill("300")
    wide.press("Tab")
    expect(drawn.locator("dialog")).to_have_css("width", "300px")
    wide.fill("9000")
    wide.press("Tab")
    expect(page.get_by_title("sheet width must be from 280 to 720 px")).to_be_visible()
    page.get_by_label("Choosing in a list:").click()
    page.get_by_role("option", name="on a sheet over its card").click()
    expect(page.get_by_role("img", name="A choice: Copper smoker")).to_be_visible()
    page.get_by_role("button", name="say from when").click()
    expect(drawn).to_contain_text("Delivery is free.")
    assert barriers(page) == []


def test_how_a_line_is_changed_is_said_in_the_connection(demo_shop: Stack, tab: Tab) -> None:
    page = tab.page
    sign_in(tab, demo_shop)
    page.add_init_script("if (self === top) localStorage['uptick.store'] = 'scullion'")
    page.goto(demo_shop.at.studio)
    page.get_by_role("button", name="connection").click()
    sheet = page.get_by_role("dialog")
    expect(sheet.get_by_label("Name of a line’s amount")).to_have_value("pence")
    expect(sheet.get_by_label("Unit of amounts:")).to_contain_text("in the smallest unit")
    expect(sheet.get_by_label("Address of a change")).to_have_value("/api/counter/lines/{line}")
    body = sheet.get_by_label("Body of a change")
    body.fill("{qty")
    body.press("Tab")
    expect(sheet.get_by_role("alert")).to_contain_text("That is no JSON")
    body.fill('{"amount": 1}')
    body.press("Tab")
    sheet.get_by_role("button", name="Keep it").click()
    expect(page.get_by_text("put {quantity} where that belongs")).to_be_visible()
    sheet.get_by_role("button", name="Say an address that tells it").click()
    expect(sheet.get_by_label("Address of a product’s kinds")).to_have_value("/kinds/{product}")


class ByPlace:
    """A basket whose lines have no name but their place in the list, and which answers slowly."""

    def __init__(self, page: Page, *codes: str) -> None:
        self.lines = [{"code": code, "qty": 1} for code in codes]
        self.asked: list[str] = []
        page.route("**/api/counter", lambda route: route.fulfill(json=self.told()))
        page.route("**/api/counter/lines", lambda route: route.fulfill(json=self.told()))
        page.route("**/api/counter/lines/*", self._change)

    def told(self) -> Json:
        lines = [
            {**line, "id": n, "label": {"title": f"Thing {line['code']}"}, "pence": 100}
            for n, line in enumerate(self.lines)
        ]
        return {"counter": {"pieces": sum(line["qty"] for line in self.lines), "lines": lines, "pence": 300}}

    def _change(self, route: Route) -> None:
        place = int(route.request.url.rpartition("/")[2])
        many = int(route.request.post_data_json["qty"])
        self.asked.append(f"{self.lines[place]['code']} {many}")
        if many:
            self.lines[place]["qty"] = many
        else:
            del self.lines[place]
        time.sleep(0.25)
        route.fulfill(json=self.told())


def test_a_line_named_by_its_place_is_taken_out_once_however_often_it_is_pressed(drafted: Drafted) -> None:
    page = drafted("scullion", with_layers(baseline=SHOWS), "/p/HV-NUC6")
    shop = ByPlace(page, "HV-NUC6", "B", "C")
    page.reload()
    # The press is answered with a basket that is one fuller.
    shop.lines[0]["qty"] = 1
    page.unroute("**/api/counter/lines")
    page.route("**/api/counter/lines", lambda route: (shop.lines[0].update(qty=2), route.fulfill(json=shop.told())))
    ours(page).click()
    basket = page.get_by_role("dialog")
    remove = basket.get_by_role("button", name="Remove: Thing HV-NUC6")
    remove.evaluate("button => { button.click(); button.click(); button.click() }")
    expect(basket.get_by_role("listitem")).to_contain_text(["taken out", "Thing B", "Thing C"])
    page.wait_for_timeout(600)
    assert shop.asked == ["HV-NUC6 0"]
    # Its name is another line's by now: putting it back would change that one.
    expect(basket.get_by_role("button", name="Undo: Thing HV-NUC6")).to_have_count(0)
    # Two lines at once: each is changed where it lies once the other has gone.
    basket.get_by_role("button", name="Remove: Thing B").evaluate(
        """(first, name) => { const field = [...first.getRootNode().querySelectorAll('input')]
            .find(field => field.ariaLabel.includes(name)); first.click();
            field.value = '5'; field.dispatchEvent(new Event('change')) }""",
        "Thing C",
    )
    expect(basket.get_by_role("spinbutton", name="Quantity, Thing C")).to_have_value("5")
    page.wait_for_timeout(300)
    assert shop.asked == ["HV-NUC6 0", "B 0", "C 5"]
