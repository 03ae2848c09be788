"""How long what a press opens takes to be there: the basket beyond the shop's own answer, and a closer look."""

from typing import Any

from playwright.sync_api import Page

from ops.bench.rows import Row, median, p95
from ops.bench.run import Run
from uptick.core.button.document import Placement
from uptick.core.button.merge import Json, merge_layer
from uptick.core.rules.settings import Settings

ROUNDS = 20
BASKET_MS, CLOSER_MS = 100.0, 150.0
_CLOSER: Json = {
    "kind": "closer", "side": "under", "wording": {"en-GB": "Look closer"}, "border": {"kind": "none"}, "radius": 0,
    "padding": {"top": 8, "right": 8, "bottom": 8, "left": 8},
}  # fmt: skip
# From the press to the frame that shows a sheet with words on it; with the time at which the shop had answered.
WATCH = """() => { window.opened = new Promise(done => addEventListener('click', ({ timeStamp }) => {
  performance.clearResourceTimings();
  const look = () => {
    const sheet = document.querySelector('[data-up-sheet]')?.shadowRoot?.querySelector('dialog[open] h2');
    if (!sheet?.getClientRects().length) return requestAnimationFrame(look);
    requestAnimationFrame(() => {
      const told = performance.getEntriesByType('resource').find(({ name }) => name.endsWith('/basket/add'));
      done({ shown: performance.now() - timeStamp, answered: told ? told.responseEnd - timeStamp : 0 });
    });
  };
  look();
}, { capture: true, once: true })); }"""


def measure(run: Run) -> list[Row]:
    page, practice, rounds = run.page(), run.at.practice, range(run.times(ROUNDS))
    with run.published(_opening):
        baskets = [_basket(page, practice) for _ in rounds]
        closers = [_closer(page, practice, rest_ms=300) for _ in rounds]
        at_once = [_closer(page, practice, rest_ms=0) for _ in rounds]
    page.context.close()
    beyond = [timing["shown"] - timing["answered"] for timing in baskets]
    answer = median([timing["answered"] for timing in baskets])
    rested, cold = p95([timing["shown"] for timing in closers]), p95([timing["shown"] for timing in at_once])
    return [
        Row(
            "the basket shown, beyond the shop's answer", p95(beyond), "ms", answer, "the shop's answer", "≤ 100 ms",
            p95(beyond) <= BASKET_MS,
        ),
        Row(
            "a closer look, a pointer rested there", rested, "ms", cold, "pressed at once", "≤ 150 ms",
            rested <= CLOSER_MS,
        ),
    ]  # fmt: skip


def _basket(page: Page, practice: str) -> dict[str, Any]:
    page.goto(f"{practice}/p/TL-HOOK")
    button = page.locator("[data-up-place=product_page] [data-up-button] button.b")
    button.wait_for()
    page.wait_for_timeout(400)
    return _press(page, "[data-up-place=product_page] [data-up-button] button.b")


def _closer(page: Page, practice: str, rest_ms: int) -> dict[str, Any]:
    page.goto(f"{practice}/c/smokers-tools")
    second = "[data-up-place=listing_card] [data-up-button] button.s"
    page.locator(second).first.wait_for()
    page.wait_for_timeout(400)
    if rest_ms:
        page.locator(second).first.hover()
        page.wait_for_timeout(rest_ms)
    return _press(page, second)


def _press(page: Page, what: str) -> dict[str, Any]:
    page.evaluate(WATCH)
    page.locator(what).first.click()
    result: dict[str, Any] = page.evaluate("window.opened")
    return result


def _opening(settings: Settings) -> Settings:
    """Return settings whose presses show the basket, and whose cards can be looked at more closely."""
    cards = merge_layer(settings.placements.get(Placement.LISTING_CARD, {}), {"second": _CLOSER})
    return settings.model_copy(
        update={
            "baseline": merge_layer(settings.baseline, {"afterwards": {"kind": "show"}}),
            "placements": {**settings.placements, Placement.LISTING_CARD: cards},
        }
    )
