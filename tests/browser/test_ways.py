"""Ways between the stations: what is chosen on one arrives at the next, by its address, and back again."""

import re
from urllib.parse import parse_qsl, urlsplit

import pytest
from playwright.sync_api import Page, Route, expect

from tests.browser.conftest import Stack, Tab, sign_in

pytestmark = pytest.mark.browser


@pytest.fixture
def page(demo_shop: Stack, tab: Tab) -> Page:
    sign_in(tab, demo_shop)
    tab.page.goto(demo_shop.at.studio)
    expect(tab.page.get_by_role("heading", level=1)).to_contain_text("Every purchase button")
    return tab.page


def search(page: Page, text: str) -> None:
    page.keyboard.press("/")
    page.get_by_role("combobox", name="Search for a product").fill(text)


def test_a_product_that_is_searched_is_drawn_and_back_leads_to_the_floor(page: Page) -> None:
    search(page, "TL-HOOK")
    expect(page.get_by_role("option").first).to_contain_text("Hooked hive tool")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_contain_text("Hooked hive tool")
    expect(page).to_have_url(re.compile(r"/draw/product_page\?product=TL-HOOK$"))
    search(page, "HV-NUC6")
    expect(page.get_by_role("option").first).to_contain_text("Six-frame nucleus box")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_contain_text("Six-frame nucleus box")
    page.go_back()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Hooked hive tool")
    page.go_back()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Every purchase button")
    page.go_forward()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Hooked hive tool")


def test_what_was_searched_before_is_not_taken_while_the_studio_searches(page: Page) -> None:
    search(page, "TL-HOOK")
    expect(page.get_by_role("option").first).to_contain_text("Hooked hive tool")
    page.keyboard.press("Escape")
    held: list[Route] = []
    page.route("**/search?*", lambda route: held.append(route))
    with page.expect_request("**/search?*"):
        search(page, "HV-NUC6")
    expect(page.get_by_role("option", name="Hooked hive tool")).to_have_count(0)
    page.keyboard.press("Enter")
    expect(page.get_by_role("dialog")).to_be_visible()
    for route in held:
        route.continue_()
    expect(page.get_by_role("option").first).to_contain_text("Six-frame nucleus box")


def test_pointing_begins_where_somebody_came_to_point(page: Page, demo_shop: Stack) -> None:
    page.goto(f"{demo_shop.at.studio}/place")
    expect(page.get_by_text("of scrolling with a button in reach")).to_be_visible()
    page.keyboard.press("p")
    expect(page.get_by_role("heading", name="Point at the spot on the page.")).to_be_visible()
    expect(page).to_have_url(re.compile(r"/place/points\?point=1$"))


def test_the_words_of_a_button_of_the_floor_are_edited_where_they_are(page: Page) -> None:
    wanted = page.locator("a[href^='/words?']").first.get_attribute("href") or ""
    page.locator("a.stand").first.focus()
    page.keyboard.press("e")
    expect(page).to_have_url(re.compile(re.escape(wanted) + "$"))
    expect(page.get_by_role("heading", level=1)).to_be_visible()


def query(page: Page) -> dict[str, str]:
    return dict(parse_qsl(urlsplit(page.url).query))


def pick(page: Page, label: str, option: str) -> None:
    page.get_by_label(label).click()
    page.get_by_role("option", name=option).click()


def test_what_is_looked_at_stays_from_station_to_station_and_back_steps_through_it(page: Page) -> None:
    pick(page, "Device:", "phone")
    pick(page, "Language:", "German")
    expect(page).to_have_url(re.compile(r"language=de"))
    assert query(page) == {"device": "phone", "language": "de-DE"}
    # Its own moment and product come with a button of the plan.
    page.locator("a.stand[href^='/draw/listing_card'][href*=in_basket]").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Draw: listing card")
    seen = query(page)
    assert (seen["device"], seen["language"], seen["moment"]) == ("phone", "de-DE", "in_basket")
    expect(page.locator(".moment[aria-pressed=true] .tag")).to_have_text("in basket")
    expect(page.get_by_label("Device:")).to_have_text("phone")
    page.keyboard.press("3")
    expect(page.get_by_label("The chosen text")).to_contain_text("in basket · listing card · German")
    page.get_by_role("link", name="Place").click()
    expect(page.get_by_text("of scrolling with a button in reach")).to_be_visible()
    expect(page.get_by_label("Device:")).to_have_text("phone")
    product = page.get_by_label("Page:").inner_text()
    assert query(page)["product"] == seen["product"]
    assert product.startswith(seen["product"]) or "/p/" in product
    page.keyboard.press("2")
    expect(page.get_by_role("heading", level=1)).to_contain_text("Draw: listing card")
    assert query(page)["product"] == seen["product"]
    # Back through the stations, and through what was chosen on the first.
    for heading in ("How buttons stand", "What every button says", "Draw: listing card", "Every purchase button"):
        page.go_back()
        expect(page.get_by_role("heading", level=1)).to_contain_text(heading)
    page.go_back()
    expect(page).to_have_url(re.compile(r"/\?device=phone$"))
    expect(page.get_by_label("Device:")).to_have_text("phone")
    page.go_back()
    expect(page.get_by_label("Device:")).to_have_text("desktop")


def test_a_moment_is_stepped_through_and_back_again(page: Page, demo_shop: Stack) -> None:
    page.goto(f"{demo_shop.at.studio}/draw/product_page?product=HV-NUC6")
    drawn = page.locator(".moment[aria-pressed=true] .tag")
    expect(drawn).to_have_text("ready")
    page.keyboard.press("]")
    expect(drawn).not_to_have_text("ready")
    after = drawn.inner_text()
    page.keyboard.press("]")
    expect(drawn).not_to_have_text(after)
    page.go_back()
    expect(drawn).to_have_text(after)
    page.go_back()
    expect(drawn).to_have_text("ready")


def test_an_address_of_a_product_that_is_gone_or_of_no_device_says_so_or_shows_the_usual(
    page: Page, demo_shop: Stack
) -> None:
    page.goto(f"{demo_shop.at.studio}/?device=watch&language=xx")
    expect(page.get_by_label("Device:")).to_have_text("desktop")
    page.goto(f"{demo_shop.at.studio}/draw/product_page?product=00123")
    expect(page.get_by_role("alert")).to_contain_text("00123")


def test_a_refused_text_is_come_back_to_and_stays_chosen(page: Page, demo_shop: Stack) -> None:
    page.goto(f"{demo_shop.at.studio}/words?moment=added&placement=strip")
    chosen = page.get_by_label("The chosen text")
    expect(chosen).to_contain_text("added · strip")
    held: list[Route] = []
    page.route("**/draft", lambda route: held.append(route) if route.request.method == "PATCH" else route.continue_())
    text = chosen.get_by_label("Text", exact=True)
    text.click()
    page.keyboard.press("End")
    page.keyboard.type(" {nonsense}")
    with page.expect_request(lambda request: request.method == "PATCH"):
        page.get_by_role("button", name="sold out, product page:").click()
    expect(chosen).to_contain_text("sold out · product page")
    expect(page).to_have_url(re.compile("moment=sold_out"))
    for route in held:
        route.continue_()
    # What was refused is come back to, in the address as well, and nothing leads away from it again.
    expect(page.get_by_role("alert").first).to_be_visible()
    expect(chosen).to_contain_text("added · strip")
    expect(page).to_have_url(re.compile("moment=added&placement=strip|placement=strip&moment=added"))
    expect(text).to_have_value(re.compile("nonsense"))
