"""Measures the budgets, each beside a baseline of the same run: `./bench`, or `./bench --json` for programs."""

import argparse
import json
import os
import sys
import tempfile
import traceback
from collections.abc import Callable
from dataclasses import asdict
from pathlib import Path

from playwright.sync_api import sync_playwright
from rich.console import Console
from rich.table import Table

from ops import cluster, demo
from ops.bench import edit, opened, page_cost, place, screen, shop, signals, weight
from ops.bench.rows import Row
from ops.bench.run import Run
from ops.chromium import FLAGS, PROGRAM
from ops.parts import prepare
from uptick.wiring import Environment, Wiring

PARTS: dict[str, Callable[[Run], list[Row]]] = {
    "edit": edit.measure,
    "screen": screen.measure,
    "place": place.measure,
    "page": page_cost.measure,
    "weight": weight.measure,
    "opened": opened.measure,
    "signals": signals.measure,
    "shop": shop.measure,
}


def main() -> int:
    parser = argparse.ArgumentParser(prog="./bench", description="Measure the budgets of the product.")
    parser.add_argument("--json", action="store_true", help="one JSON object a row")
    parser.add_argument("--once", action="store_true", help="run every part once on little data, and judge no figure")
    parser.add_argument("part", nargs="*", help=f"{', '.join(PARTS)}; all where none is named")
    wish = parser.parse_args()
    rows = _measure(wish.part, wish.once)
    if wish.json:
        for row in rows:
            print(json.dumps({**asdict(row), "ratio": row.ratio}))
    else:
        _print(rows)
    return 0 if all(row.holds or (wish.once and row.ran) for row in rows) else 1


def _measure(wished: list[str], once: bool) -> list[Row]:
    folder = cluster.place_for("bench-pg")
    cluster.remove(folder)
    running = cluster.start(folder, 8880)
    with tempfile.TemporaryDirectory() as room, sync_playwright() as playwright:
        parts = prepare(
            running, "bench", "secret-of-bench-that-nobody-has-to-guess", Path(room), 8881, f"{room}/practice.db"
        )
        os.environ.update(parts.environment)
        try:
            parts.start_all()
            wiring = Wiring(Environment())
            demo.begin(wiring, empty=False, say=lambda what: print(f"  {what}", file=sys.stderr))
            browser = playwright.chromium.launch(executable_path=PROGRAM, args=FLAGS)
            run = Run(parts, running, wiring, browser, once)
            rows = [row for name in wished or PARTS for row in _measured(name, run)]
            browser.close()
            wiring.engine.dispose()
            return rows
        finally:
            parts.stop_all()
            cluster.stop(running)
            cluster.remove(folder)


def _measured(name: str, run: Run) -> list[Row]:
    """Measure one part. Where it cannot be, a row says so and the others are measured all the same."""
    try:
        return PARTS[name](run)
    except Exception as error:
        traceback.print_exc()
        why = f"{type(error).__name__}: {str(error).splitlines()[0][:80] if str(error) else ''}"
        return [Row(f"{name} could not be measured ({why})", 0, "", 0, "nothing", "to run", holds=False, ran=False)]


def _print(rows: list[Row]) -> None:
    table = Table("what", "figure", "baseline", "ratio", "budget", "", box=None, pad_edge=False)
    for row in rows:
        ratio = "–" if row.ratio is None else f"{row.ratio:,.2f}"
        table.add_row(
            row.name,
            f"{row.figure:,.1f} {row.unit}",
            f"{row.baseline:,.1f} {row.unit}: {row.against}",
            ratio,
            row.budget,
            "holds" if row.holds else "BROKEN",
        )
    Console(width=132).print(table)


if __name__ == "__main__":
    sys.exit(main())
