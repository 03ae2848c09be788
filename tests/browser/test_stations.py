"""The stations as a person meets them: nothing that keeps anybody out, and every way by keyboard."""

import re
from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, Route, expect

from tests.browser.conftest import Stack, Tab, barriers, open_tab, sign_in
from tests.usecases.fakes import ADA
from uptick.core.rules.reach import Reach
from uptick.usecases.edit import Wish, add_exception, change_layer
from uptick.wiring import clock

pytestmark = pytest.mark.browser
STATIONS = {
    "/": "Findings",
    "/draw/product_page": "Specification",
    "/draw/listing_card": "Specification",
    "/words": "Why these words",
    "/release": "Ledger",
    "/trials": "Trials",
    "/trials/1": "How far to trust it",
    "/nowhere": "",
}


@pytest.fixture
def studio(demo_shop: Stack, browser: Browser) -> Iterator[Tab]:
    tab = open_tab(browser, color_scheme="light")
    sign_in(tab, demo_shop)
    yield tab
    tab.context.close()


@pytest.mark.parametrize("path", STATIONS)
def test_a_station_keeps_nobody_out(demo_shop: Stack, studio: Tab, path: str) -> None:
    studio.page.goto(demo_shop.at.studio + path)
    heading = STATIONS[path]
    if heading:
        expect(studio.page.get_by_role("heading", name=heading).first).to_be_visible()
    studio.page.wait_for_load_state("networkidle")
    assert barriers(studio.page) == []
    assert studio.told == []
    # Nothing is cut off sideways at the smallest window that the studio is made for.
    assert studio.page.evaluate("document.documentElement.scrollWidth <= innerWidth")


def test_the_door_and_the_shop_keep_nobody_out(demo_shop: Stack, tab: Tab) -> None:
    tab.page.goto(demo_shop.at.studio)
    expect(tab.page.get_by_role("button", name="Sign in")).to_be_visible()
    assert barriers(tab.page) == []
    for path in ("/", "/c/everything", "/p/HV-CEDAR", "/shoppers"):
        tab.page.goto(demo_shop.at.practice + path)
        tab.page.wait_for_load_state("networkidle")
        assert barriers(tab.page) == [], path


def test_stations_are_walked_by_number_and_the_keys_can_be_turned_off(demo_shop: Stack, studio: Tab) -> None:
    page = studio.page
    page.goto(demo_shop.at.studio)
    expect(page.get_by_role("heading", name="Findings")).to_be_visible()
    for key, path in (
        ("2", "/draw"),
        ("3", "/words"),
        ("4", "/place"),
        ("5", "/release"),
        ("6", "/trials"),
        ("1", "/"),
    ):
        page.keyboard.press(key)
        page.wait_for_url(f"{demo_shop.at.studio}{path}*")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_be_visible()
    page.get_by_role("dialog").get_by_role("checkbox").uncheck()
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_be_hidden()
    page.keyboard.press("3")
    page.wait_for_timeout(200)
    assert page.url == f"{demo_shop.at.studio}/"


def test_a_mistyped_number_says_what_is_allowed_and_changes_nothing(demo_shop: Stack, studio: Tab) -> None:
    page = studio.page
    page.goto(f"{demo_shop.at.studio}/draw/product_page")
    size = page.get_by_label("type size, px")
    for typed in ("900", "large"):
        size.fill(typed)
        size.press("Enter")
        expect(page.get_by_role("alert").filter(has_text="8 to 72")).to_be_visible()
    size.press("Escape")
    expect(size).to_have_value("16")


def test_two_designers_do_not_overwrite_each_other_unseen(demo_shop: Stack, studio: Tab, browser: Browser) -> None:
    other = open_tab(browser)
    sign_in(other, demo_shop)
    for tab in (studio, other):
        tab.page.goto(f"{demo_shop.at.studio}/draw/listing_card")
        expect(tab.page.get_by_label("corner radius, px").first).to_be_visible()
    first, second = (tab.page.get_by_label("corner radius, px").first for tab in (studio, other))
    before = first.input_value()
    first.press("ArrowUp")
    expect(studio.page.get_by_role("status").filter(has_text="saved")).to_be_visible()
    second.press("Shift+ArrowUp")
    expect(other.page.get_by_role("alert")).to_contain_text("was changed meanwhile")
    expect(second).to_have_value(str(int(before) + 1))
    studio.page.keyboard.press("Control+z")
    expect(first).to_have_value(before)
    other.context.close()


def test_a_server_that_is_gone_is_said_with_a_way_to_try_again(demo_shop: Stack, studio: Tab) -> None:
    page = studio.page
    page.route("**/api/stores/*/words?*", lambda route: route.abort())
    page.goto(f"{demo_shop.at.studio}/words")
    expect(page.get_by_role("alert")).to_be_visible()
    page.unroute("**/api/stores/*/words?*")
    page.get_by_role("button", name="Try again").click()
    expect(page.get_by_role("heading", name="Why these words")).to_be_visible()


def test_a_session_that_ended_leads_back_to_the_door(demo_shop: Stack, studio: Tab) -> None:
    page = studio.page
    page.goto(f"{demo_shop.at.studio}/draw/product_page")
    radius = page.get_by_label("corner radius, px").first
    expect(radius).to_be_visible()
    studio.context.clear_cookies()
    radius.press("ArrowUp")
    expect(page.get_by_role("button", name="Sign in")).to_be_visible()


def test_a_key_that_a_list_or_a_sheet_takes_does_nothing_else(demo_shop: Stack, studio: Tab) -> None:
    page = studio.page
    page.goto(f"{demo_shop.at.studio}/draw/product_page")
    expect(page.get_by_role("heading", name="Specification")).to_be_visible()
    at = page.url
    device = page.get_by_label("Device:", exact=False).first
    device.focus()
    page.keyboard.press("4")
    page.keyboard.press("g")
    page.wait_for_timeout(400)
    assert page.url == at
    # Behind an open sheet nothing hears a key.
    page.get_by_role("button", name="history").click()
    expect(page.get_by_role("dialog")).to_be_visible()
    for key in ("2", "5", "?", "/", "p"):
        page.keyboard.press(key)
    page.wait_for_timeout(400)
    assert page.url == at
    expect(page.get_by_role("dialog")).to_have_count(1)
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.keyboard.press("6")
    page.wait_for_url(f"{demo_shop.at.studio}/trials*")


def test_version_b_takes_another_radius_and_a_gradient_is_named(own_demo: Stack, browser: Browser) -> None:
    tab = open_tab(browser)
    sign_in(tab, own_demo)
    page = tab.page
    with own_demo.wiring.open_shop("thornmere") as shop:
        gradient = {"kind": "linear", "angle_deg": 90, "stops": [{"at": 0, "colour": "#6b4a0c"},
                                                                 {"at": 100, "colour": "#3a2a12"}]}  # fmt: skip
        patch = {"look": {"fill": gradient, "radius": "50%"}}
        change_layer(shop, "place:listing_card", patch, shop.drafts.read().version, ADA, clock())
    page.goto(f"{own_demo.at.studio}/trials")
    page.get_by_label("Question").fill("Squarer on cards?")
    page.get_by_label("Place", exact=False).first.click()
    page.get_by_role("option", name="listing card").click()
    page.get_by_role("button", name="Draw version B").click()
    expect(page.get_by_role("heading", name="Squarer on cards?")).to_be_visible()
    expect(page.get_by_text("with a gradient, or with one colour")).to_be_visible()
    assert "undefined" not in page.locator("main, body").first.inner_text()
    radius = page.get_by_label("B's corner radius")
    radius.fill("3")
    radius.press("Enter")
    expect(page.get_by_role("listitem").filter(has_text="Corner radius")).to_contain_text("3")
    expect(page.get_by_text("B is still the same as A.")).to_have_count(0)
    assert tab.told == []
    tab.context.close()


def test_a_file_that_would_empty_the_shop_says_so_and_asks(own_demo: Stack, browser: Browser) -> None:
    tab = open_tab(browser)
    sign_in(tab, own_demo)
    page = tab.page
    page.goto(own_demo.at.studio)
    content = b"SKU,Price,Colour of box\nTL-BRUSH,,red\n"
    page.get_by_label("Catalogue as CSV or JSON-LD").set_input_files(
        {"name": "goods.csv", "mimeType": "text/csv", "buffer": content}
    )
    sheet = page.get_by_role("dialog")
    expect(sheet).to_contain_text("divided by commas")
    expect(sheet).to_contain_text("“SKU” is sku. “Price” is price. Not understood, and left out: Colour of box.")
    expect(sheet.get_by_role("alert")).to_contain_text("It would empty the price of 1 product: the file has none.")
    sheet.get_by_role("checkbox").check()
    expect(sheet.get_by_role("alert")).to_contain_text("It would remove 59 of 60 products")
    expect(sheet.get_by_role("button", name="Import anyway: 1 product, remove 59")).to_be_visible()
    sheet.get_by_role("button", name="Cancel").click()
    with own_demo.wiring.open_shop("thornmere") as shop:
        assert len(shop.catalogue.all()) == 60
    tab.context.close()


def test_how_a_file_is_written_can_be_said_where_it_was_guessed_wrong(own_demo: Stack, browser: Browser) -> None:
    tab = open_tab(browser)
    sign_in(tab, own_demo)
    page = tab.page
    page.goto(own_demo.at.studio)
    content = "sku;name;category;url;price\nPL-1;Miód łąkowy z Łodzi;Honey;/p/pl-1;1,23\n".encode("cp1250")
    page.get_by_label("Catalogue as CSV or JSON-LD").set_input_files(
        {"name": "goods.csv", "mimeType": "text/csv", "buffer": content}
    )
    sheet = page.get_by_role("dialog")

    def say(what: str, name: str) -> None:
        sheet.get_by_label(re.compile(f"^{what}: ")).click()
        page.get_by_role("option", name=name).click()

    expect(sheet.get_by_role("alert")).to_contain_text("It is not UTF-8; read as windows-1252")
    say("Encoding", "windows-1250, Central European")
    expect(sheet.get_by_role("alert")).to_have_count(0)
    sheet.get_by_text("The first product as read").click()
    expect(sheet.get_by_role("cell", name="Miód łąkowy z Łodzi")).to_be_visible()
    # What is said against the file is refused, and can be said otherwise on the spot.
    say("Decimal sign", "point")
    expect(sheet.get_by_role("alert")).to_contain_text("Its prices are written as 1,23: that is not a decimal point.")
    say("Decimal sign", "found out from the file")
    sheet.get_by_role("button", name="Import 1 product").click()
    expect(sheet.get_by_role("heading", name="Taken in")).to_be_visible()
    with own_demo.wiring.open_shop("thornmere") as shop:
        product = next(listed for listed in shop.catalogue.all() if listed.sku == "PL-1")
        assert (product.name, product.price_minor) == ("Miód łąkowy z Łodzi", 123)
    tab.context.close()


def test_a_product_is_chosen_by_typing_of_however_many_there_are(demo_shop: Stack, studio: Tab) -> None:
    page = studio.page
    page.goto(f"{demo_shop.at.studio}/draw/product_page")
    product = page.get_by_role("combobox", name="Product:")
    before = product.input_value()
    product.focus()
    product.press("ArrowDown")
    options = page.get_by_role("listbox", name="Products").get_by_role("option")
    expect(options).to_have_count(50)
    expect(page.get_by_text("and 10 more")).to_be_visible()
    page.keyboard.type("tools goose")
    expect(options).to_have_count(1)
    expect(options).to_have_attribute("data-highlighted", "")
    assert barriers(page) == []
    page.keyboard.press("Enter")
    page.wait_for_url("**product=TL-BRUSH*")
    expect(product).to_have_value("Goose-wing bee brush")
    # What is typed and given up changes nothing, and what nothing is called is said.
    product.click()
    page.keyboard.type("no such thing")
    expect(page.get_by_text("No product is called that.")).to_be_visible()
    page.keyboard.press("Escape")
    expect(product).to_have_value("Goose-wing bee brush")
    assert before != "Goose-wing bee brush"


def test_what_can_be_pressed_is_listed_by_station_and_found_by_search(demo_shop: Stack, studio: Tab) -> None:
    page = studio.page
    page.goto(f"{demo_shop.at.studio}/draw/product_page")
    expect(page.get_by_role("heading", name="Specification")).to_be_visible()
    page.keyboard.press("?")
    sheet = page.get_by_role("dialog")
    expect(sheet.get_by_role("heading", name="In Draw")).to_be_visible()
    expect(sheet.get_by_text("Ctrl Shift Z")).to_be_visible()
    page.keyboard.press("Escape")
    expect(sheet).to_be_hidden()
    page.keyboard.press("/")
    expect(sheet.get_by_role("combobox")).to_be_focused()
    page.keyboard.type("pixel")
    page.get_by_role("option", name="command Pixel grid g").click()
    expect(page.get_by_role("toolbar").get_by_role("button", name="pixel grid")).to_have_attribute(
        "aria-pressed", "true"
    )
    # A row of tools is one stop for Tab; arrows lead along it.
    page.get_by_role("button", name="on the page").focus()
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("button", name="Smaller")).to_be_focused()
    page.goto(f"{demo_shop.at.studio}/trials")
    expect(page.get_by_role("heading", name="Trials").first).to_be_visible()
    page.keyboard.press("?")
    expect(sheet.get_by_role("heading", name="Everywhere")).to_be_visible()
    expect(sheet.get_by_role("heading", name="In Draw")).to_have_count(0)


def test_what_is_wrong_with_a_field_is_told_at_the_field(own_demo: Stack, browser: Browser) -> None:
    tab = open_tab(browser)
    sign_in(tab, own_demo)
    page = tab.page
    page.goto(own_demo.at.studio)
    page.get_by_role("button", name="New exception").first.click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("Name").fill("Turned about")
    sheet.get_by_label("What it is for").fill("its days are in the wrong order")
    sheet.get_by_label("From").fill("2027-03-02")
    sheet.get_by_label("until").fill("2027-03-01")
    sheet.get_by_role("button", name="Save exception").click()
    told = sheet.get_by_role("alert")
    expect(told).to_contain_text("it ends on 2027-03-01, before it starts on 2027-03-02")
    until = sheet.get_by_label("until")
    expect(until).to_have_attribute("aria-invalid", "true")
    expect(until).to_have_accessible_description(re.compile("it ends on 2027-03-01"))
    expect(sheet.get_by_label("Name")).not_to_have_attribute("aria-invalid", "true")
    until.fill("2027-03-09")
    sheet.get_by_role("button", name="Save exception").click()
    expect(sheet).to_be_hidden()
    tab.context.close()


def test_of_a_long_list_only_what_is_in_view_is_drawn_and_all_of_it_can_be_reached(
    own_demo: Stack, browser: Browser
) -> None:
    with own_demo.wiring.open_shop("thornmere") as shop:
        for n in range(120):
            wish = Wish(f"Long list {n:03}", "one of many", Reach(products=("TL-BRUSH",)))
            add_exception(shop, wish, {"look": {"radius": n % 20}}, shop.drafts.read().version, ADA, clock())
    tab = open_tab(browser)
    sign_in(tab, own_demo)
    page = tab.page
    page.goto(own_demo.at.studio)
    rows = page.locator(".ledger tr:not(.gap)")
    expect(rows.get_by_role("button", name="Jars by the set")).to_be_attached()
    drawn = rows.count()
    assert 10 < drawn < 60
    last = rows.get_by_role("button", name="Long list 119")
    assert last.count() == 0
    # The row that has the keyboard stays, however far the page is scrolled.
    rows.get_by_role("button", name="Jars by the set").focus()
    page.mouse.move(400, 400)
    for _ in range(40):
        page.mouse.wheel(0, 2000)
        page.wait_for_timeout(50)
        if last.count():
            break
    expect(last).to_be_visible()
    expect(rows.get_by_role("button", name="Jars by the set")).to_be_focused()
    assert rows.count() < 60
    last.click()
    expect(page.get_by_role("dialog").get_by_label("Name", exact=True)).to_have_value("Long list 119")
    assert tab.told == []
    tab.context.close()


def test_how_far_the_checks_of_a_large_shop_have_come_is_shown_while_one_waits(demo_shop: Stack, studio: Tab) -> None:
    page = studio.page
    held: list[Route] = []
    page.route("**/findings?*", lambda route: held.append(route))
    page.route("**/findings/progress", lambda route: route.fulfill(json={"done": 412, "of": 1106}))
    page.goto(demo_shop.at.studio)
    expect(page.get_by_text("Checking every kind of button: 412 of 1,106")).to_be_visible()
    meter = page.get_by_role("progressbar", name="Checking every kind of button")
    expect(meter).to_have_attribute("aria-valuenow", "412")
    assert barriers(page) == []
    for route in held:
        route.continue_()
    expect(page.get_by_role("list", name="Findings")).to_be_visible()
    expect(meter).to_have_count(0)


@pytest.mark.parametrize("path", [*STATIONS, "/place"])
def test_the_shortcuts_of_every_station_can_be_seen(demo_shop: Stack, studio: Tab, path: str) -> None:
    studio.page.goto(demo_shop.at.studio + path)
    studio.page.wait_for_load_state("networkidle")
    studio.page.keyboard.press("?")
    sheet = studio.page.get_by_role("dialog", name="Shortcuts")
    expect(sheet.get_by_role("heading", name="Everywhere")).to_be_visible()
    titles = sheet.get_by_role("heading", level=3).all_inner_texts()
    assert len(titles) == len(set(titles))
    assert studio.told == []


def test_a_text_with_an_open_brace_stays_written_and_the_list_of_values_tells_who_listens(
    demo_shop: Stack, studio: Tab
) -> None:
    page = studio.page
    page.goto(f"{demo_shop.at.studio}/words")
    cell = page.locator("button.text[aria-pressed=true]")
    cell.click()
    field = page.get_by_role("combobox", name=re.compile("^Text of "))
    field.fill("Take it, {pr")
    field.press("ArrowDown")
    chosen = page.get_by_role("option", selected=True)
    expect(chosen).to_have_text("{price without tax}")
    expect(field).to_have_attribute("aria-activedescendant", chosen.get_attribute("id") or "none")
    # The first Escape closes the list, and the text is there.
    field.press("Escape")
    expect(page.get_by_role("option")).to_have_count(0)
    expect(field).to_have_value("Take it, {pr")
    field.press("Tab")
    expect(page.get_by_role("alert")).to_contain_text("It was not saved. A brace in “Take it, {pr” has no partner.")
    beside = page.get_by_role("complementary").get_by_role("combobox")
    expect(beside).to_have_value("Take it, {pr")
    # Nor is it lost where one has gone to another cell before the answer.
    page.get_by_role("button", name=re.compile("^Working.*Listing card", re.IGNORECASE)).click()
    expect(beside).not_to_have_value("Take it, {pr")
    page.get_by_role("button", name=re.compile("^Ready.*Product page", re.IGNORECASE)).first.click()
    expect(beside).to_have_value("Take it, {pr")
    assert all("422" in told for told in studio.told), studio.told


def test_keeping_a_is_asked_once_and_the_heading_says_what_was_kept(own_demo: Stack, browser: Browser) -> None:
    tab = open_tab(browser)
    sign_in(tab, own_demo)
    page = tab.page
    page.goto(f"{own_demo.at.studio}/trials/1")
    heading = page.get_by_role("heading", level=1)
    verdict = heading.inner_text()
    expect(page.get_by_role("complementary")).to_contain_text("“Sets are taken whole” keeps its own words on")
    page.get_by_role("button", name="Keep A").click()
    expect(page.get_by_role("alert")).to_contain_text("it cannot run on")
    page.get_by_role("button", name="Cancel").click()
    expect(heading).to_have_text(verdict)
    page.get_by_role("button", name="Keep A").click()
    page.get_by_role("button", name="End it, keep A").click()
    expect(heading).to_contain_text("A was kept on ")
    expect(page.get_by_role("main")).to_contain_text(f"The numbers then: “{verdict}”")
    assert barriers(page) == []
    tab.context.close()
