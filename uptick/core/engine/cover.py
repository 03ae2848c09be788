"""What covers what: the classes of a shop by placement, before anything is drawn or said."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from itertools import product as crossing
from typing import NamedTuple

import numpy as np

from uptick.core.button.document import Device, Placement, ShopperKind, Situation
from uptick.core.engine.goods import Batch, Goods, ProductGroup, group
from uptick.core.engine.rules import RuleIndex
from uptick.core.engine.step import Step
from uptick.core.engine.tables import Tables

Where = tuple[Device, str]
Seer = tuple[Situation, Device, str, ShopperKind]


@dataclass(frozen=True, eq=False)
class Frame:
    """One class without its button: which exceptions hold, for which products, and where it is met.

    `places` are bits over the crossing of devices and languages; `example` is one context in which it is met, or None
    of a plain class that nobody meets.
    """

    bits: int
    index: RuleIndex
    batches: tuple[Batch, ...]
    places: int
    example: tuple[ProductGroup, Seer] | None

    @cached_property
    def rules(self) -> tuple[str, ...]:
        """Ids of the exceptions that hold, the least particular first."""
        return tuple([rule.id for rule in self.index.named(self.bits)])

    @cached_property
    def key(self) -> str:
        """The ids as one text, by which looks are kept."""
        return ",".join(self.rules)


@dataclass(frozen=True, slots=True, eq=False)
class Cover:
    """The groups of a shop's products and its frames by placement, every placement's plain class first.

    `held` are the groups of the placements that show some products only.
    """

    groups: tuple[ProductGroup, ...]
    frames: Mapping[Placement, tuple[Frame, ...]]
    by_bits: Mapping[Placement, Mapping[int, Frame]]
    held: Mapping[Placement, tuple[ProductGroup, ...]] = field(default_factory=dict)

    def groups_at(self, placement: Placement) -> tuple[ProductGroup, ...]:
        """Return the groups of the products that a placement may show."""
        return self.held.get(placement, self.groups)

    @property
    def about_bytes(self) -> int:
        """Return about how much memory it takes; looking at all of it would take longer than making it."""
        return 2_500 * sum(map(len, self.frames.values())) + 250 * len(self.groups)


class _Split(NamedTuple):
    """Where some of the narrowed exceptions hold and the others do not: an example, and the places by situation.

    `held` are bits over the exceptions that were asked about, in their order.
    """

    held: int
    example: Seer
    places: Mapping[Situation, int]
    everywhere: int


@dataclass(slots=True)
class _Gathered:
    example: tuple[ProductGroup, Seer] | None
    places: int = 0
    batches: dict[int, Batch] = field(default_factory=dict)


def cover(
    tables: Tables,
    index: RuleIndex,
    languages: Sequence[str],
    goods: Goods,
    places: Sequence[Placement],
    only: Mapping[Placement, frozenset[str]],
) -> Cover:
    """Return the classes of a shop in its placements; `only` are the products of those that do not show all.

    A product's other situations are looked at too, since stock changes. The cost grows with the kinds of products that
    exceptions tell apart, not with the products.
    """
    groups = group(tables, goods, (index,))
    splitter = _Splitter(tables, index, tuple(languages))
    held = {placement: holding(groups, goods, skus) for placement, skus in only.items()}
    frames = {placement: _frames(index, placement, held.get(placement, groups), splitter) for placement in places}
    return Cover(
        groups, frames, {place: {frame.bits: frame for frame in those} for place, those in frames.items()}, held
    )


def holding(groups: Sequence[ProductGroup], goods: Goods, skus: frozenset[str]) -> tuple[ProductGroup, ...]:
    """Return groups with some of their products only; the first one, of products that no exception knows, stays."""
    rows = np.array(sorted(goods.row_of[sku] for sku in skus if sku in goods.row_of), dtype=np.int32)
    kept = []
    for n, products in enumerate(groups):
        inside = [(batch, batch.rows[np.isin(batch.rows, rows)]) for batch in products.batches]
        batches = tuple(Batch(batch.situation, goods, those) for batch, those in inside if len(those))
        if batches:
            kept.append(
                replace(products, sku=batches[0].first.sku, category=batches[0].first.category, batches=batches)
            )
        elif n == 0:
            kept.append(replace(products, batches=()))
    return tuple(kept)


class _Splitter:
    """Contexts told apart by the exceptions that are narrowed by situation, device, language or shopper.

    Contexts are bits too: by situation, then by shopper, then by device and language as in `Frame.places`.
    """

    def __init__(self, tables: Tables, index: RuleIndex, languages: tuple[str, ...]) -> None:
        self._tables, self._languages = tables, languages
        self._seers = [
            (situation, device, language, shopper)
            for situation, shopper, device, language in crossing(Situation, ShopperKind, Device, languages)
        ]
        self._met: dict[int, int] = dict.fromkeys(_each(index.narrow), 0)
        for n, seer in enumerate(self._seers):
            for rule in _each(index.of_seer(*seer) & index.narrow):
                self._met[rule] |= 1 << n
        self._known: dict[int, list[tuple[int, _Split]]] = {}

    def split(self, narrow: int) -> list[tuple[int, _Split]]:
        """Return how contexts are told apart where these exceptions may hold, with the bits of those that do."""
        those_groups = self._known.get(narrow)
        if those_groups is None:
            rules = list(_each(narrow))
            # The same wherever exceptions are met in the same contexts, whichever they are.
            met = tuple([self._met[rule] for rule in rules])
            splits = self._tables.ask(Step.COVER, ("split", self._languages, met), lambda: self._parts(met))
            those_groups = self._known[narrow] = [
                (sum(rule for n, rule in enumerate(rules) if split.held >> n & 1), split) for split in splits
            ]
        return those_groups

    def _parts(self, met: Sequence[int]) -> list[_Split]:
        parts = [(0, (1 << len(self._seers)) - 1)]
        for n, contexts in enumerate(met):
            parts = [
                part
                for held, those in parts
                for part in ((held, those & ~contexts), (held | 1 << n, those & contexts))
                if part[1]
            ]
        # In the order of the contexts, so that equal shops are told alike.
        parts.sort(key=lambda part: part[1] & -part[1])
        return [self._split(held, those) for held, those in parts]

    def _split(self, held: int, contexts: int) -> _Split:
        example = self._seers[(contexts & -contexts).bit_length() - 1]
        width = len(Device) * len(self._languages)
        whole = (1 << width) - 1
        places: dict[Situation, int] = {}
        everywhere = 0
        for n, situation in enumerate(Situation):
            here = 0
            for m in range(len(ShopperKind)):
                here |= contexts >> (n * len(ShopperKind) + m) * width & whole
            if here:
                places[situation] = here
                everywhere |= here
        return _Split(held, example, places, everywhere)


def _each(bits: int) -> Iterator[int]:
    while bits:
        lowest = bits & -bits
        yield lowest
        bits ^= lowest


def _frames(
    index: RuleIndex, placement: Placement, groups: Sequence[ProductGroup], splitter: _Splitter
) -> tuple[Frame, ...]:
    here = index.of_placement(placement)
    # Groups that the exceptions of this placement do not tell apart are one here.
    alike: dict[int, list[ProductGroup]] = {}
    for members in groups:
        alike.setdefault(members.bits[0] & here, []).append(members)
    # The plain class comes first, whatever covers the products there are.
    gathered_of: dict[int, _Gathered] = {0: _Gathered(None)}
    for may, those in alike.items():
        always = may & ~index.narrow
        batches = {batch.number: batch for members in those for batch in members.batches}
        for narrow, split in splitter.split(may & index.narrow):
            gathered = gathered_of.get(always | narrow)
            if gathered is None:
                gathered = gathered_of[always | narrow] = _Gathered((those[0], split.example))
            gathered.places |= split.everywhere
            if len(split.places) == len(Situation):
                gathered.batches.update(batches)
                continue
            for number, batch in batches.items():
                if batch.situation in split.places:
                    gathered.batches[number] = batch
    return tuple(
        Frame(
            bits,
            index,
            tuple(gathered.batches.values()),
            gathered.places,
            gathered.example,
        )
        for bits, gathered in gathered_of.items()
    )


def places_of(bits: int, languages: Sequence[str]) -> frozenset[Where]:
    """Return the devices and languages of some bits, in the order of `crossing`."""
    return frozenset(place for n, place in enumerate(crossing(Device, languages)) if bits >> n & 1)
