"""What the script costs a shop's page: bytes, main-thread time on a hundred cards, and layout shift."""

import gzip
import json
from pathlib import Path
from typing import Any

import httpx2
from playwright.sync_api import Browser, sync_playwright

from ops import demo
from ops.bench.rows import Row, median
from ops.chromium import AGENT, FLAGS, PROGRAM

ROOT = Path(__file__).resolve().parents[2]
ROUNDS = 9
SHIFT = """() => new Promise(done => {
  let sum = 0;
  new PerformanceObserver(list => list.getEntries().forEach(e => sum += e.value))
    .observe({ type: 'layout-shift', buffered: true });
  setTimeout(() => done(sum), 300);
})"""


def measure(edge: str, practice: str) -> list[Row]:
    bare = len(gzip.compress((ROOT / "storefront/dist/up.js").read_bytes(), 9)) / 1000
    with (
        httpx2.Client(headers={"Accept-Encoding": "gzip"}) as client,
        client.stream("GET", f"{edge}/s/{demo.KEY}/up.js") as answer,
    ):
        served = sum(len(part) for part in answer.iter_raw()) / 1000
    rows = [
        Row("script, gzip", bare, "kB", 0.2, "an empty build", "≤ 7 kB", bare <= 7),
        Row("script with the release, gzip", served, "kB", bare, "the script", "≤ 40 kB", served <= 40),
    ]
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=PROGRAM, args=FLAGS)
        page = f"{practice}/c/smokers-tools?many=100"
        # In turn, so that a busy moment of the machine falls on both.
        pairs = [(_visit(browser, page), _visit(browser, f"{page}&without-snippet")) for _ in range(ROUNDS)]
        browser.close()
    more = median([ours["main_ms"] - bare["main_ms"] for ours, bare in pairs])
    without = median([bare["main_ms"] for _, bare in pairs])
    shift, own = max(ours["shift"] for ours, _ in pairs), max(bare["shift"] for _, bare in pairs)
    assert all(ours["stand_scrolled"] == 100 for ours, _ in pairs), "not every card got its button"
    script = median([ours["script_ms"] - bare["script_ms"] for ours, bare in pairs])
    return [
        *rows,
        Row("100 cards, script running", script, "ms", without, "main thread without it", "≤ 15 ms", script <= 15),
        Row("100 cards, main thread in all", more, "ms", without, "main thread without it", "told", True),
        Row("100 cards, layout shift", shift, "", own, "the page without it", "0", shift == 0),
    ]


def _visit(browser: Browser, url: str) -> dict[str, Any]:
    context = browser.new_context(viewport={"width": 1280, "height": 800}, user_agent=AGENT)
    page = context.new_page()
    session = context.new_cdp_session(page)
    session.send("Performance.enable")
    browser.start_tracing(page=page, categories=["devtools.timeline", "v8", "v8.execute"])
    page.goto(url, wait_until="networkidle")
    page.wait_for_timeout(300)
    trace = json.loads(browser.stop_tracing())["traceEvents"]
    metrics = {m["name"]: m["value"] for m in session.send("Performance.getMetrics")["metrics"]}
    found = {
        "main_ms": metrics["TaskDuration"] * 1000,
        "script_ms": _script_ms(trace),
        "shift": page.evaluate(SHIFT),
        "stand": page.locator("[data-up-button]").count(),
    }
    page.evaluate("async () => { for (let y = 0; y < document.body.scrollHeight; y += 300) {"
                  "scrollTo(0, y); await new Promise(r => setTimeout(r, 40)); } }")  # fmt: skip
    page.wait_for_timeout(200)
    found["stand_scrolled"] = page.locator("[data-up-button]").count()
    context.close()
    return found


_SCRIPT = {"RunMicrotasks", "FunctionCall", "EvaluateScript", "v8.compile", "v8.run", "V8.GC_SCAVENGER"}


def _script_ms(trace: list[dict[str, Any]]) -> float:
    """Return how long the page's main thread ran scripts: the union of their spans, since they lie in each other."""
    main = {(e["pid"], e["tid"]) for e in trace if _names_main(e)}
    spans = sorted(
        (e["ts"], e["ts"] + e.get("dur", 0))
        for e in trace
        if e.get("ph") == "X" and e["name"] in _SCRIPT and (e["pid"], e["tid"]) in main
    )
    total, reached = 0.0, 0.0
    for begin, end in spans:
        total += max(0.0, end - max(begin, reached))
        reached = max(reached, end)
    return total / 1000


def _names_main(event: dict[str, Any]) -> bool:
    return event.get("name") == "thread_name" and event["args"]["name"] == "CrRendererMain"
