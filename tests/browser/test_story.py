"""The job once from end to end: drawing, words, release, shoppers, signals, trial, verdict, the winner in the shop."""

import re
import time
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Locator, Page, expect
from sqlalchemy import text

from ops import demo
from tests.browser.conftest import Stack, Tab
from tests.waits import until

pytestmark = pytest.mark.browser


def events(stack: Stack) -> list[tuple[str, str, str]]:
    with stack.wiring.engine.connect() as db:
        rows = db.execute(
            text(
                "SELECT kind, place, product FROM events WHERE shopper NOT LIKE 'ps-%' AND place <> 'strip' "
                "ORDER BY at, id"
            )
        )
        return [(row.kind, row.place, row.product) for row in rows]


def ours(page: Page) -> Locator:
    """Our button on a shop page; Playwright looks into open shadow roots."""
    return page.locator("[data-up-place=product_page] [data-up-button] button")


def pick(page: Page, label: str, option: str) -> None:
    page.locator(f"[aria-label^='{label}: ']").first.click()
    page.get_by_role("option", name=option, exact=True).click()


def kept(page: Page) -> None:
    expect(page.get_by_role("status").filter(has_text="saved")).to_be_visible()


def mend_all(page: Page) -> None:
    """Press the last fix of the first finding until nothing is left that must be fixed."""
    must = page.locator("[data-weight=must_fix]")
    # Findings come after the plan.
    expect(must.first).to_be_visible()
    for _ in range(12):
        left = must.count()
        if not left:
            return
        must.first.get_by_role("button", name="Fix: ").last.click()
        expect(must).to_have_count(left - 1)
    raise AssertionError(must.all_inner_texts())


def send_shoppers(page: Page, stack: Stack, days: int, seed: int) -> None:
    """Use the practice shoppers' own page."""
    page.goto(f"{stack.at.practice}/shoppers")
    values = {"Shoppers a day": "80", "Days": str(days), "Seed": str(seed), "A pressed, percent": "40",
              "A added, percent": "30", "B pressed, percent": "80", "B added, percent": "70"}  # fmt: skip
    for label, value in values.items():
        page.get_by_label(label, exact=True).fill(value)
    page.get_by_role("button", name="Send them").click()
    expect(page.get_by_role("status")).to_contain_text("Done", timeout=90_000)
    expect(page.get_by_role("status")).not_to_contain_text("refused")


def test_one_purchase_button_from_drawing_to_verdict(empty_shop: Stack, tab: Tab) -> None:
    stack, page = empty_shop, tab.page

    # 1. Sign in: first wrongly, then rightly.
    page.goto(stack.at.studio)
    page.get_by_label("Mail address").fill(demo.EMAIL)
    page.get_by_label("Password").fill("not-the-password")
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("alert")).to_contain_text("do not belong together")
    page.get_by_label("Password").fill(demo.PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_text("The catalogue is empty.")).to_be_visible()

    # 2. The catalogue comes in as CSV, looked at first.
    page.get_by_label("Catalogue as CSV or JSON-LD").set_input_files(Path("practice/catalogue.csv"))
    page.get_by_role("button", name="Import 60 products").click()
    expect(page.get_by_role("heading", name="Taken in")).to_be_visible()
    page.get_by_role("button", name="Close").click()
    expect(page.get_by_text("60 products in 8 categories")).to_be_visible()

    # 3. Draw: a size picked, a number typed, stepped, undone, redone.
    page.goto(f"{stack.at.studio}/draw/product_page")
    pick(page, "Size", "as wide as its container")
    kept(page)
    radius = page.get_by_label("corner radius, px").first
    expect(radius).to_have_value("4")
    radius.fill("10")
    radius.press("Enter")
    radius.press("ArrowUp")
    radius.press("Shift+ArrowUp")
    expect(radius).to_have_value("21")
    kept(page)
    page.keyboard.press("Control+z")
    expect(radius).to_have_value("11")
    page.keyboard.press("Control+Shift+z")
    expect(radius).to_have_value("21")

    # 4. A mistake is found with its number, and its fix is pressed.
    page.locator("[aria-label^='Fill: ']").first.click()
    page.get_by_label("Fill as hex").fill("#c9a35a")
    page.get_by_label("Fill as hex").press("Enter")
    finding = page.locator("[data-rule=contrast]")
    expect(finding.first).to_contain_text("Words at rest 1.98 : 1, 4.5 is needed")
    finding.first.get_by_role("button", name="Fix: fill").click()
    expect(page.get_by_text("It fits and can be read.")).to_be_visible()

    # 5. Words: changed, with a live value; emptied, it falls back.
    page.goto(f"{stack.at.studio}/words")
    field = page.get_by_label("Text", exact=True)
    field.fill("Into the skep, ")
    field.press_sequentially("{pri")
    expect(page.get_by_role("option", name="{price}", exact=True)).to_be_visible()
    field.press("Enter")
    expect(field).to_have_value("Into the skep, {price}")
    field.press("Enter")
    expect(
        page.get_by_role("button", name=re.compile(r"^ready, product page: Into the skep, £[\d,]+\.\d\d$"))
    ).to_be_visible()
    field.fill("")
    field.press("Enter")
    expect(page.get_by_role("button", name="ready, product page: Take it home")).to_be_visible()
    field.fill("Carry it home")
    field.press("Enter")
    expect(page.get_by_role("button", name="ready, product page: Carry it home")).to_be_visible()

    # 6. An exception with a note, and its trace.
    page.get_by_role("button", name="New exception…").click()
    page.get_by_label("For", exact=True).fill("Jars & labels, on the product page")
    expect(page.get_by_text("8 products")).to_be_visible()
    page.get_by_role("dialog").get_by_label("Text", exact=True).fill("By the case")
    page.get_by_label("Name", exact=True).fill("Jars")
    page.get_by_label("What it is for").fill("Nobody buys one jar")
    page.get_by_role("button", name="Save exception").click()
    expect(page.get_by_role("button", name="ready, product page, Jars: By the case")).to_be_visible()
    expect(page.get_by_label("The chosen text").get_by_text("Nobody buys one jar")).to_be_visible()

    # 7. A release is held back by what must be fixed; a text is shortened, the other fixes are pressed on the floor.
    page.goto(f"{stack.at.studio}/release")
    page.get_by_label("What this release is for").fill("First buttons")
    page.get_by_role("button", name="Release 1").click()
    expect(page.get_by_role("alert")).to_contain_text("must be fixed first: Too wide by")
    page.goto(f"{stack.at.studio}/words")
    for place in ("listing card", "strip"):
        page.get_by_role("button", name=f"in basket, {place}: ").click()
        field.fill("{count} in skep")
        field.press("Enter")
        expect(page.get_by_role("button", name=f"in basket, {place}: 12 in skep")).to_be_visible()
    page.goto(stack.at.studio)
    mend_all(page)

    # 8. The first release; the shop shows it on the next view, with its own button unseen.
    page.goto(f"{stack.at.practice}/p/HV-NUC6")
    expect(page.locator(".buy").get_by_role("button", name="Add to basket")).to_be_visible()
    page.goto(f"{stack.at.studio}/release")
    page.get_by_label("What this release is for").fill("First buttons")
    page.get_by_role("button", name="Release 1").click()
    expect(page.get_by_text("live now", exact=True)).to_be_visible()
    page.goto(f"{stack.at.practice}/p/HV-NUC6")
    expect(ours(page)).to_have_text("Carry it home, Six-frame nucleus box")
    expect(page.locator(".buy").get_by_role("button", name="Add to basket")).to_be_hidden()
    assert ours(page).evaluate("b => getComputedStyle(b).borderRadius") == "21px"

    # 9. A shopper looks, presses, buys; every signal arrives once.
    page.wait_for_timeout(1300)
    ours(page).click()
    expect(ours(page)).to_have_attribute("data-moment", "added")
    expect(page.locator("[data-basket-count]")).to_have_text("1")
    expect(ours(page)).to_have_text("1 in your skep, add another, Six-frame nucleus box")
    page.goto(f"{stack.at.practice}/checkout")
    page.get_by_label("A name for the parcel").fill("A Shopper")
    page.get_by_role("button", name="Place the order").click()
    page.wait_for_url("**/thanks/*")
    page.reload()
    until(lambda: [kind for kind, _, _ in events(stack)].count("ordered") == 1)
    page.wait_for_timeout(1800)
    assert sorted(set(events(stack))) == sorted(
        {("shown", "product_page", "HV-NUC6"), ("clicked", "product_page", "HV-NUC6"),
         ("added", "product_page", "HV-NUC6"), ("ordered", "", "HV-NUC6")}
    )  # fmt: skip
    assert len(events(stack)) == 4

    # 10. Practice shoppers give the shop a past, and the plan its pace.
    send_shoppers(page, stack, 44, 1)
    page.goto(f"{stack.at.studio}/trials")
    page.get_by_label("Question").fill("Does a shorter word sell more?")
    page.get_by_role("button", name="Draw version B").click()
    words = page.get_by_role("textbox", name="B's words")
    words.fill("Yours")
    words.press("Enter")
    expect(page.get_by_text("“Carry it home” →")).to_be_visible()
    worth = page.get_by_label("smallest difference, %")
    worth.fill("50")
    worth.press("Enter")
    expect(page.get_by_text("days, in whole weeks")).to_be_visible()
    ago = page.get_by_label("days ago, days")
    ago.fill("28")
    ago.press("Enter")
    page.get_by_role("button", name="Start the trial").click()
    verdict = page.locator("h1[data-outcome]")
    expect(verdict).to_have_attribute("data-outcome", "not_yet")
    expect(page.get_by_text("The rates stay covered")).to_be_visible()
    expect(page.get_by_role("button", name="Keep B, into the draft")).to_be_disabled()

    # 11. Either version can be forced by a link, and looking that way sends nothing.
    before = len(events(stack))
    for letter, says in (("A", "Carry it home"), ("B", "Yours")):
        page.goto(f"{stack.at.practice}/p/TL-BRUSH?up-show=1.{letter}")
        expect(ours(page)).to_contain_text(says)
        page.wait_for_timeout(1300)
    page.goto(f"{stack.at.practice}/")
    page.wait_for_timeout(300)
    assert [e for e in events(stack)[before:] if e[2] == "TL-BRUSH"] == []

    # 12. Shoppers decide it; the verdict is said, B is kept, released, and in the shop.
    send_shoppers(page, stack, 28, 2)
    page.goto(f"{stack.at.studio}/trials/1")
    expect(verdict).to_contain_text("Keep B. With it ")
    expect(verdict).to_contain_text("points more shoppers add to the basket: between")
    page.get_by_role("button", name="Keep B, into the draft").click()
    expect(verdict).to_contain_text("B was kept on ")
    page.get_by_role("link", name="To the release").click()
    page.get_by_role("button", name="Release 2").click()
    expect(page.get_by_role("button", name="Roll back to release 1")).to_be_visible()
    page.goto(f"{stack.at.practice}/p/TL-BRUSH")
    expect(ours(page)).to_have_text("Yours, Goose-wing bee brush")

    # 13. And taken back to the first release again.
    page.goto(f"{stack.at.studio}/release")
    page.get_by_role("button", name="Roll back to release 1").click()
    expect(page.get_by_text("Rolled back to release 1").first).to_be_visible()
    page.goto(f"{stack.at.practice}/p/TL-BRUSH")
    expect(ours(page)).to_contain_text("Carry it home")
    # Asked for without a session, and a release held back: both were meant.
    assert [told for told in tab.told if "401" not in told and "409" not in told] == []


def test_a_run_of_practice_shoppers_can_be_stopped(empty_shop: Stack, tab: Tab) -> None:
    end = datetime.now(UTC)
    rates = {"clicked": 0.4, "added": 0.3, "ordered": 0.1}
    wish: dict[str, Any] = {
        "start": (end - timedelta(days=60)).isoformat(), "end": end.isoformat(), "shoppers_per_day": 400, "seed": 9,
        "rates": {"A": rates, "B": rates},
    }  # fmt: skip
    request = tab.context.request
    number = request.post(f"{empty_shop.at.practice}/shoppers/runs", data=wish).json()["id"]
    again = request.post(f"{empty_shop.at.practice}/shoppers/runs", data=wish)
    assert again.status == 422
    assert "walking about already" in again.text()
    stopped = request.delete(f"{empty_shop.at.practice}/shoppers/runs/{number}").json()
    assert stopped["state"] == "stopped"
    time.sleep(0.5)
    told = request.get(f"{empty_shop.at.practice}/shoppers/runs/{number}").json()
    assert told["state"] == "stopped"
    assert told["shoppers"] < told["planned"]
