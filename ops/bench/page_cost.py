"""What the script costs a shop's page: the main thread's time by phase, for the first view and for later ones.

Every figure is what a page takes more than the same page without our line, in turn, so that a busy moment of the
machine falls on both. Later views are of the same browser, which has the files and may have kept their compiled code.
"""

import json
import tempfile
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from playwright.sync_api import BrowserContext

from ops import demo
from ops.bench.rows import Row, median
from ops.bench.run import WINDOW, Run
from ops.chromium import AGENT, FLAGS, PROGRAM
from uptick.core.button.document import Device, Placement
from uptick.core.button.on_pages import PageKind
from uptick.core.rules.pointed import Pages, PointedPlace, Where
from uptick.core.rules.settings import Settings

ROUNDS, SLOW = 7, 4
# Most views of a shop are later ones.
VIEWS = ("first view", "second view", "third view")
# A window in which all hundred stand at once, which no shopper has: the most that can be asked of one moment.
TALL = {"width": 1280, "height": 9000}
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
# A carousel beside the cards: something changes in every frame that is no place of ours.
CAROUSEL = """async many => {
  const strip = document.createElement('div');
  document.body.append(strip);
  for (let n = 0; n < many; n++) {
    const picture = document.createElement('p');
    picture.textContent = n;
    strip.replaceChildren(picture);
    await new Promise(done => requestAnimationFrame(done));
  }
}"""
POINTED = 500
# So many of the hundred cards stand only once somebody scrolls.
COMING = 80
CARDS = "[data-up-place=listing_card][data-up-stands]"
PHASES = {
    "reading scripts": {"v8.compile", "EvaluateScript", "v8.deserializeOnBackground", "v8.produceCache"},
    "script running": {"RunMicrotasks", "FunctionCall", "TimerFire", "FireAnimationFrame"},
    "garbage": {"MinorGC", "MajorGC", "V8.GC_SCAVENGER", "V8.GCScavenger", "V8.GCIncrementalMarking"},
    "style": {"UpdateLayoutTree", "ParseAuthorStyleSheet"},
    "layout": {"Layout"},
    "paint": {"PrePaint", "Paint", "Layerize", "Commit"},
}
SCRIPT = ("reading scripts", "script running", "garbage")


@dataclass(frozen=True, slots=True)
class Visit:
    """Milliseconds of the page's main thread, in all and by phase, and its longest task after the buttons began."""

    main_ms: float
    phases: dict[str, float]
    longest_ms: float

    @property
    def script_ms(self) -> float:
        return sum(self.phases[name] for name in SCRIPT)


Pair = tuple[Visit, Visit]


def measure(run: Run) -> list[Row]:
    url = f"{run.at.practice}/c/smokers-tools?many=100"
    rounds = run.times(ROUNDS)
    views = VIEWS[: run.times(len(VIEWS))]
    usual = [_pair(run, url, WINDOW, len(views)) for _ in range(rounds)]
    tall = [_pair(run, url, TALL, 1)[0] for _ in range(rounds)]
    slow = [_pair(run, url, WINDOW, 1, SLOW)[0] for _ in range(run.times(3))]
    shift, own = _scrolled(run, url), _scrolled(run, f"{url}&without-snippet")
    hung = f"{run.at.practice}/p/HV-NUC6"
    comes = [_scrolled_ms(run, url) for _ in range(run.times(5))]
    bare_comes = median([_scrolled_ms(run, f"{url}&without-snippet") for _ in range(run.times(5))])
    a_card = (median(comes) - bare_comes) / COMING
    scrolls = [(_a_scroll(run, hung), _a_scroll(run, f"{hung}?without-snippet")) for _ in range(run.times(5))]
    bare_scroll = median([without for _, without in scrolls])
    costs = median([ours - without for ours, without in scrolls])
    return [
        *(row for n, name in enumerate(views) for row in _view(name, [pairs[n] for pairs in usual])),
        *_all_at_once(tall),
        *_long(slow),
        Row("100 cards, layout shift", shift, "", own, "without it", "0", shift <= own),
        Row("a card that comes near", a_card, "ms", bare_comes / COMING, "scrolled without it", "≤ 2 ms", a_card <= 2),
        Row(f"a scroll with the bar, {SLOW} × slower", costs, "ms", bare_scroll, "without it", "≤ 1 ms", costs <= 1),
        *_changes(run),
    ]


def _view(name: str, pairs: Sequence[Pair]) -> list[Row]:
    bare = median([without.main_ms for _, without in pairs])
    script = median([ours.script_ms - without.script_ms for ours, without in pairs])
    whole = median([ours.main_ms for ours, _ in pairs])
    rows = [
        Row(
            f"{name}: {phase}",
            median([ours.phases[phase] - without.phases[phase] for ours, without in pairs]),
            "ms",
            median([without.phases[phase] for _, without in pairs]),
            "without it",
            "told",
            True,
        )
        for phase in PHASES
    ]
    return [
        *rows,
        Row(f"{name}: script in all", script, "ms", bare, "main thread without it", "≤ ⅒ of it", script <= bare / 10),
        Row(f"{name}: main thread in all", whole, "ms", bare, "without it", "≤ 1.25 ×", whole <= bare * 1.25),
    ]


def _all_at_once(pairs: Sequence[Pair]) -> list[Row]:
    bare, whole = median([without.main_ms for _, without in pairs]), median([ours.main_ms for ours, _ in pairs])
    script = median([ours.script_ms - without.script_ms for ours, without in pairs])
    return [
        Row("100 cards at once: script in all", script, "ms", bare, "main thread without it", "told", True),
        Row("100 cards at once: main thread in all", whole, "ms", bare, "without it", "≤ 1.8 ×", whole <= bare * 1.8),
    ]


def _long(slow: Sequence[Pair]) -> list[Row]:
    ours, bare = (median([pair[n].longest_ms for pair in slow]) for n in (0, 1))
    return [Row(f"longest task, {SLOW} × slower", ours, "ms", bare, "without it", "≤ 2.5 ×", ours <= bare * 2.5)]


def _pair(run: Run, url: str, window: dict[str, int], views: int, slower: int = 1) -> list[Pair]:
    """Return what views one after the other cost with our line and without it."""
    ours = _visits(run, url, window, views, slower)
    bare = _visits(run, f"{url}&without-snippet", window, views, slower)
    return list(zip(ours, bare, strict=True))


def _visits(run: Run, url: str, window: dict[str, int], views: int, slower: int) -> list[Visit]:
    # In a folder of its own, as shoppers have it: only there a browser keeps what it compiled for the next view.
    with tempfile.TemporaryDirectory() as profile:
        context = run.browser.browser_type.launch_persistent_context(
            profile,
            executable_path=PROGRAM,
            args=FLAGS,
            viewport=window,  # type: ignore[arg-type]
            user_agent=AGENT,
        )
        try:
            return [_visit(context, url, slower) for _ in range(views)]
        finally:
            context.close()


def _visit(context: BrowserContext, url: str, slower: int) -> Visit:
    browser = context.browser
    assert browser, "a context that was launched by itself has its own browser"
    page = context.new_page()
    session = context.new_cdp_session(page)
    session.send("Performance.enable", {"timeDomain": "threadTicks"})
    session.send("Emulation.setCPUThrottlingRate", {"rate": slower})
    browser.start_tracing(
        page=page, categories=["devtools.timeline", "v8", "v8.execute", "toplevel", "blink.user_timing"]
    )
    page.goto(url, wait_until="networkidle")
    page.wait_for_timeout(500)
    trace = json.loads(browser.stop_tracing())["traceEvents"]
    main_ms = _tasks_ms(session)
    if "without" not in url:
        stand = page.locator(CARDS).count()
        least = 100 if page.viewport_size == TALL else 3
        assert stand >= least, f"{stand} of {least} cards got their button"
    page.close()
    return _read(trace, main_ms)


def _a_scroll(run: Run, url: str) -> float:
    """Return the main thread's milliseconds for one scroll of a long product page, past where the bar comes."""
    page = run.page()
    session = page.context.new_cdp_session(page)
    session.send("Performance.enable", {"timeDomain": "threadTicks"})
    page.goto(url, wait_until="networkidle")
    page.evaluate("document.querySelector('main').style.paddingBottom = '6000px'")
    session.send("Emulation.setCPUThrottlingRate", {"rate": SLOW})
    page.wait_for_timeout(500)
    before = _tasks_ms(session)
    page.evaluate(STEPS, SCROLLS)
    took = _tasks_ms(session) - before
    if "without" not in url:
        assert page.locator("[data-up-bar][data-in]").count() == 1, "the bar did not come"
    page.context.close()
    return took / SCROLLS


def _scrolled_ms(run: Run, url: str) -> float:
    """Return the main thread's milliseconds for a scroll through the whole list, in which its cards come near."""
    page = run.page()
    session = page.context.new_cdp_session(page)
    session.send("Performance.enable", {"timeDomain": "threadTicks"})
    page.goto(url, wait_until="networkidle")
    page.wait_for_timeout(500)
    stood = page.locator(CARDS).count()
    before = _tasks_ms(session)
    page.evaluate(SCROLL)
    page.wait_for_timeout(300)
    took = _tasks_ms(session) - before
    came = page.locator(CARDS).count() - stood
    assert "without" in url or came >= COMING, f"{came} cards came near"
    page.context.close()
    return took


def _scrolled(run: Run, url: str) -> float:
    page = run.page()
    page.goto(url, wait_until="networkidle")
    page.evaluate(SCROLL)
    page.wait_for_timeout(200)
    if "without" not in url:
        assert page.locator(CARDS).count() == 100, "not every card got its button"
    shift = float(page.evaluate(SHIFT))
    page.context.close()
    return shift


def _changes(run: Run) -> list[Row]:
    """Return what a page with 500 places that were pointed at pays for a change of something else in every frame."""
    frames = run.times(240, 20)
    with run.published(_with_pointed_cards):
        pairs = [(_carousel(run, frames, ours=True), _carousel(run, frames, ours=False)) for _ in range(run.times(3))]
    more, bare = median([with_us - without for with_us, without in pairs]), median([without for _, without in pairs])
    name = f"{POINTED} pointed cards, a change beside them in every frame"
    return [Row(name, more, "ms", bare, "without it", "≤ 1 ms", more <= 1)]


def _with_pointed_cards(settings: Settings) -> Settings:
    place = PointedPlace(
        placement=Placement.LISTING_CARD,
        selector=".unmarked button",
        where=Where.INSTEAD,
        pages=Pages(kinds=(PageKind.LIST,)),
        widths_px=dict.fromkeys(Device, 200),
        own_height_px=40,
        page_path="/many",
    )
    return settings.model_copy(update={"pointed": {"many": place}})


def _page_of_cards(line: str) -> str:
    """Return a page of unmarked cards, each with the form of its product, and what the page tells of them all."""
    nodes = [
        {
            "@type": "Product", "sku": f"M{n:03d}", "name": f"Thing {n}", "url": f"/p/M{n:03d}",
            "offers": {"price": "12.50", "priceCurrency": "GBP", "availability": "https://schema.org/InStock"},
        }
        for n in range(POINTED)
    ]  # fmt: skip
    cards = "".join(
        f'<article class=unmarked><a href="/p/M{n:03d}">Thing {n}</a><form action="/basket/add" method=post>'
        f'<input type=hidden name=sku value="M{n:03d}"><input type=hidden name=qty value=1><button>Add</button></form>'
        "</article>"
        for n in range(POINTED)
    )
    data = f'<script type="application/ld+json">{json.dumps({"@graph": nodes})}</script>'
    return f"<!doctype html><html lang=en-GB><head>{line}{data}</head><body><main>{cards}</main></body></html>"


def _carousel(run: Run, frames: int, *, ours: bool) -> float:
    """Return the main thread's milliseconds for one frame with a change in it."""
    page = run.page()
    page.context.grant_permissions(["local-network-access"])
    line = f'<script async src="{run.at.edge}/s/{demo.KEY}/up.js"></script>' if ours else ""
    page.route("**/many", lambda route: route.fulfill(body=_page_of_cards(line), content_type="text/html"))
    session = page.context.new_cdp_session(page)
    session.send("Performance.enable", {"timeDomain": "threadTicks"})
    page.goto(f"{run.at.practice}/many", wait_until="networkidle")
    page.wait_for_timeout(500)
    assert page.locator("up-place").count() == (POINTED if ours else 0), "not every card got its place"
    before = _tasks_ms(session)
    page.evaluate(CAROUSEL, frames)
    took = _tasks_ms(session) - before
    page.context.close()
    return took / frames


def _tasks_ms(session: Any) -> float:
    metrics = {m["name"]: m["value"] for m in session.send("Performance.getMetrics")["metrics"]}
    return float(metrics["TaskDuration"]) * 1000


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
