"""Place along a page, as a designer has it: measuring, an edit until lanes and windows show it, scrubbing, a study."""

import json
import re
from typing import Any

from playwright.sync_api import Page

from ops.bench.rows import Row, median, p95
from ops.bench.run import Run

EDITS = 20
# So many pages the demo's study looks at, each on three devices.
PAGES = 14
SCRUB = """async () => {
  const strip = document.querySelector('section.strip svg');
  const took = [];
  let last = performance.now();
  for (let n = 0; n < 180; n++) {
    strip.dispatchEvent(new WheelEvent('wheel', { deltaY: n % 60 < 30 ? 20 : -20, bubbles: true, cancelable: true }));
    await new Promise(done => requestAnimationFrame(done));
    took.push(performance.now() - last);
    last = performance.now();
  }
  return took;
}"""
# How long a frame takes in which nothing happens, on this machine.
STILL = """async () => {
  const took = [];
  let last = performance.now();
  for (let n = 0; n < 60; n++) {
    await new Promise(done => requestAnimationFrame(done));
    took.push(performance.now() - last);
    last = performance.now();
  }
  return took;
}"""


def measure(run: Run) -> list[Row]:
    page = run.page(signed_in=True)
    asked: list[dict[str, Any]] = []
    page.on("request", lambda request: _keep(asked, request))
    page.goto(f"{run.at.studio}/place")
    page.get_by_text("of scrolling with a button in reach").wait_for()
    page.wait_for_timeout(2500)
    lanes, windows = _edits(page, run.times(EDITS, 3))
    still, scrub = page.evaluate(STILL), page.evaluate(SCRUB)
    page.get_by_label("Page:").click()
    page.get_by_role("option", name="listing cards").click()
    page.wait_for_timeout(4000)
    surveys = [survey["took_ms"] for body in asked for survey in body["surveys"].values()]
    study = _study(page, run.once)
    page.context.close()
    slowest, frame = max(surveys), median(still)
    lane, window, scrubbed = p95(lanes), p95(windows), p95(scrub)
    return [
        Row("measuring a page, the slowest", slowest, "ms", median(surveys), "the median", "≤ 400 ms", slowest <= 400),
        Row("from an edit to lanes and figures, p95", lane, "ms", frame, "a frame", "≤ 60 ms", lane <= 60),
        Row("from an edit to three windows, p95", window, "ms", frame, "a frame", "≤ 100 ms", window <= 100),
        Row("a frame while scrubbing, p95", scrubbed, "ms", frame, "a still frame", "≤ 1.5 ×", scrubbed <= frame * 1.5),
        Row("a study of the whole shop", study, "s", study / PAGES, "a page of it", "≤ 30 s", study <= 30),
    ]


def _keep(asked: list[dict[str, Any]], request: Any) -> None:
    if request.url.endswith("/places/along"):
        asked.append(json.loads(request.post_data))


def _edits(page: Page, edits: int) -> tuple[list[float], list[float]]:
    """Return how long edits took until the lanes and until the windows showed them, in milliseconds."""
    grip = page.get_by_role("slider", name="Where the bar comes")
    grip.focus()
    lanes, windows = [], []
    for n in range(edits):
        page.keyboard.press("ArrowDown" if n % 2 else "ArrowUp")
        page.wait_for_timeout(900)
        line = page.get_by_text("The last edit stood in the lanes after").inner_text()
        both = [float(figure) for figure in re.findall(r"after (\d+) ms", line)]
        # The first edit of a page finds nothing warm.
        if n and len(both) == 2:
            lanes.append(both[0])
            windows.append(both[1])
    return lanes, windows


def _study(page: Page, once: bool) -> float:
    page.get_by_role("button", name="Study the whole shop").click()
    page.get_by_role("region", name="Study of the whole shop").get_by_role("button", name="Study").click()
    if once:
        page.get_by_text(re.compile(r"^[1-9]\d* of \d+ pages looked at")).wait_for()
        page.get_by_role("button", name="Stop").click()
    line = page.get_by_text("it took").inner_text(timeout=120_000)
    match = re.search(r"took ([\d.]+)", line)
    return float(match[1]) if match else float("inf")
