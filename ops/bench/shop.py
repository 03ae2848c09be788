"""What a large shop costs: resolving and compiling it, its floor, one trace, its import, its checks."""

import gzip
import resource
import time
from collections.abc import Callable

import orjson

from ops import demo
from ops.bench.large_shop import large_catalogue, large_settings
from ops.bench.rows import Row, p95
from uptick.core.differences import changes_between
from uptick.core.document import Device, Placement
from uptick.core.formats.catalogue_file import write_csv
from uptick.core.release import compile_release
from uptick.usecases.edit import change_layer
from uptick.usecases.importing import import_catalogue
from uptick.usecases.ports import Person
from uptick.usecases.publish import publish
from uptick.usecases.views import view_findings, view_floor, view_trace
from uptick.usecases.views.why import TraceQuery
from uptick.wiring import Wiring, clock, load_kit

KEY, LARGE, SMALL = "large", 50_000, 5_000
_WHO = Person(0, "bench", "", ())


def _seconds(call: Callable[[], object]) -> float:
    began = time.perf_counter()
    call()
    return time.perf_counter() - began


def measure(wiring: Wiring) -> list[Row]:
    store = demo.demo_store(wiring.environment.practice_origin).model_copy(update={"key": KEY})
    kit, today = load_kit(), clock().date()
    small, large = large_catalogue(SMALL), large_catalogue(LARGE)
    settings = large_settings(SMALL)
    compiled = compile_release(settings, store, small, kit, today)
    # Fresh settings each time, since results are remembered by them.
    baseline = _seconds(lambda: compile_release(large_settings(SMALL), store, small, kit, today))
    figure = _seconds(lambda: compile_release(large_settings(SMALL), store, large, kit, today))
    size = len(gzip.compress(orjson.dumps(compiled), 9)) / 1000
    memory = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    rows = [
        Row("resolve and compile 50,000 products", figure * 1000, "ms", baseline * 1000, "5,000 products", "≤ 2 s",
            figure <= 2),
        Row("memory of that, in all", memory, "MB", 0, "–", "≤ 500 MB", memory <= 500),
        Row("release of 200 exceptions, gzip", size, "kB", 0, "–", "≤ 34 kB beside the script", size <= 34),
    ]  # fmt: skip
    with wiring.open_accounts() as accounts:
        owner = accounts.add_person("bench@large.example", "bench", "")
        accounts.add_store(store, large_settings(LARGE), owner, clock())
    return rows + _stations(wiring, write_csv(large).encode())


def _releases(wiring: Wiring) -> tuple[list[float], list[float]]:
    """Return how long it takes to find what changed after an edit of words and of padding, and two releases."""
    changed, released = [], []
    for patch in ({"wording": {"ready": {"en-GB": "Take it today"}}}, {"look": {"padding": {"top": 13}}}):
        with wiring.open_shop(KEY) as shop:
            released.append(_seconds(lambda: publish(shop, "bench", _WHO, clock(), ["findings"])))
            before = shop.drafts.read()
            after = change_layer(shop, "baseline", patch, before.version, _WHO, clock())
            goods = shop.catalogue.all()
            changed.append(_seconds(lambda: changes_between(before.settings, after.settings, goods)))  # noqa: B023
    return changed, released


def _stations(wiring: Wiring, content: bytes) -> list[Row]:
    def take(dry_run: bool) -> None:
        with wiring.open_shop(KEY) as shop:
            import_catalogue(shop, content, _WHO, clock(), dry_run=dry_run)

    def floor() -> None:
        with wiring.open_shop(KEY) as shop:
            view_floor(shop, clock().date(), 14, clock(), Device.PHONE)

    def findings() -> None:
        with wiring.open_shop(KEY) as shop:
            view_findings(shop, Device.PHONE)

    def trace(n: int) -> None:
        with wiring.open_shop(KEY) as shop:
            query = TraceQuery(Placement.STRIP, "wording.ready.de-DE", f"P{n * 97:05d}", Device.PHONE, "de-DE")
            view_trace(shop, query, with_products=False)

    looked, taken = _seconds(lambda: take(True)), _seconds(lambda: take(False))
    first, again = _seconds(floor), _seconds(floor)
    checked, kept = _seconds(findings), _seconds(findings)
    trace(0)
    changed, released = _releases(wiring)
    traced = p95([_seconds(lambda n=n: trace(n)) for n in range(1, 200)]) * 1000  # type: ignore[misc]
    return [
        Row(
            "import of 50,000 products", taken, "s", looked, "only looking at the file", "well under 60 s", taken <= 30
        ),
        Row("floor of 50,000 products, first time", first * 1000, "ms", again * 1000, "again", "≤ 1 s", first <= 1),
        Row("trace of one value there, p95", traced, "ms", 0, "–", "≤ 20 ms", traced <= 20),
        Row(
            "what changed since the last release",
            changed[1] * 1000,
            "ms",
            changed[0] * 1000,
            "after a change of words",
            "≤ 500 ms",
            max(changed) <= 0.5,
        ),
        Row("releasing", released[1], "s", released[0], "the first time", "≤ 2 s", released[1] <= 2),
        Row("checks of that shop, first time", checked, "s", kept, "again", "told", True),
    ]
