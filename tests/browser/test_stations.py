"""The stations as a person meets them: nothing that keeps anybody out, and every way by keyboard."""

from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, expect

from tests.browser.conftest import Stack, Tab, open_tab, serious, sign_in

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
    assert serious(studio.page) == []
    assert studio.told == []
    # Nothing is cut off sideways at the smallest window that the studio is made for.
    assert studio.page.evaluate("document.documentElement.scrollWidth <= innerWidth")


def test_the_door_and_the_shop_keep_nobody_out(demo_shop: Stack, tab: Tab) -> None:
    tab.page.goto(demo_shop.at.studio)
    expect(tab.page.get_by_role("button", name="Sign in")).to_be_visible()
    assert serious(tab.page) == []
    for path in ("/", "/c/everything", "/p/HV-CEDAR", "/shoppers"):
        tab.page.goto(demo_shop.at.practice + path)
        tab.page.wait_for_load_state("networkidle")
        assert serious(tab.page) == [], path


def test_stations_are_walked_by_number_and_the_keys_can_be_turned_off(demo_shop: Stack, studio: Tab) -> None:
    page = studio.page
    page.goto(demo_shop.at.studio)
    expect(page.get_by_role("heading", name="Findings")).to_be_visible()
    for key, path in (("2", "/draw"), ("3", "/words"), ("4", "/release"), ("5", "/trials"), ("1", "/")):
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
    expect(studio.page.get_by_role("status").filter(has_text="kept")).to_be_visible()
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
