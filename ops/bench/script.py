"""What the script costs a shop's page: bytes, main-thread time by phase on a hundred cards, long tasks, shift."""

import gzip
import json
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import httpx2
from playwright.sync_api import Browser, Page, sync_playwright

from ops import demo
from ops.bench.large_shop import EXCEPTIONS, settings_over
from ops.bench.rows import Row, median
from ops.chromium import AGENT, FLAGS, PROGRAM
from uptick.usecases.ports import Person
from uptick.usecases.publish import publish
from uptick.wiring import Wiring, clock

ROOT = Path(__file__).resolve().parents[2]
ROUNDS = 9
SLOW = 4
# A window in which all hundred stand at once, which no shopper has: the most that can be asked of one moment.
ALL_AT_ONCE = {"width": 1280, "height": 9000}
USUAL = {"width": 1280, "height": 800}
SHIFT = """() => new Promise(done => {
  let sum = 0;
  new PerformanceObserver(list => list.getEntries().forEach(e => sum += e.value))
    .observe({ type: 'layout-shift', buffered: true });
  setTimeout(() => done(sum), 300);
})"""
SCROLLS = 240
STEPS = """async many => { for (let n = 0; n < many; n++) {
  scrollBy({ top: 12, behavior: 'instant' }); await new Promise(r => requestAnimationFrame(r)); } }"""
SCROLL = """async () => { for (let y = 0; y < document.body.scrollHeight; y += 300) {
  scrollTo(0, y); await new Promise(r => setTimeout(r, 40)); } }"""


def measure(edge: str, practice: str, wiring: Wiring) -> list[Row]:
    bare = len(gzip.compress((ROOT / "storefront/dist/up.js").read_bytes(), 9)) / 1000
    later = len(gzip.compress((ROOT / "storefront/dist/later.js").read_bytes(), 9)) / 1000
    pieces = {
        name: len(gzip.compress((ROOT / f"storefront/dist/{file}.js").read_bytes(), 9)) / 1000
        for name, file in (
            ("the sticky bar", "bar"),
            ("a floating button", "floating"),
            ("buttons on pictures", "over"),
        )
    }
    small, small_br = _served_kb(edge, "gzip"), _served_kb(edge, "br")
    _publish_exceptions(wiring)
    large = _served_kb(edge, "gzip")
    rows = [
        Row("script, gzip", bare, "kB", 0.2, "an empty build", "≤ 7 kB", bare <= 7),
        Row("what it loads once buttons stand, gzip", later, "kB", bare, "the script", "≤ 7 kB", later <= 7),
        *(Row(f"{name}, gzip", kb, "kB", bare, "the script", "≤ 2 kB", kb <= 2) for name, kb in pieces.items()),
        Row("the demo's file, gzip", small, "kB", bare, "the script", "≤ 2.3 ×", small <= bare * 2.3),
        Row("the demo's file, brotli", small_br, "kB", bare, "the script", "≤ 14 kB", small_br <= 14),
        Row(f"with {EXCEPTIONS} exceptions, gzip", large, "kB", small, "the demo's file", "≤ 40 kB", large <= 40),
    ]
    url = f"{practice}/c/smokers-tools?many=100"
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=PROGRAM, args=FLAGS)
        # In turn, so that a busy moment of the machine falls on both.
        pairs = [(_visit(browser, url), _visit(browser, f"{url}&without-snippet")) for _ in range(ROUNDS)]
        bare_url = f"{url}&without-snippet"
        usual = [(_visit(browser, url, window=USUAL), _visit(browser, bare_url, window=USUAL)) for _ in range(5)]
        slow = [(_visit(browser, url, SLOW, USUAL), _visit(browser, bare_url, SLOW, USUAL)) for _ in range(3)]
        shift, own = _scrolled(browser, url), _scrolled(browser, f"{url}&without-snippet")
        hung = f"{practice}/p/HV-NUC6"
        scrolls = [(_a_scroll(browser, hung), _a_scroll(browser, f"{hung}?without-snippet")) for _ in range(5)]
        browser.close()
    still = Row("100 cards, layout shift", shift, "", own, "without it", "0", shift <= own)
    seen, page_ms = _script_ms(usual), median([without.main_ms for _, without in usual])
    first = _shared("a window's cards of the 100, script in all", seen, page_ms)
    bare_scroll = median([without for _, without in scrolls])
    costs = median([ours - without for ours, without in scrolls])
    scroll = Row(
        f"a scroll with the bar, {SLOW} × slower", costs, "ms", bare_scroll, "without it", "≤ 1 ms", costs <= 1
    )
    return [*rows, *_times(pairs), first, *_long(slow), still, scroll]


def _served_kb(edge: str, how: str) -> float:
    with (
        httpx2.Client(headers={"Accept-Encoding": how}) as client,
        client.stream("GET", f"{edge}/s/{demo.KEY}/up.js") as answer,
    ):
        return sum(len(part) for part in answer.iter_raw()) / 1000


def _publish_exceptions(wiring: Wiring) -> None:
    with wiring.open_shop(demo.KEY) as shop:
        products = shop.catalogue.all()
        drawn = settings_over([p.sku for p in products], sorted({p.category for p in products}))
        # The shop's own looks stay, since they are as high as its own buttons.
        settings = shop.drafts.read().settings.model_copy(update={"exceptions": drawn.exceptions})
        person = Person(1, demo.NAME, demo.EMAIL, (demo.KEY,))
        shop.drafts.append(shop.drafts.read().version, settings, "for measuring", person, clock())
        publish(shop, "for measuring", person, clock(), ("findings", "trial"))


@dataclass(frozen=True, slots=True)
class Visit:
    """Milliseconds of the page's main thread, in all and by phase, and its longest task after the buttons began."""

    main_ms: float
    phases: dict[str, float]
    longest_ms: float


PHASES = {
    "reading the script": {"v8.compile", "v8.parseOnBackground", "EvaluateScript"},
    "script running": {"RunMicrotasks", "FunctionCall", "V8.GC_SCAVENGER"},
    "style": {"UpdateLayoutTree", "ParseAuthorStyleSheet"},
    "layout": {"Layout"},
    "paint": {"PrePaint", "Paint", "Layerize", "Commit"},
}

# The cards of the list; what hangs at the window stands as well.
CARDS = "[data-up-place=listing_card][data-up-stands]"


def _script_ms(pairs: list[tuple[Visit, Visit]]) -> float:
    names = ("reading the script", "script running")
    return median([sum(ours.phases[name] - bare.phases[name] for name in names) for ours, bare in pairs])


def _times(pairs: list[tuple[Visit, Visit]]) -> list[Row]:
    def more(of: Any) -> float:
        return median([of(ours) - of(bare) for ours, bare in pairs])

    bare = {name: median([without.phases[name] for _, without in pairs]) for name in PHASES}
    rows = []
    for name in PHASES:
        figure = more(lambda visit, name=name: visit.phases[name])
        rows.append(Row(f"100 cards, {name}", figure, "ms", bare[name], "without it", "told", True))
    script = _script_ms(pairs)
    main = more(lambda visit: visit.main_ms)
    without = median([bare.main_ms for _, bare in pairs])
    return [
        *rows,
        _shared("100 cards, script in all", script, without),
        Row("100 cards, main thread in all", main, "ms", without, "main thread without it", "told", True),
    ]


def _long(slow: list[tuple[Visit, Visit]]) -> list[Row]:
    ours, bare = (median([pair[n].longest_ms for pair in slow]) for n in (0, 1))
    return [Row(f"longest task, {SLOW} × slower", ours, "ms", bare, "without it", "≤ 2.5 ×", ours <= bare * 2.5)]


def _shared(name: str, script_ms: float, page_ms: float) -> Row:
    """Return a row held to a share of what the page itself takes, which a faster machine does not change."""
    return Row(name, script_ms, "ms", page_ms, "main thread without it", "≤ ⅕ of it", script_ms <= page_ms / 5)


def _visit(browser: Browser, url: str, slower: int = 1, window: dict[str, int] = ALL_AT_ONCE) -> Visit:
    context = browser.new_context(viewport=window, user_agent=AGENT)  # type: ignore[arg-type]
    page = context.new_page()
    session = context.new_cdp_session(page)
    session.send("Performance.enable")
    session.send("Emulation.setCPUThrottlingRate", {"rate": slower})
    browser.start_tracing(
        page=page, categories=["devtools.timeline", "v8", "v8.execute", "toplevel", "blink.user_timing"]
    )
    page.goto(url, wait_until="networkidle")
    page.wait_for_timeout(500)
    trace = json.loads(browser.stop_tracing())["traceEvents"]
    metrics = {m["name"]: m["value"] for m in session.send("Performance.getMetrics")["metrics"]}
    if window is ALL_AT_ONCE and "without" not in url:
        stand = page.locator(CARDS).count()
        assert stand == 100, f"{stand} of 100 cards got their button"
    context.close()
    return _read(trace, metrics["TaskDuration"] * 1000)


def _a_scroll(browser: Browser, url: str) -> float:
    """Return the main thread's milliseconds for one scroll of a long product page, past where the bar comes."""
    context = browser.new_context(viewport=USUAL, user_agent=AGENT)  # type: ignore[arg-type]
    page = context.new_page()
    session = context.new_cdp_session(page)
    session.send("Performance.enable")
    page.goto(url, wait_until="networkidle")
    page.evaluate("document.querySelector('main').style.paddingBottom = '6000px'")
    session.send("Emulation.setCPUThrottlingRate", {"rate": SLOW})
    page.wait_for_timeout(500)
    before = _tasks_ms(session)
    page.evaluate(STEPS, SCROLLS)
    took = _tasks_ms(session) - before
    if "without" not in url:
        assert page.locator("[data-up-bar][data-in]").count() == 1, "the bar did not come"
    context.close()
    return took / SCROLLS


def _tasks_ms(session: Any) -> float:
    metrics = {m["name"]: m["value"] for m in session.send("Performance.getMetrics")["metrics"]}
    return float(metrics["TaskDuration"]) * 1000


def _scrolled(browser: Browser, url: str) -> float:
    context = browser.new_context(viewport=USUAL, user_agent=AGENT)  # type: ignore[arg-type]
    page: Page = context.new_page()
    page.goto(url, wait_until="networkidle")
    page.evaluate(SCROLL)
    page.wait_for_timeout(200)
    if "without" not in url:
        assert page.locator(CARDS).count() == 100, "not every card got its button"
    shift = float(page.evaluate(SHIFT))
    context.close()
    return shift


def _read(trace: list[dict[str, Any]], main_ms: float) -> Visit:
    # The browser has pages of its own, with main threads of their own: the shop's is where its script ran.
    main = {
        (e["pid"], e["tid"]) for e in trace if e["name"] == "EvaluateScript" and "/static/shop.js" in str(e["args"])
    }
    on_main = [e for e in trace if e.get("ph") == "X" and (e["pid"], e["tid"]) in main]
    phases = {name: _alone_ms(on_main, names) for name, names in PHASES.items()}
    scripts = [e for e in on_main if e["name"] == "EvaluateScript"]
    ours = [e["ts"] for e in scripts if "/up.js" in str(e.get("args", {}).get("data", {}).get("url", ""))]
    began = min(ours or [e["ts"] for e in scripts], default=0)
    tasks = [_ms(e) for e in on_main if e["name"].endswith("RunTask") and e["ts"] + e.get("dur", 0) > began]
    return Visit(main_ms, phases, max(tasks, default=0.0))


def _ms(event: dict[str, Any]) -> float:
    """Return how long the thread itself was at it, not how long it waited for a processor."""
    return float(event.get("tdur", event.get("dur", 0))) / 1000


def _alone_ms(events: list[dict[str, Any]], names: set[str]) -> float:
    """Return what events of some names took together, each moment once: they lie in each other."""
    every = set().union(*PHASES.values())
    total, open_until = 0.0, []  # type: ignore[var-annotated]
    for event in sorted((e for e in events if e["name"] in every), key=lambda e: (e["ts"], -e.get("dur", 0))):
        while open_until and open_until[-1][0] <= event["ts"]:
            open_until.pop()
        if event["name"] in names:
            total += _ms(event)
        # What lies in an event of another phase is not that phase's.
        if open_until and open_until[-1][1] in names:
            total -= _ms(event)
        open_until.append((event["ts"] + event.get("dur", 0), event["name"]))
    return total
