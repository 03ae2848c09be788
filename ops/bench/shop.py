"""What a large shop costs: every edit and look of a designer in it, its import, its release, and its memory."""

import gc
import gzip
import os
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path

import orjson

from ops import demo
from ops.bench.large_shop import large_catalogue, large_settings
from ops.bench.rows import Row, median, p95
from ops.bench.run import Run
from uptick.core.button.document import Device, Placement
from uptick.core.button.merge import Json
from uptick.core.engine.shops import CompiledShop
from uptick.core.formats.catalogue_file import write_csv
from uptick.core.release import CompiledRelease, compile_release
from uptick.core.rules.reach import Reach
from uptick.core.shop.catalogue import Product
from uptick.core.shop.store import Store
from uptick.main import settle
from uptick.usecases.edit import Wish, add_exception, change_layer
from uptick.usecases.importing import import_catalogue
from uptick.usecases.ports import Person
from uptick.usecases.publish import publish, view_release
from uptick.usecases.views import view_findings, view_floor, view_trace, view_words
from uptick.usecases.views.drawing import DrawQuery, try_edit, view_drawing
from uptick.usecases.views.why import TraceQuery
from uptick.wiring import Wiring, clock, load_kit, shops, tidy

KEY, LARGE, SMALL = "large", 50_000, 5_000
_WHO = Person(0, "bench", "", ())
_HERE = DrawQuery(Placement.PRODUCT_PAGE)
EDITS = 40


def _seconds(call: Callable[[], object]) -> float:
    began = time.perf_counter()
    call()
    return time.perf_counter() - began


def _resident_mb() -> float:
    """Return the memory that the process holds now."""
    gc.collect()
    pages = int(Path("/proc/self/statm").read_text().split()[1])
    return pages * os.sysconf("SC_PAGE_SIZE") / 1e6


def _at_most(name: str, figure: float, unit: str, most: float, baseline: float = 0, against: str = "–") -> Row:
    return Row(name, figure, unit, baseline, against, f"≤ {most:g} {unit}", figure <= most)


def measure(run: Run) -> list[Row]:
    wiring = run.wiring
    store = demo.demo_store(wiring.environment.practice_origin).model_copy(update={"key": KEY})
    load_kit().fonts.open_all()
    # As the servers do.
    if not run.once:
        settle()
    count = run.times(LARGE, 400)
    large = large_catalogue(count)
    rows = _from_nothing(store, large, run.times(SMALL, 100))
    with wiring.open_accounts() as accounts:
        owner = accounts.add_person("bench@large.example", "bench", "")
        accounts.add_store(store, large_settings(count), owner, clock())
    return [*rows, *_import(wiring, write_csv(large).encode()), *_day(run, count), *_many_stores(run.times(STORES, 2))]


def _from_nothing(store: Store, large: list[Product], count: int) -> list[Row]:
    today, small = clock().date(), large_catalogue(count)

    def compiled(products: list[Product]) -> CompiledRelease:
        shop = CompiledShop(lambda _: load_kit())
        return compile_release(shop.at(large_settings(count), products, store), today)

    release = compiled(small)
    baseline, figure = _seconds(lambda: compiled(small)), _seconds(lambda: compiled(large))
    size = len(gzip.compress(orjson.dumps(release), 9)) / 1000
    return [
        _at_most("resolve and compile 50,000 products", figure, "s", 2, baseline, "5,000 products"),
        _at_most("release of 200 exceptions, gzip", size, "kB", 34),
    ]


def _import(wiring: Wiring, content: bytes) -> list[Row]:
    def take(dry_run: bool) -> None:
        with wiring.open_shop(KEY) as shop:
            import_catalogue(shop, content, _WHO, clock(), dry_run=dry_run)

    looked, taken = _seconds(lambda: take(True)), _seconds(lambda: take(False))
    return [_at_most("import of 50,000 products", taken, "s", 30, looked, "only looking at the file")]


class _Designer:
    """What one person does in the large shop, each step as the studio's API does it."""

    def __init__(self, wiring: Wiring, products: int) -> None:
        self.wiring = wiring
        self.products = products

    def edit(self, layer: str, patch: Json) -> None:
        with self.wiring.open_shop(KEY) as shop:
            change_layer(shop, layer, patch, shop.drafts.read().version, _WHO, clock())
            view_drawing(shop, _HERE)

    def drag(self, patch: Json) -> None:
        with self.wiring.open_shop(KEY) as shop:
            try_edit(shop, _HERE, "baseline", patch)

    def add(self, sku: str, n: int) -> None:
        with self.wiring.open_shop(KEY) as shop:
            wish = Wish(f"Added {n}", "by the bench", Reach(products=(sku,)))
            layer = {"look": {"radius": n % 20}}
            add_exception(shop, wish, layer, shop.drafts.read().version, _WHO, clock())
            view_drawing(shop, _HERE)

    def look(self, view: Callable[..., object], *more: object) -> None:
        with self.wiring.open_shop(KEY) as shop:
            view(shop, *more)

    def floor(self) -> None:
        with self.wiring.open_shop(KEY) as shop:
            view_floor(shop, clock().date(), 14, clock(), Device.PHONE)

    def trace(self, n: int) -> None:
        query = TraceQuery(
            Placement.STRIP, "wording.ready.de-DE", f"P{n * 97 % self.products:05d}", Device.PHONE, "de-DE"
        )
        with self.wiring.open_shop(KEY) as shop:
            view_trace(shop, query, with_products=False)

    def release(self) -> None:
        with self.wiring.open_shop(KEY) as shop:
            publish(shop, "bench", _WHO, clock(), ["findings"])


def _day(run: Run, products: int) -> list[Row]:
    """Return what one designer's day in that shop costs, beginning in a process that knows nothing of it."""
    designer = _Designer(run.wiring, products)
    shops.forget()
    before = _resident_mb()
    first = _seconds(lambda: designer.edit("baseline", {"look": {"padding": {"bottom": 11}}}))

    def ms(step: Callable[[int], object], count: int = EDITS) -> list[float]:
        taken = []
        for n in range(run.times(count)):
            taken.append(_seconds(partial(step, n)) * 1000)
            # As the studio does in the pause after an answer.
            tidy()
        return taken

    words = ms(lambda n: designer.edit("baseline", {"wording": {"ready": {"en-GB": f"Take it home {n}"}}}))
    padding = ms(lambda n: designer.edit("baseline", {"look": {"padding": {"top": 6 + n / 4}}}))
    placement = ms(lambda n: designer.edit("place:product_page", {"look": {"padding": {"top": 6 + n / 4}}}))
    dragged = ms(lambda n: designer.drag({"look": {"padding": {"left": 8 + n / 4}}}))
    added = ms(lambda n: designer.add(f"P{n * 631 % products:05d}", n), 20)
    checked = _seconds(lambda: designer.look(view_findings))
    rechecked = []
    for n in range(run.times(12)):
        designer.edit("baseline", {"look": {"padding": {"right": 9 + n}}})
        tidy()
        rechecked.append(_seconds(lambda: designer.look(view_findings)) * 1000)
    worded = []
    for n in range(run.times(8, 2)):
        designer.edit("baseline", {"wording": {"ready": {"en-GB": f"Carry it home {n}"}}})
        tidy()
        worded.append(_seconds(lambda: designer.look(view_words)) * 1000)
    floor_first, floor_again = _seconds(designer.floor), _seconds(designer.floor)
    designer.release()
    designer.edit("baseline", {"wording": {"ready": {"en-GB": "Take it today"}}})
    designer.look(view_findings)
    changed = _seconds(lambda: designer.look(view_release))
    released = _seconds(designer.release)
    traced = p95(ms(designer.trace, 200))
    return [
        _at_most("large shop: first edit of a process", first, "s", 1, median(padding) / 1000, "a later edit"),
        _at_most("large shop: edit of words, p95", p95(words), "ms", 60, median(words), "the median"),
        _at_most("large shop: edit of the baseline's padding, p95", p95(padding), "ms", 60, median(padding),
                 "the median"),
        _at_most("large shop: edit of a placement's padding, p95", p95(placement), "ms", 60, median(placement),
                 "the median"),
        _at_most("large shop: edit tried while dragging, p95", p95(dragged), "ms", 60, median(dragged), "the median"),
        _at_most("large shop: new exception, p95", p95(added), "ms", 100, median(added), "the median"),
        _at_most("large shop: findings, first time", checked, "s", 5, median(rechecked) / 1000, "after an edit"),
        _at_most("large shop: findings after an edit, p95", p95(rechecked), "ms", 300, median(rechecked), "the median"),
        _at_most("large shop: all texts after an edit, p95", p95(worded[1:]), "ms", 400, worded[0], "the first"),
        _at_most("large shop: floor, first time", floor_first, "s", 1, floor_again, "again"),
        _at_most("large shop: what changed since the release", changed, "s", 0.5),
        _at_most("large shop: releasing", released, "s", 2),
        _at_most("large shop: trace of one value, p95", traced, "ms", 20),
        _at_most("large shop: memory", _resident_mb() - before, "MB", 250, shops.size / 1e6, "as the engine tells it"),
    ]  # fmt: skip


STORES, EACH = 100, 1_000


def _many_stores(count: int) -> list[Row]:
    """Return what an edit costs in each of a hundred stores in turn, under one limit of memory for all."""
    store = demo.demo_store("http://localhost:8802")
    shops.forget()
    before = _resident_mb()
    drafts = {n: large_settings(EACH).model_copy(update={"exceptions": ()}) for n in range(count)}
    catalogues = {n: large_catalogue(EACH) for n in range(count)}

    def edit(n: int, top: float) -> None:
        shop = shops.of(("bench", n), lambda _: load_kit())
        after = drafts[n].with_layer("place:product_page", {"look": {"padding": {"top": top}}})
        snapshot = shop.at(after, catalogues[n], store)
        compile_release(snapshot, clock().date())
        shops.settle()

    first = [_seconds(lambda n=n: edit(n, 12)) * 1000 for n in range(count)]  # type: ignore[misc]
    again = [_seconds(lambda n=n: edit(n, 14)) * 1000 for n in range(count)]  # type: ignore[misc]
    taken = _resident_mb() - before
    return [
        _at_most("100 stores in turn: edit and compile, p95", p95(again), "ms", 60, median(first), "the first time"),
        _at_most("100 stores in turn: memory", taken, "MB", shops.most_bytes / 1e6, shops.size / 1e6, "as told"),
    ]
