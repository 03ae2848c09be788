"""Signals through the real writer into real tables, and what they add up to."""

import random
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID

import pytest
from sqlalchemy import text

from tests.samples import NOW, PRODUCTS, product, settings
from uptick.core.button.document import Placement
from uptick.core.rules.reach import Reach
from uptick.core.shop.signals import Signal, SignalKind
from uptick.core.trial.assign import assign_version
from uptick.core.trial.plan import Plan
from uptick.core.trial.readout import Measure
from uptick.core.trial.record import SHARES, Trial, TrialState
from uptick.data.database import make_engine
from uptick.data.public import PublicShelf
from uptick.data.signals import SignalWriter
from uptick.usecases.serving import StoreBatch, Unavailable
from uptick.wiring import Wiring

START = NOW - timedelta(days=20)
PLACE = "product_page"
PAGE = Reach(placements=(Placement.PRODUCT_PAGE,))


def signal(n: int, kind: SignalKind, at: datetime, shopper: str, **more: Any) -> Signal:
    identity = UUID(int=int(at.timestamp() * 1000) << 80 | 7 << 76 | 2 << 62 | n)
    base = Signal(identity, at.date(), kind, at, shopper, "v", 1, PLACE, "A1", "", "", 1, 0, "phone", "en-GB")
    return base._replace(**more)


def begin_trial(wiring: Wiring, total: int = 40, reach: Reach | None = None) -> Trial:
    plan = Plan(0.3, 0.1, total // 2, total, 14, 10)
    with wiring.open_shop("sample") as shop:
        shop.catalogue.put(PRODUCTS)
        shop.releases.add(settings(), {}, "", "Ada", START)
        reach, state = reach or Reach(placements=(Placement.PRODUCT_PAGE,)), TrialState.RUNNING
        trial = Trial(0, "Why?", reach, {}, Measure.ADDED, 0.2, 3, state, "salt", plan, START, None, None, None)
        trial = shop.trials.add(trial)
        if reach.narrows_products:
            shop.trials.freeze(trial.number, [p.sku for p in PRODUCTS if reach.covers_product(p.sku, p.category)])
        return trial


def write(wiring: Wiring, groups: Sequence[Sequence[Signal]], part: int = 0) -> list[int]:
    shelf, writer = PublicShelf(wiring.engine), SignalWriter(wiring.engine, part)
    served = shelf.served("sample")
    assert served is not None
    scopes = shelf.scopes(served.store_id, is_practice=True)
    return [writer.write([StoreBatch(served.store_id, group, scopes, {})], NOW.date()) for group in groups]


def story(shoppers: int = 60) -> list[Signal]:
    """Shoppers who see, press, add and order; some before they are shown anything, some too late."""
    rng = random.Random(4)
    told, n = [], 0
    for number in range(shoppers):
        shopper, at = f"shopper-{number:04d}", START + timedelta(hours=rng.uniform(1, 300))
        steps = [(SignalKind.SHOWN, 0.0)]
        if rng.random() < 0.6:
            steps.append((SignalKind.CLICKED, rng.uniform(0, 2)))
        if rng.random() < 0.4:
            steps.append((SignalKind.ADDED, rng.choice([1.0, 71.0, 73.0, -5.0])))
        if rng.random() < 0.3:
            steps.append((SignalKind.ORDERED, rng.uniform(3, 90)))
        for kind, hours in steps:
            n += 1
            order = {"order": f"T{number}", "line": "1", "place": ""} if kind is SignalKind.ORDERED else {}
            told.append(signal(n, kind, at + timedelta(hours=hours), shopper, **order))
    return told


def counts(wiring: Wiring) -> list[tuple[Any, ...]]:
    with wiring.engine.connect() as db:
        rows = db.execute(
            text(
                "SELECT shopper, letter, entered_at, clicked_at, added_at, ordered_at FROM trial_shoppers "
                "ORDER BY shopper"
            )
        )
        return [tuple(row) for row in rows]


def test_the_order_of_arrival_does_not_matter(wiring: Wiring) -> None:
    begin_trial(wiring)
    told = story()
    write(wiring, [told])
    expected = counts(wiring)
    assert len(expected) == 60
    for seed in (1, 2):
        with wiring.engine.begin() as db:
            db.execute(text("TRUNCATE events, trial_shoppers, trial_events, order_lines, day_tallies"))
        mixed = list(told)
        random.Random(seed).shuffle(mixed)
        write(wiring, [mixed[i : i + 7] for i in range(0, len(mixed), 7)])
        assert counts(wiring) == expected


def test_only_what_is_done_within_the_time_after_entering_counts(wiring: Wiring) -> None:
    begin_trial(wiring)
    at = START + timedelta(days=1)
    write(
        wiring,
        [
            [
                signal(1, SignalKind.ADDED, at - timedelta(minutes=1), "too-early-1"),
                signal(2, SignalKind.SHOWN, at, "too-early-1"),
                signal(3, SignalKind.SHOWN, at, "in-time-001"),
                signal(4, SignalKind.ADDED, at + timedelta(days=3, seconds=-1), "in-time-001"),
                signal(5, SignalKind.SHOWN, at, "too-late-01"),
                signal(6, SignalKind.ADDED, at + timedelta(days=3), "too-late-01"),
            ]
        ],
    )
    assert {row[0]: row[4] is not None for row in counts(wiring)} == {
        "too-early-1": False, "in-time-001": True, "too-late-01": False,
    }  # fmt: skip


def test_what_is_sent_twice_is_kept_once(wiring: Wiring) -> None:
    begin_trial(wiring)
    told = story()
    assert write(wiring, [told, told]) == [len(told), 0]
    with wiring.engine.connect() as db:
        assert db.execute(text("SELECT sum(count) FROM day_tallies")).scalar_one() == len(told)
        assert db.execute(text("SELECT count(*) FROM events")).scalar_one() == len(told)


def test_an_order_line_counts_once_whatever_id_it_comes_under(wiring: Wiring) -> None:
    begin_trial(wiring)
    at = START + timedelta(days=1)
    line = {"order": "T1", "line": "1", "place": ""}
    first = signal(1, SignalKind.ORDERED, at, "shopper-0001", **line)
    again = signal(2, SignalKind.ORDERED, at + timedelta(minutes=5), "shopper-0001", **line)
    second_line = signal(3, SignalKind.ORDERED, at, "shopper-0001", **{**line, "line": "2"})
    assert write(wiring, [[first], [again, second_line], [again]]) == [1, 1, 0]


def test_a_forged_letter_counts_for_nothing(wiring: Wiring) -> None:
    begin_trial(wiring)
    write(wiring, [story()])
    assert all(row[1] == assign_version("salt:version", str(row[0]), SHARES) for row in counts(wiring))


def test_shoppers_without_an_id_count_in_the_days_totals_and_in_no_trial(wiring: Wiring) -> None:
    begin_trial(wiring)
    write(wiring, [[signal(1, SignalKind.SHOWN, START + timedelta(days=1), "")]])
    assert counts(wiring) == []
    with wiring.open_shop("sample") as shop:
        assert shop.signals.tallies(START.date())[PLACE, ""]["shown"] == 1


def test_what_stands_outside_the_reach_of_a_trial_is_not_in_it(wiring: Wiring) -> None:
    begin_trial(wiring, reach=Reach(placements=(Placement.PRODUCT_PAGE,), categories=("Jars",)))
    at = START + timedelta(days=1)
    write(
        wiring,
        [
            [
                signal(1, SignalKind.SHOWN, at, "other-place-", place="listing_card", product="B1"),
                signal(2, SignalKind.SHOWN, at, "other-thing-", product="A1"),
                signal(3, SignalKind.SHOWN, START - timedelta(days=1), "before-start", product="B1"),
                signal(4, SignalKind.SHOWN, at, "inside-trial", product="B1"),
            ]
        ],
    )
    assert [row[0] for row in counts(wiring)] == ["inside-trial"]


# What a signal can tell, with a reach that leaves it out.
OUTSIDE = [
    ({"device": "desktop"}, {"devices": ("phone",)}),
    ({"language": "de-DE"}, {"languages": ("en-GB",)}),
    ({"situation": "choice"}, {"situations": ("plain",)}),
    ({"situation": ""}, {"situations": ("plain",)}),
    ({"shopper_kind": "returning"}, {"shoppers": ("new",)}),
    ({"product": "B1"}, {"not_products": ("B1",)}),
    ({"product": "B1"}, {"not_categories": ("Jars",)}),
    ({"product": "NEW"}, {"categories": ("Tools",)}),
]


@pytest.mark.parametrize(("told", "reach"), OUTSIDE)
def test_a_trial_counts_and_paces_only_whom_its_reach_covers(
    wiring: Wiring, told: dict[str, str], reach: dict[str, Any]
) -> None:
    narrow = Reach(placements=(Placement.PRODUCT_PAGE,), **reach)
    begin_trial(wiring, reach=narrow)
    inside = {"situation": "plain", "shopper_kind": "new"}
    at = NOW - timedelta(days=6)
    shown = [
        signal(1, SignalKind.SHOWN, at, "inside-trial", **inside),
        signal(2, SignalKind.SHOWN, at, "outside-trial", **{**inside, **told}),
        # What is added outside does not count for whoever entered inside.
        signal(3, SignalKind.ADDED, at + timedelta(hours=1), "inside-trial", **{**inside, **told}),
    ]
    write(wiring, [shown])
    assert [(row[0], row[4]) for row in counts(wiring)] == [("inside-trial", None)]
    with wiring.open_shop("sample") as shop:
        products = [p.sku for p in PRODUCTS if narrow.covers_product(p.sku, p.category)]
        pace = shop.signals.pace(narrow, products if narrow.narrows_products else None, 3, NOW)
    assert (pace.followed, pace.added) == (1, 0)


def test_products_that_come_into_a_category_later_are_not_in_its_trial(wiring: Wiring) -> None:
    begin_trial(wiring, reach=Reach(placements=(Placement.PRODUCT_PAGE,), categories=("Jars",)))
    with wiring.open_shop("sample") as shop:
        shop.catalogue.put([product("B9", "Jars")])
        shop.catalogue.remove(["B1"])
    at = START + timedelta(days=1)
    write(
        wiring,
        [[signal(n, SignalKind.SHOWN, at, f"shopper-of-{sku}", product=sku) for n, sku in enumerate(("B1", "B9"))]],
    )
    assert [row[0] for row in counts(wiring)] == ["shopper-of-B1"]


def test_a_forged_order_line_does_not_keep_the_real_one_out(wiring: Wiring) -> None:
    begin_trial(wiring)
    at = START + timedelta(days=1)
    order = {"place": "", "order": "T00001", "line": "1"}
    forged = signal(1, SignalKind.ORDERED, at, "forger-00001", **order)
    real = [signal(2, SignalKind.SHOWN, at, "buyer-000001"), signal(3, SignalKind.ORDERED, at, "buyer-000001", **order)]
    again = signal(4, SignalKind.ORDERED, at, "buyer-000001", **order)
    assert write(wiring, [[forged], real, [again]]) == [1, 2, 0]
    assert [(row[0], row[5] is not None) for row in counts(wiring) if row[2]] == [("buyer-000001", True)]


def test_an_order_without_an_amount_is_kept_without_one(wiring: Wiring) -> None:
    order = {"place": "", "order": "T00001", "line": "1", "value_minor": None}
    write(wiring, [[signal(1, SignalKind.ORDERED, START, "buyer-000001", **order)]])
    with wiring.engine.connect() as db:
        assert db.execute(text("SELECT value_minor FROM events")).scalar_one() is None


@pytest.mark.parametrize("bad", [{"visit": "a\0b"}, {"release": 10**30}])
def test_what_the_database_cannot_keep_is_told_from_a_database_that_is_away(
    wiring: Wiring, bad: dict[str, Any]
) -> None:
    with pytest.raises(Exception) as failed:  # noqa: PT011
        write(wiring, [[signal(1, SignalKind.SHOWN, START, "shopper-0001", **bad)]])
    assert not isinstance(failed.value, Unavailable)
    away = SignalWriter(make_engine("postgresql+psycopg://nobody@127.0.0.1:9/none"), 0)
    with pytest.raises(Unavailable):
        away.write([StoreBatch(1, [signal(1, SignalKind.SHOWN, START, "shopper-0001")], (), {})], NOW.date())


def test_the_reading_is_of_the_planned_number_the_first_that_came(wiring: Wiring) -> None:
    trial = begin_trial(wiring, total=40)
    write(wiring, [story(60)])
    with wiring.open_shop("sample") as shop:
        found = shop.signals.count(trial, NOW)
        assert found.a.timed_up + found.b.timed_up == 40
        assert found.a.entered + found.b.entered == 60
        early = shop.signals.count(trial, START + timedelta(days=4))
    followed = [row for row in counts(wiring) if row[2] < START + timedelta(days=1)]
    assert early.a.timed_up + early.b.timed_up == len(followed)


def test_pace_counts_newcomers_and_what_those_followed_to_the_end_did(wiring: Wiring) -> None:
    begin_trial(wiring)
    told = []
    for n in range(28):
        at = NOW - timedelta(days=14) + timedelta(hours=12 * n, minutes=1)
        told.append(signal(10 * n, SignalKind.SHOWN, at, f"newcomer-{n:03d}"))
        if n % 2:
            told.append(signal(10 * n + 1, SignalKind.ADDED, at + timedelta(hours=1), f"newcomer-{n:03d}"))
        if n % 4 == 0:
            told.append(signal(10 * n + 2, SignalKind.SHOWN, at + timedelta(hours=30), f"newcomer-{n:03d}"))
    write(wiring, [told])
    with wiring.open_shop("sample") as shop:
        pace = shop.signals.pace(PAGE, None, 3, NOW)
    assert pace.entering_per_day == pytest.approx(28 / 14, rel=1e-3)
    assert pace.followed == 22
    assert pace.added == 11
    assert pace.rate(Measure.ADDED) == 0.5
    assert pace.rate(Measure.ORDERED) == 0


def test_refusals_are_counted_by_reason(wiring: Wiring) -> None:
    begin_trial(wiring)
    served = PublicShelf(wiring.engine).served("sample")
    assert served is not None
    writer = SignalWriter(wiring.engine, 0)
    for _ in range(2):
        writer.write([StoreBatch(served.store_id, (), (), {"robot": 1, "too_large": 2})], NOW.date())
    with wiring.open_shop("sample") as shop:
        assert shop.signals.refusals(NOW.date()) == {"robot": 2, "too_large": 4}


def test_two_edges_at_once_keep_every_event_once(wiring: Wiring) -> None:
    begin_trial(wiring)
    told = story(120)
    with ThreadPoolExecutor(2) as pool:
        kept = list(pool.map(lambda part: sum(write(wiring, [told[i : i + 5] for i in range(0, len(told), 5)], part)),
                             (0, 1)))  # fmt: skip
    assert sum(kept) == len(told)
    with wiring.engine.connect() as db:
        assert db.execute(text("SELECT sum(count) FROM day_tallies")).scalar_one() == len(told)
