"""One edit as a designer sees it: from the key to the new drawing, and to the shop's page in three frames."""

from pathlib import Path

from playwright.sync_api import Page

from ops.bench.rows import Row, median, p95
from ops.bench.run import Run

EDITS = 40
# Medians of what an edit's time goes into.
PARTS = ("until it is asked for", "server and wire", "reading the answer, state", "drawing, layout, paint")
# When style sheets of drawings were written, by the page's clock: the answer has been read and is being drawn.
WRITES = """(() => {
  const { replaceSync } = CSSStyleSheet.prototype;
  window.wroteAt = [];
  CSSStyleSheet.prototype.replaceSync = function (css) {
    wroteAt.push(performance.now());
    replaceSync.call(this, css);
  };
})()"""
# From the key on a number to the frame in which the drawing has it, and where the time goes.
DRAWN = """want => new Promise((done, fail) => {
  const host = document.querySelector('.stage .button [inert]');
  const input = document.querySelector("input[aria-label='corner radius, px']");
  performance.clearResourceTimings();
  wroteAt.length = 0;
  const began = performance.now();
  // A key that is held is kept once it is let go.
  for (const kind of ['keydown', 'keyup'])
    input.dispatchEvent(new KeyboardEvent(kind, { key: 'ArrowUp', bubbles: true, cancelable: true }));
  const look = () => {
    const radius = getComputedStyle(host.shadowRoot.querySelector('button')).borderTopLeftRadius;
    const took = performance.now() - began;
    if (radius === want) {
      const { startTime, responseEnd } = performance.getEntriesByType('resource').find(e => e.name.includes('/draw/'));
      const wrote = wroteAt.find(at => at >= responseEnd) ?? responseEnd;
      done([took, startTime - began, responseEnd - startTime, wrote - responseEnd, began + took - wrote]);
    }
    else if (took > 5000) fail(new Error(`the drawing has ${radius} where ${want} was set`));
    else requestAnimationFrame(look);
  };
  look();
})"""


def measure(run: Run) -> list[Row]:
    edits = run.times(EDITS)
    page = run.page(signed_in=True)
    page.add_init_script(WRITES)
    page.goto(f"{run.at.studio}/draw/product_page?device=desktop")
    spans = _drawn(page, edits)
    drawn = p95([whole for whole, *_ in spans])
    medians = [median([span[n + 1] for span in spans]) for n in range(len(PARTS))]
    stood = _stood(page, edits)
    still = p95([page.evaluate(FRAME) for _ in range(edits)])
    large, small = _stylesheets(run.page(), run.times(44_000, 440))
    page.context.close()
    return [
        Row("edit to new drawing on screen, p95", drawn, "ms", still, "one frame", "≤ 100 ms", drawn <= 100),
        *(
            Row(f"of it {part}", ms, "ms", still, "one frame", "told", True)
            for part, ms in zip(PARTS, medians, strict=True)
        ),
        Row("edit to the shop's three pages, p95", stood, "ms", still, "one frame", "≤ 100 ms", stood <= 100),
        Row("a button out of 2 MB of CSS", large, "ms", small, "out of 20 kB", "≤ 2000 ms", large <= 2000),
    ]


FRAME = "() => new Promise(done => requestAnimationFrame(a => requestAnimationFrame(b => done(b - a))))"


READER = Path(__file__).resolve().parents[2] / "studio/dist/reader/css.js"
READ = "async css => { const from = performance.now(); await UpCss.readCss({ css }); return performance.now() - from; }"


def _stylesheets(page: Page, many: int) -> tuple[float, float]:
    """Return how long the reader takes for a large and for a small stylesheet, in milliseconds."""
    page.set_content("<body>")
    page.add_script_tag(content=READER.read_text())
    own = ".btn{color:red;padding:4px}.btn:hover{color:blue}"
    rules = [f".c{n} > .d{n % 97}:hover{{color:#{n % 4096:03x};padding:{n % 50}px}}" for n in range(many)]
    return tuple(min(page.evaluate(READ, "".join(rules[:count]) + own) for _ in range(3)) for count in (many, 440))


def _drawn(page: Page, edits: int) -> list[list[float]]:
    radius = page.get_by_label("corner radius, px").first
    radius.wait_for()
    begun = int(radius.input_value())
    times = []
    for n in range(edits + 5):
        times.append(page.evaluate(DRAWN, f"{begun + n + 1}px"))
        page.wait_for_timeout(120)
    return times[5:]


def _stood(page: Page, edits: int) -> float:
    page.keyboard.press("p")
    for n in range(3):
        page.frame_locator("iframe").nth(n).locator("[data-up-place=product_page] [data-up-button] button").wait_for()
    gap = page.get_by_label("icon gap, px").first
    gap.focus()
    times = []
    for n in range(edits + 5):
        gap.press("ArrowUp" if n < edits else "ArrowDown")
        page.wait_for_timeout(450)
        took = page.get_by_text("the last edit stood here after").locator(".figure").last.inner_text()
        times.append(float(took))
    return p95(times[5:])
