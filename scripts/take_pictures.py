"""Takes the pictures of docs/screenshots anew, from the demo as `./start --fresh` shows it, which has to run."""

import json
import sys
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from ops import demo
from ops.chromium import AGENT, FLAGS, PROGRAM
from uptick.wiring import Environment

ROOT = Path(__file__).resolve().parent.parent
TO = ROOT / "docs" / "screenshots"
STYLESHEET = ROOT / "tests/strangers/node_modules/bootstrap/dist/css/bootstrap.css"


def open_store(page: Page, key: str, path: str) -> None:
    """Open a station of one of the demo's stores."""
    studio = Environment().studio_origin
    page.goto(studio)
    page.evaluate(f"localStorage.setItem('uptick.store', {json.dumps(key)})")
    page.goto(studio + path)
    page.wait_for_load_state("networkidle")


def _floor(page: Page) -> None:
    open_store(page, demo.KEY, "/")


def _exception(page: Page) -> None:
    _floor(page)
    page.get_by_role("button", name="Bees come in spring").first.click()


def _draw(page: Page) -> None:
    open_store(page, demo.KEY, "/draw/product_page")
    page.get_by_role("region", name="Drawing").wait_for()


def _page(page: Page) -> None:
    _draw(page)
    page.keyboard.press("p")
    page.wait_for_timeout(2500)


def _looks(page: Page) -> None:
    _draw(page)
    page.keyboard.press("l")
    page.get_by_role("dialog").wait_for()


def _stylesheet(page: Page) -> None:
    _looks(page)
    page.locator('input[type=file][accept*=".css"]').set_input_files(STYLESHEET)
    page.get_by_text("Which button of the stylesheet?").wait_for()


def _words(page: Page) -> None:
    open_store(page, demo.KEY, "/words")


def _place(page: Page) -> None:
    """A collision, with its leaders."""
    open_store(page, "loft", "/place")
    page.get_by_text("of scrolling with a button in reach").wait_for()
    page.get_by_role("button", name="Must fix").first.click()
    page.wait_for_timeout(1500)


def _tiles(page: Page) -> None:
    open_store(page, "hedgerow", "/place/points")
    page.get_by_label("Look at main > h1").click()
    page.locator("button:enabled", has_text="Keep the place").wait_for()


def _pictures(page: Page) -> None:
    """A button in the middle of a picture, which is told."""
    open_store(page, demo.KEY, "/place")
    page.get_by_label("Page:").click()
    page.get_by_role("option", name="front page").click()
    page.get_by_role("button", name="On pictures").click()
    page.get_by_role("radio", name="in the lower right corner").focus()
    page.keyboard.press("ArrowUp")
    page.get_by_text("It lies on the right of its picture").wait_for()
    page.keyboard.press("ArrowLeft")
    page.get_by_role("button", name="Must fix").click()
    page.wait_for_timeout(1500)


def _back(page: Page) -> None:
    for _ in range(2):
        page.keyboard.press("Control+z")
        page.wait_for_timeout(800)


def _pointing(page: Page) -> None:
    open_store(page, "hedgerow", "/place/points")
    page.wait_for_timeout(1500)
    page.get_by_role("button", name="Point at a place").click()
    page.get_by_label("What the place is for").click()
    page.get_by_role("option", name="a card in a list").click()
    frame = page.locator("section.page iframe")
    left, top, scale = frame.evaluate(
        "f => { const b = f.getBoundingClientRect(); return [b.x, b.y, b.width / f.offsetWidth] }"
    )
    price = page.frame_locator("section.page iframe").locator(".card .price").nth(2)
    x, y = price.evaluate("e => { const b = e.getBoundingClientRect(); return [b.x + 8, b.y + b.height / 2] }")
    page.mouse.move(left + x * scale - 2, top + y * scale)
    page.mouse.click(left + x * scale, top + y * scale)
    page.locator("button:enabled", has_text="Keep the place").wait_for()


def _release(page: Page) -> None:
    open_store(page, demo.KEY, "/release")
    page.wait_for_timeout(2500)


def _outside(page: Page) -> None:
    """A mail with three products in a row."""
    open_store(page, demo.KEY, "/release/outside?product=TL-SMOKER")
    page.get_by_label("Kind:").click()
    page.get_by_role("option", name="HTML for a mail").click()
    for text in ("Six-frame nucleus", "Hooked hive tool"):
        picker = page.get_by_label("Product: another product")
        picker.click()
        picker.fill(text)
        page.get_by_role("option").first.click()
        page.get_by_role("button", name=f"Leave out {text}").wait_for()
    page.get_by_label("In a row:").click()
    page.get_by_role("option", name="3").click()
    page.get_by_label("Campaign").fill("Spring letter")
    page.get_by_label("Campaign").press("Enter")
    page.wait_for_timeout(1500)


def _pages(page: Page) -> None:
    open_store(page, "evergreen", "/release")
    page.get_by_role("button", name="Look at the live pages").click()
    page.wait_for_timeout(2000)


def _trials(page: Page) -> None:
    open_store(page, demo.KEY, "/trials")


def _trial(page: Page) -> None:
    open_store(page, demo.KEY, "/trials/1")


def _connection(page: Page) -> None:
    open_store(page, "monogram", "/")
    page.get_by_role("button", name="connection").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_role("button", name="Read it", exact=True).click()
    sheet.get_by_label("What the page shows").wait_for()
    sheet.get_by_role("button", name="Try it").click()
    sheet.get_by_text("It was added.").wait_for()


def _shop(page: Page) -> None:
    page.goto(f"{Environment().practice_origin}/c/jars-labels")
    page.locator("[data-up-stands]").first.wait_for()


def _opened(page: Page) -> None:
    """A jacket chosen in a list, and the basket that the press shows."""
    page.goto(Environment().practice_origin.replace("://", "://monogram."))
    page.locator("[data-card=JV-JACKET] [data-up-button] button.b").click()
    for kind in ("Large", "Oiled"):
        page.get_by_role("radio", name=kind).check()
    page.locator("[data-up-sheet] [data-up-button] button.b").click()
    page.get_by_role("dialog", name="Your basket").wait_for()


PICTURES: dict[str, Callable[[Page], None]] = {
    "floor": _floor, "exception": _exception, "draw": _draw, "page": _page, "looks": _looks,
    "stylesheet": _stylesheet, "words": _words, "place": _place, "pointing": _pointing, "release": _release,
    "outside": _outside,
    "pages": _pages, "pictures": _pictures, "tiles": _tiles,
    "trials": _trials, "trial": _trial, "connection": _connection, "shop": _shop,
    "opened": _opened,
}  # fmt: skip
# What is taken back once its picture is taken.
AFTER = {"pictures": _back}


def main() -> None:
    wished = sys.argv[1:] or list(PICTURES)
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=PROGRAM, args=FLAGS)
        for name in wished:
            context = browser.new_context(viewport={"width": 1280, "height": 800}, user_agent=AGENT)
            studio = Environment().studio_origin
            context.request.post(
                f"{studio}/api/session",
                data={"email": demo.EMAIL, "password": demo.PASSWORD},
                headers={"Origin": studio},
            )
            page = context.new_page()
            PICTURES[name](page)
            page.wait_for_timeout(1200)
            page.screenshot(path=TO / f"{name}.png")
            AFTER.get(name, lambda _: None)(page)
            print(name)
            context.close()
        browser.close()


if __name__ == "__main__":
    main()
