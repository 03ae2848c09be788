"""A product's own text from the sheet to page, listing, bar and strip; a conflict found and fixed; languages."""

import re

import httpx2
import pytest
from playwright.sync_api import Browser, Locator, Page, expect

from ops import demo_words as words
from tests.browser.conftest import Stack, Tab, open_tab, sign_in
from tests.waits import until

pytestmark = pytest.mark.browser


def ours(page: Page, place: str) -> Locator:
    return page.locator(f"[data-up-place={place}] [data-up-button] button")


def release(page: Page, stack: Stack) -> None:
    page.goto(f"{stack.at.studio}/release")
    button = page.get_by_role("button", name=re.compile(r"^Release \d+$"))
    number = int(button.inner_text().split()[-1])
    button.click()
    said = page.get_by_text("is what shoppers see")
    # The demo's trial compares the page's button, and says so.
    anyway = page.get_by_role("button", name="Release anyway")
    expect(said.or_(anyway)).to_be_visible()
    if anyway.is_visible():
        anyway.click()
    expect(said).to_be_visible()
    # The edge hears of it a moment after the studio.
    manifest = f"{stack.at.edge}/s/thornmere/manifest.json"
    until(lambda: httpx2.get(manifest).json()["release"] == number)


def scrolled(page: Page) -> None:
    page.evaluate("scrollTo(0, document.body.scrollHeight)")


def test_a_conflict_is_found_on_the_floor_and_a_mend_ends_it(own_demo: Stack, tab: Tab) -> None:
    sign_in(tab, own_demo)
    page = tab.page
    page.goto(own_demo.at.studio)
    conflict = page.locator("[data-rule=conflict]")
    expect(conflict).to_contain_text("“Reduced prices say so” and “Roofs before the frost” disagree")
    conflict.get_by_role("button", name="Fix: only “Reduced prices say so” says it").click()
    expect(conflict).to_have_count(0)
    page.locator("[data-rule=contrast]").get_by_role("button", name="Fix: fill").click()
    expect(page.locator("[data-rule=contrast]")).to_have_count(0)

    # The German text that is too long is shortened in its own cell.
    page.goto(f"{own_demo.at.studio}/words")
    page.locator("[aria-label^='Language: ']").click()
    page.get_by_role("option", name="German").click()
    cell = page.get_by_role("button", name=re.compile("^added, listing card: Liegt jetzt"))
    cell.click()
    page.keyboard.press("Enter")
    field = page.get_by_label("Text of added, listing card")
    field.fill("Im Korb")
    field.press("Enter")
    expect(page.get_by_role("button", name="added, listing card: Im Korb")).to_be_visible()
    page.goto(own_demo.at.studio)
    expect(page.get_by_role("heading", name="Findings")).to_be_visible()
    expect(page.locator("[data-weight=must_fix]")).to_have_count(0)


def test_a_products_own_text_reaches_page_listing_bar_and_strip(own_demo: Stack, tab: Tab) -> None:
    sign_in(tab, own_demo)
    page = tab.page
    page.goto(f"{own_demo.at.studio}/words")
    page.get_by_role("button", name="ready, product page: Take it home").click()
    page.get_by_role("button", name="New exception…").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Text", exact=True).fill("Sweep gently")
    dialog.get_by_label("For", exact=True).fill("Goose-wing bee brsh")
    expect(dialog.get_by_text("is no product, category, place")).to_be_visible()
    dialog.get_by_role("button", name="Goose-wing bee brush", exact=True).click()
    expect(dialog.get_by_text("1 product")).to_be_visible()
    dialog.get_by_label("Name", exact=True).fill("The brush speaks")
    dialog.get_by_label("What it is for").fill("Asked for by the brush maker")
    dialog.get_by_role("button", name="Save exception").click()
    expect(page.get_by_role("button", name="ready, strip, The brush speaks: Sweep gently")).to_be_visible()
    release(page, own_demo)

    shop = own_demo.at.practice
    page.set_viewport_size({"width": 375, "height": 700})
    # Version B of the running trial has words of its own.
    page.goto(f"{shop}/p/TL-BRUSH?up-show=1.A")
    expect(ours(page, "product_page")).to_have_text("Sweep gently, Goose-wing bee brush")
    expect(ours(page, "sticky_bar")).to_be_hidden()
    scrolled(page)
    expect(ours(page, "sticky_bar")).to_be_visible()
    expect(ours(page, "sticky_bar")).to_have_text("Sweep gently, Goose-wing bee brush")
    page.keyboard.press("Escape")
    expect(ours(page, "sticky_bar")).to_be_visible()
    ours(page, "sticky_bar").click()
    expect(page.locator("[data-basket-count]")).to_have_text("1")
    page.evaluate("scrollTo(0, 0)")
    expect(ours(page, "sticky_bar")).to_be_hidden()
    page.goto(f"{shop}/c/smokers-tools")
    expect(page.locator("li", has_text="Goose-wing").locator("[data-up-button] button")).to_have_text(
        "1 in skep, Goose-wing bee brush"
    )
    page.goto(f"{shop}/basket")
    page.get_by_role("button", name="Empty the skep").click()
    page.goto(f"{shop}/c/smokers-tools")
    expect(page.locator("li", has_text="Goose-wing").locator("[data-up-button] button")).to_contain_text("Sweep gently")
    page.goto(f"{shop}/p/TL-SMOKER")
    strip = page.locator("li", has_text="Goose-wing")
    strip.scroll_into_view_if_needed()
    expect(strip.locator("[data-up-button] button")).to_contain_text("Sweep gently")


def test_an_emptied_text_says_again_what_the_wider_rule_says(own_demo: Stack, tab: Tab) -> None:
    sign_in(tab, own_demo)
    page = tab.page
    page.goto(own_demo.at.studio)
    expect(page.get_by_role("heading", name="Findings")).to_be_visible()
    page.keyboard.press("/")
    page.get_by_label("Search for a product, an exception").fill("brush speaks")
    expect(page.get_by_role("option", name="exception The brush speaks")).to_be_visible()
    page.keyboard.press("Enter")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_text("What it changes: 1 product")).to_be_visible()
    field = dialog.get_by_label("words: ready, en-GB", exact=True)
    field.fill("")
    field.press("Enter")
    expect(dialog.get_by_text("No button differs by it now.")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("h")
    # Undo names the step, too, as soon as the studio knows of it.
    step = page.get_by_role("dialog").get_by_role("cell")
    expect(step.get_by_text("words: ready, en-GB, “Sweep gently” → as the wider rule")).to_be_visible()
    page.keyboard.press("Escape")
    release(page, own_demo)
    page.goto(f"{own_demo.at.practice}/p/TL-BRUSH")
    expect(ours(page, "product_page")).to_contain_text(re.compile("^Take it home"))


def test_why_a_value_is_so_is_asked_by_one_key_and_its_exception_switched_off(own_demo: Stack, tab: Tab) -> None:
    sign_in(tab, own_demo)
    page = tab.page
    page.goto(own_demo.at.studio)
    page.get_by_label("Draw: Reserve for April").first.focus()
    page.keyboard.press("w")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_role("listitem").first).to_contain_text("Bees by the month")
    expect(dialog.get_by_role("listitem").nth(1)).to_contain_text("Store baseline")
    dialog.get_by_role("button", name="Switch off Bees by the month").click()
    expect(dialog.get_by_role("listitem").first).to_contain_text("Store baseline")
    expect(dialog.get_by_text("switched off")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("Control+z")
    expect(page.get_by_label("Draw: Reserve for April").first).to_be_visible()


def test_a_reach_is_widened_in_words_and_says_what_it_changes(own_demo: Stack, tab: Tab) -> None:
    sign_in(tab, own_demo)
    page = tab.page
    page.goto(own_demo.at.studio)
    page.get_by_role("button", name="Larger for thumbs").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("For", exact=True).fill(
        "Frames & wax, on the product page, on phones and tablets, except brood frames"
    )
    dialog.get_by_role("button", name=re.compile("^Reach 7 products from now on")).click()
    expect(dialog.get_by_text("What it changes: 7 products")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("Control+z")
    expect(page.get_by_text("Every product, on the product page, on phones")).to_be_visible()


def test_arabic_stands_from_right_to_left_with_its_icon_on_the_right(own_demo: Stack, tab: Tab) -> None:
    page = tab.page
    page.goto(f"{own_demo.at.practice}/p/TL-BRUSH?lang=ar")
    button = ours(page, "product_page")
    expect(button).to_contain_text(words.BASELINE["ready"]["ar"])
    assert button.evaluate("b => getComputedStyle(b).direction") == "rtl"
    icon, text = (button.locator(part).first.bounding_box() for part in ("svg", "span"))
    assert icon is not None
    assert text is not None
    assert icon["x"] > text["x"] + text["width"]
    button.click()
    # One of them has a form of its own in Arabic.
    expect(button).to_contain_text("واحد في سلتك")
    page.goto(f"{own_demo.at.practice}/p/TL-BRUSH?lang=de-DE")
    expect(ours(page, "product_page")).to_contain_text("1 im Bienenkorb")
    assert tab.told == []


def test_frames_are_bought_by_ten(own_demo: Stack, tab: Tab) -> None:
    page = tab.page
    page.goto(f"{own_demo.at.practice}/p/FW-BROOD")
    box = page.get_by_label("Quantity, Brood frames")
    expect(box).to_have_value("10")
    box.fill("30")
    ours(page, "product_page").click()
    expect(page.locator("[data-basket-count]")).to_have_text("30")


def test_devices_and_kinds_of_shopper_get_what_is_said_for_them(own_demo: Stack, browser: Browser) -> None:
    tab = open_tab(browser, viewport={"width": 1280, "height": 800})
    page = tab.page
    page.goto(f"{own_demo.at.practice}/p/TL-HOOK")
    button = ours(page, "product_page")
    expect(button).to_be_visible()
    assert button.evaluate("b => getComputedStyle(b).paddingTop") == "14px"
    page.set_viewport_size({"width": 375, "height": 800})
    expect(button).to_have_css("padding-top", "16px")
    # Keepers who are signed in go on to the basket from the bar.
    page.get_by_role("button", name="Sign in as a keeper").click()
    page.goto(f"{own_demo.at.practice}/p/TL-HOOK")
    expect(ours(page, "product_page")).to_be_visible()
    scrolled(page)
    ours(page, "sticky_bar").click()
    page.wait_for_url("**/basket")
    tab.context.close()
    assert tab.told == []
