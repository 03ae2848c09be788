"""Practice shoppers: a model of visits with true rates that you set. Same seed, same visits, same signals."""

import random
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID

import mmh3

from practice.goods import Goods, all_goods

# Share of a day's visits by hour and of a week's by weekday: common practice for small shops, from memory.
_HOURS = (1, 1, 1, 1, 1, 2, 3, 4, 5, 5, 6, 6, 6, 5, 5, 5, 5, 6, 7, 8, 8, 6, 4, 2)
_WEEKDAYS = (1.0, 0.95, 0.95, 1.0, 1.0, 1.15, 1.2)
_DEVICES = (("phone", 0.62), ("tablet", 0.08), ("desktop", 0.30))
_RETURNS = 0.18
# Listings and strips are for looking: the share of the page's own rates that is pressed there. Invented.
_PARTS = {"listing_card": 0.12, "strip": 0.05, "sticky_bar": 0.3}


@dataclass(frozen=True, slots=True)
class Rates:
    """Shares of the shoppers who see a button: those who press it, those whose basket takes it, those who order."""

    clicked: float
    added: float
    ordered: float

    def __post_init__(self) -> None:
        if not 0 <= self.ordered <= self.added <= self.clicked <= 1:
            raise ValueError("Rates must fall from clicked over added to ordered, within 0 and 1.")


@dataclass(frozen=True, slots=True)
class Wish:
    """A run: which days, how many shoppers a day, how they behave by version."""

    start: datetime
    end: datetime
    shoppers_per_day: int
    seed: int
    rates: dict[str, Rates]


@dataclass(frozen=True, slots=True)
class Visit:
    """One visit as the batch of signals that its page would send."""

    shopper: str
    at: datetime
    body: dict[str, Any]


def deal(trial: dict[str, Any], shopper: str) -> str:
    """Return the letter that the shop's script would give a shopper."""
    point = mmh3.hash(f"{trial['salt']}:{shopper}".encode(), 0, signed=False)
    reached = 0
    for letter, share in trial["shares"].items():
        reached += share
        if point * 10_000 < reached << 32:
            return str(letter)
    return "A"


def situation_of(goods: Goods) -> str:
    """Return the situation that the shop's page tells of some goods."""
    if goods.is_sold_out:
        return "sold_out"
    if goods.is_pre_order:
        return "pre_order"
    return "choice" if goods.options else "set" if goods.set_of else "plain"


def _covers(trial: dict[str, Any], place: str, goods: Goods, device: str) -> bool:
    """Tell whether a trial's reach covers what a shopper who is here for the first time sees, as the script would."""
    reach = trial["reach"]
    conditions = (
        ("placements", place), ("products", goods.sku), ("categories", goods.category),
        ("situations", situation_of(goods)), ("devices", device), ("languages", "en-GB"), ("shoppers", "new"),
    )  # fmt: skip
    apart = (("not_products", goods.sku), ("not_categories", goods.category))
    return all(value in (reach.get(name) or [value]) for name, value in conditions) and not any(
        value in reach.get(name, ()) for name, value in apart
    )


def _id_at(at: datetime, rng: random.Random) -> str:
    """Return a UUID of version 7 for a moment in the past (RFC 9562, 5.7)."""
    stamp = int(at.timestamp() * 1000)
    value = stamp << 80 | 7 << 76 | rng.getrandbits(12) << 64 | 2 << 62 | rng.getrandbits(62)
    return str(UUID(int=value))


def count_shoppers(wish: Wish) -> int:
    """Return how many shoppers a run has, which is known before it starts."""
    return sum(len(arrivals) for arrivals in _arrivals(wish))


def _arrivals(wish: Wish) -> Iterator[list[datetime]]:
    rng = random.Random(wish.seed)
    day = wish.start
    while day < wish.end:
        weight = _WEEKDAYS[day.weekday()]
        most = round(rng.gauss(wish.shoppers_per_day * weight, (wish.shoppers_per_day * weight) ** 0.5))
        midnight = day.replace(hour=0, minute=0, second=0, microsecond=0)
        times = [
            midnight
            + timedelta(
                hours=rng.choices(range(24), _HOURS)[0], seconds=rng.randrange(3600), milliseconds=rng.randrange(1000)
            )
            for _ in range(max(0, most))
        ]
        yield sorted(t for t in times if wish.start <= t < wish.end)
        day = midnight + timedelta(days=1)


def visits(wish: Wish, manifest: dict[str, Any]) -> Iterator[Visit]:
    """Yield every visit of a run. A shopper's mind is made up once; who returns only looks again."""
    trials = [trial for trial in manifest.get("trials", []) if trial["running"]]
    for day_number, arrivals in enumerate(_arrivals(wish)):
        for number, at in enumerate(arrivals):
            rng = random.Random(f"{wish.seed}/{day_number}/{number}")
            shopper = f"ps-{rng.getrandbits(64):016x}"
            yield from _one(wish, manifest, trials, shopper, at, rng)


def _one(
    wish: Wish, manifest: dict[str, Any], trials: list[dict[str, Any]], shopper: str, at: datetime, rng: random.Random
) -> Iterator[Visit]:
    device = rng.choices([d for d, _ in _DEVICES], [w for _, w in _DEVICES])[0]
    able = [goods for goods in all_goods().values() if not goods.is_sold_out and goods.price is not None]
    goods = rng.choice(able)
    in_listing, on_page = rng.random() < 0.8, rng.random() < 0.75
    in_bar, in_strip = rng.random() < 0.4, rng.random() < 0.3
    lucks: dict[str, float] = {}
    saw_page = False
    events: list[dict[str, Any]] = []

    def note(kind: str, when: datetime, place: str, **more: Any) -> None:
        if when >= wish.end:  # It has not happened yet.
            return
        events.append({"id": _id_at(when, rng), "kind": kind, "at": when.isoformat(), "place": place,
                       "seen_as": situation_of(goods) if place else "",
                       "situation": situation_of(goods) if place else "", "shopper_kind": "new" if place else "",
                       "product": goods.sku, "device": device, "language": "en-GB", **more})  # fmt: skip

    clock = at
    places = (
        ("listing_card", in_listing),
        ("product_page", on_page),
        ("sticky_bar", on_page and in_bar),
        ("strip", on_page and in_strip),
    )
    for place, comes in places:
        if not comes:
            continue
        clock += timedelta(seconds=rng.uniform(2, 40))
        note("shown", clock, place)
        saw_page = saw_page or place == "product_page"
        trial = next((t for t in trials if _covers(t, place, goods, device)), None)
        # One mind for all places of a trial, so that the rates that were set are those of its shoppers.
        luck = lucks.setdefault(trial["id"] if trial else place, rng.random())
        rates = wish.rates[deal(trial, shopper) if trial else "A"]
        part = 1.0 if trial or place == "product_page" else _PARTS[place]
        if luck >= rates.clicked * part:
            continue
        clock += timedelta(seconds=rng.uniform(1, 60))
        note("clicked", clock, place)
        if luck < rates.added * part:
            note("added", clock + timedelta(seconds=0.4), place, quantity=1)
        if luck < rates.ordered * part:
            clock += timedelta(minutes=rng.uniform(2, 25))
            price = int((goods.price or 0) * 100)
            note(
                "ordered",
                clock,
                "",
                order=f"S{wish.seed}-{shopper[3:11]}",
                line="1",
                quantity=1,
                value=price,
                currency="GBP",
            )
        break
    if events:
        yield _visit(manifest, shopper, events, min(clock, wish.end))
    if saw_page and rng.random() < _RETURNS:
        again = at + timedelta(hours=rng.uniform(5, 90))
        if again < wish.end:
            events.clear()
            note("shown", again, "product_page", shopper_kind="returning")
            yield _visit(manifest, shopper, list(events), again)


def _visit(manifest: dict[str, Any], shopper: str, events: list[dict[str, Any]], sent: datetime) -> Visit:
    body = {
        "v": 1,
        "sent": (sent + timedelta(seconds=1)).isoformat(),
        "shopper": shopper,
        "visit": f"{shopper}-{int(sent.timestamp())}",
        "release": manifest.get("release", 0),
        "events": list(events),
    }
    return Visit(shopper, sent, body)
