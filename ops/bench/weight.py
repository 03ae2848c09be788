"""How much the script weighs: its files, the demo's own, and a release with many exceptions."""

import gzip
from pathlib import Path

import httpx2

from ops import demo
from ops.bench.large_shop import EXCEPTIONS, settings_over
from ops.bench.rows import Row
from ops.bench.run import Run

ROOT = Path(__file__).resolve().parents[2]


def measure(run: Run) -> list[Row]:
    bare, later = _built_kb("up"), _built_kb("later")
    pieces = {
        "the sticky bar": _built_kb("bar"),
        "a floating button": _built_kb("floating"),
        "buttons on pictures": _built_kb("over"),
    }
    small, small_br = _served_kb(run.at.edge, "gzip"), _served_kb(run.at.edge, "br")
    with run.wiring.open_shop(demo.KEY) as shop:
        products = shop.catalogue.all()
    drawn = settings_over([p.sku for p in products], sorted({p.category for p in products}))
    # The shop's own looks stay, since they are as high as its own buttons.
    with run.published(lambda settings: settings.model_copy(update={"exceptions": drawn.exceptions})):
        large = _served_kb(run.at.edge, "gzip")
    return [
        Row("script, gzip", bare, "kB", 0.2, "an empty build", "≤ 7 kB", bare <= 7),
        Row("what it loads once buttons stand, gzip", later, "kB", bare, "the script", "≤ 7 kB", later <= 7),
        *(Row(f"{name}, gzip", kb, "kB", bare, "the script", "≤ 2 kB", kb <= 2) for name, kb in pieces.items()),
        Row("the demo's file, gzip", small, "kB", bare, "the script", "≤ 2.3 ×", small <= bare * 2.3),
        Row("the demo's file, brotli", small_br, "kB", bare, "the script", "≤ 14 kB", small_br <= 14),
        Row(f"with {EXCEPTIONS} exceptions, gzip", large, "kB", small, "the demo's file", "≤ 40 kB", large <= 40),
    ]


def _built_kb(name: str) -> float:
    return len(gzip.compress((ROOT / f"storefront/dist/{name}.js").read_bytes(), 9)) / 1000


def _served_kb(edge: str, how: str) -> float:
    with (
        httpx2.Client(headers={"Accept-Encoding": how}) as client,
        client.stream("GET", f"{edge}/s/{demo.KEY}/up.js") as answer,
    ):
        return sum(len(part) for part in answer.iter_raw()) / 1000
