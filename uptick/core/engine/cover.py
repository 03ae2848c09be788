"""What covers what: the classes of a shop by placement, before anything is drawn or said."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from itertools import product as crossing
from typing import NamedTuple

from uptick.core.document import Device, Placement, ShopperKind, Situation
from uptick.core.engine.goods import Batch, Goods, Group, group
from uptick.core.engine.rules import RuleIndex
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
    example: tuple[Group, Seer] | None

    @cached_property
    def rules(self) -> tuple[str, ...]:
        return tuple([rule.id for rule in self.index.named(self.bits)])

    @cached_property
    def key(self) -> str:
        return ",".join(self.rules)


@dataclass(frozen=True, slots=True, eq=False)
class Cover:
    """The groups of a shop's products and its frames by placement, every placement's plain class first."""

    groups: tuple[Group, ...]
    frames: Mapping[Placement, tuple[Frame, ...]]
    by_bits: Mapping[Placement, Mapping[int, Frame]]


class _Split(NamedTuple):
    """Where one set of narrowed exceptions holds: an example, and the places by situation."""

    bits: int
    example: Seer
    places: dict[Situation, int]


@dataclass(slots=True)
class _Gathered:
    example: tuple[Group, Seer] | None
    places: int = 0
    batches: dict[int, Batch] = field(default_factory=dict)


def cover(tables: Tables, index: RuleIndex, languages: Sequence[str], goods: Goods) -> Cover:
    """Return the classes of a shop. A product's other situations are looked at too, since stock changes.

    The cost grows with the kinds of products that exceptions tell apart, not with the products.
    """
    groups = group(tables, goods, (index,))
    splitter = _Splitter(index, languages)
    frames = {placement: _frames(index, placement, groups, splitter) for placement in Placement}
    return Cover(groups, frames, {place: {one.bits: one for one in those} for place, those in frames.items()})


class _Splitter:
    """Contexts told apart by the exceptions that are narrowed by situation, device, language or shopper.

    Contexts are bits too: by situation, then by shopper, then by device and language as in `Frame.places`.
    """

    def __init__(self, index: RuleIndex, languages: Sequence[str]) -> None:
        self._seers = [
            (situation, device, language, shopper)
            for situation, shopper, device, language in crossing(Situation, ShopperKind, Device, languages)
        ]
        self._width = len(Device) * len(languages)
        self._met: dict[int, int] = {}
        for n, seer in enumerate(self._seers):
            for rule in _each(index.of_seer(*seer) & index.narrow):
                self._met[rule] = self._met.get(rule, 0) | 1 << n
        self._known: dict[int, list[_Split]] = {}

    def split(self, narrow: int) -> list[_Split]:
        """Return how contexts are told apart where these exceptions may hold."""
        found = self._known.get(narrow)
        if found is None:
            parts = [(0, (1 << len(self._seers)) - 1)]
            for rule in _each(narrow):
                met = self._met.get(rule, 0)
                parts = [
                    part
                    for bits, contexts in parts
                    for part in ((bits, contexts & ~met), (bits | rule, contexts & met))
                    if part[1]
                ]
            # In the order of the contexts, so that equal shops are told alike.
            parts.sort(key=lambda part: part[1] & -part[1])
            found = self._known[narrow] = [self._split(bits, contexts) for bits, contexts in parts]
        return found

    def _split(self, bits: int, contexts: int) -> _Split:
        example = self._seers[(contexts & -contexts).bit_length() - 1]
        width, whole = self._width, (1 << self._width) - 1
        places: dict[Situation, int] = {}
        for n, situation in enumerate(Situation):
            here = 0
            for m in range(len(ShopperKind)):
                here |= contexts >> (n * len(ShopperKind) + m) * width & whole
            if here:
                places[situation] = here
        return _Split(bits, example, places)


def _each(bits: int) -> Iterator[int]:
    while bits:
        lowest = bits & -bits
        yield lowest
        bits ^= lowest


def _frames(index: RuleIndex, placement: Placement, groups: Sequence[Group], splitter: _Splitter) -> tuple[Frame, ...]:
    here = index.of_placement(placement)
    # The plain class comes first, whatever covers the products there are.
    found: dict[int, _Gathered] = {0: _Gathered(None)}
    for members in groups:
        may = members.bits[0] & here
        always = may & ~index.narrow
        for narrow, seer, places in splitter.split(may & index.narrow):
            gathered = found.get(always | narrow)
            if gathered is None:
                gathered = found[always | narrow] = _Gathered((members, seer))
            for bits in places.values():
                gathered.places |= bits
            for batch in members.batches:
                if batch.situation in places:
                    gathered.batches[batch.number] = batch
    return tuple(
        Frame(
            bits,
            index,
            tuple(gathered.batches.values()),
            gathered.places,
            gathered.example,
        )
        for bits, gathered in found.items()
    )


def places_of(bits: int, languages: Sequence[str]) -> frozenset[Where]:
    return frozenset(place for n, place in enumerate(crossing(Device, languages)) if bits >> n & 1)
