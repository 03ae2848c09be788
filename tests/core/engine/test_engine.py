"""What the engine keeps, works out again, and lets go."""

import sys
from concurrent.futures import ThreadPoolExecutor
from threading import Barrier

import pytest

from tests.samples import PRODUCTS, exception, kit, settings, store
from uptick.core.button.document import Device, Placement, ShopperKind
from uptick.core.button.merge import Json, merge_layer
from uptick.core.checks import findings_of
from uptick.core.engine.shops import CompiledShop, Shops
from uptick.core.engine.sizes import deep_bytes
from uptick.core.engine.snapshot import Snapshot
from uptick.core.engine.step import NEEDS, Step, follows_from
from uptick.core.engine.tables import Tables
from uptick.core.resolved.classes import class_for, context_of
from uptick.core.rules.settings import Settings

RULES = (
    exception(1, {"wording": {"ready": {"en-GB": "Take {name}"}}}, categories=("Jars",)),
    exception(2, {"look": {"radius": 9}}, products=("A1",)),
)
STORE = store()


def worked_out(shop: CompiledShop, before: Settings, layer: str, patch: Json) -> set[Step]:
    """Return the steps in which anything was worked out after an edit, when all the findings are asked for."""
    findings_of(shop.at(before, PRODUCTS, STORE))
    known = shop.tables.worked_out.copy()
    after = before.with_layer(layer, merge_layer(before.layer(layer), patch))
    findings_of(shop.at(after, PRODUCTS, STORE))
    return set(shop.tables.worked_out - known)


def fresh() -> CompiledShop:
    return CompiledShop(lambda _: kit())


def test_an_edit_of_words_draws_nothing_anew() -> None:
    steps = worked_out(fresh(), settings(*RULES), "baseline", {"wording": {"ready": {"en-GB": "Have it"}}})
    assert Step.WORDINGS in steps
    assert not steps & {Step.LOOKS, Step.BOXES, Step.RULES, Step.COVER, Step.GOODS, Step.CLASSES}


def test_an_edit_of_padding_measures_no_words_and_covers_nothing_anew() -> None:
    steps = worked_out(fresh(), settings(*RULES), "baseline", {"look": {"padding": {"top": 20}}})
    assert {Step.LOOKS, Step.BOXES} <= steps
    assert not steps & {Step.WORDINGS, Step.WIDTHS, Step.RULES, Step.COVER, Step.GOODS, Step.CLASSES}


def test_an_edit_of_an_exception_leaves_the_other_layers_as_they_are() -> None:
    shop = fresh()
    before = settings(*RULES)
    first = shop.at(before, PRODUCTS, STORE)
    after = before.with_layer("exception:e2", {"look": {"radius": 12}})
    second = shop.at(after, PRODUCTS, STORE)
    assert first.layers["exception:e1"] is second.layers["exception:e1"]
    plain = context_of(Placement.STRIP, PRODUCTS[2], None, Device.PHONE, "en-GB", ShopperKind.NEW)
    assert class_for(first, plain).document is class_for(second, plain).document


def test_trying_an_edit_and_keeping_it_are_one_state() -> None:
    shop, before = fresh(), settings(*RULES)
    tried = before.with_layer("place:strip", {"look": {"radius": 3}})
    kept = Settings.model_validate(tried.model_dump())
    assert shop.at(tried, PRODUCTS, STORE) is shop.at(kept, PRODUCTS, STORE)


def test_undo_finds_what_was_worked_out_before() -> None:
    shop, before = fresh(), settings(*RULES)
    after = before.with_layer("place:strip", {"look": {"radius": 3}})
    for of in (before, after):
        findings_of(shop.at(of, PRODUCTS, STORE))
    known = shop.tables.worked_out.copy()
    again = Settings.model_validate(before.model_dump())
    findings_of(shop.at(again, PRODUCTS, STORE))
    assert shop.tables.worked_out == known


def test_a_step_that_asks_for_more_than_it_declares_is_stopped() -> None:
    tables = Tables()
    with pytest.raises(AssertionError, match="not declared"):
        tables.ask(Step.RULES, 1, lambda: tables.ask(Step.FINDINGS, 2, lambda: 3))
    # What went wrong leaves the way free for the next.
    assert tables.ask(Step.FINDINGS, 2, lambda: 3) == 3


def test_the_steps_stand_in_an_order() -> None:
    for step in Step:
        assert step not in follows_from(step), step
    assert set(NEEDS) == set(Step)
    assert Step.FINDINGS in follows_from(Step.LOOKS)
    assert Step.LOOKS not in follows_from(Step.WORDINGS)


def test_an_error_is_not_kept() -> None:
    tables = Tables()
    with pytest.raises(ZeroDivisionError):
        tables.ask(Step.LOOKS, "x", lambda: 1 // 0)
    assert tables.ask(Step.LOOKS, "x", lambda: 5) == 5


def filled(shops: Shops, name: str, kilobytes: int) -> CompiledShop:
    shop = shops.of(name, lambda _: kit())
    for n in range(kilobytes):
        shop.tables.ask(Step.LOOKS, n, lambda: bytes([n % 251]) * 1000)  # noqa: B023
    return shop


def test_the_size_is_about_that_of_what_is_kept() -> None:
    shop = filled(Shops(), "one", 500)
    assert 500_000 < shop.size < 800_000
    assert shop.sizes()[Step.LOOKS] == shop.size


def test_a_store_forgets_what_was_asked_for_least_lately() -> None:
    shop = filled(Shops(most_of_one=240_000), "one", 100)
    shop.tables.grow_older()
    shop.tables.ask(Step.LOOKS, 0, lambda: b"")
    for n in range(1000, 1100):
        shop.tables.ask(Step.LOOKS, n, lambda: bytes([n % 251]) * 1000)  # noqa: B023
    shop.tables.grow_older()
    shop.keep_within()
    assert shop.size <= 240_000
    known = shop.tables.worked_out.copy()
    shop.tables.ask(Step.LOOKS, 0, lambda: b"")
    shop.tables.ask(Step.LOOKS, 1099, lambda: b"")
    assert shop.tables.worked_out == known


def test_whole_stores_go_and_a_large_one_drives_no_small_ones_out() -> None:
    shops = Shops(most_bytes=1_000_000, most_of_one=10_000_000)
    small = [filled(shops, f"small {n}", 20) for n in range(10)]
    filled(shops, "large", 900)
    filled(shops, "last", 20)
    shops.settle()
    assert shops.size <= 1_000_000
    assert (len(shops), shops.let_go) == (11, 1)
    assert shops.of("small 0", lambda _: kit()) is small[0]


def test_of_equal_stores_the_one_that_was_not_used_the_longest_goes_first() -> None:
    shops = Shops(most_bytes=300_000, most_of_one=10_000_000)
    made = {name: filled(shops, name, 100) for name in "abc"}
    shops.of("a", lambda _: kit())
    shops.settle()
    assert shops.of("a", lambda _: kit()) is made["a"]
    assert shops.of("c", lambda _: kit()) is made["c"]
    assert shops.of("b", lambda _: kit()) is not made["b"]


def test_deep_bytes_counts_each_thing_once_and_long_lists_by_a_sample() -> None:
    text = "x" * 1000
    one = deep_bytes([text])
    assert deep_bytes([text, text]) - one < 20
    many = [str(n) * 50 for n in range(5000)]
    true = sys.getsizeof(many) + sum(map(sys.getsizeof, many))
    assert abs(deep_bytes(many) - true) < true / 10


def test_products_that_no_exception_names_are_never_looked_at_one_by_one() -> None:
    shop = fresh()
    before: Snapshot = shop.at(settings(*RULES), PRODUCTS, STORE)
    jars = [group for group in before.cover.groups if group.category == "Jars"]
    after = shop.at(settings(*RULES, exception(3, {"look": {"radius": 1}}, products=("C1",))), PRODUCTS, STORE)
    again = [group for group in after.cover.groups if group.category == "Jars"]
    assert [batch for group in jars for batch in group.batches] == [batch for one in again for batch in one.batches]


def test_what_several_threads_work_out_at_once_is_counted_once() -> None:
    tables = Tables()
    together = Barrier(4)

    def work() -> list[int]:
        together.wait(5)
        return [*range(1000)]

    with ThreadPoolExecutor(4) as threads:
        found = [task.result() for task in [threads.submit(tables.ask, Step.LOOKS, "one", work) for _ in range(4)]]
    assert all(finding is found[0] for finding in found)
    alone = Tables()
    alone.ask(Step.LOOKS, "one", lambda: [*range(1000)])
    assert tables.size == alone.size
    assert tables.worked_out[Step.LOOKS] == 4
