"""Which exceptions cover what, as bits, so that a whole shop can be looked through."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from typing import NamedTuple

from uptick.core.button.document import Device, Placement, ShopperKind, Situation
from uptick.core.rules.reach import Context
from uptick.core.rules.settings import ExceptionRule


class _Dimension(NamedTuple):
    """Which rules cover a value of one dimension: bits, the least particular rule lowest."""

    unnarrowed: int
    by_value: Mapping[str, int]

    def covering(self, value: str | None) -> int:
        return self.unnarrowed if value is None else self.by_value.get(value, self.unnarrowed)


class RuleIndex:
    """The exceptions that are on, in the order in which they apply, as bits: covering costs a few looks-up."""

    def __init__(self, rules: Iterable[ExceptionRule]) -> None:
        # Sorting keeps equal ones in the order in which they were made: the later wins.
        self.rules = tuple(sorted((rule for rule in rules if rule.on), key=lambda rule: rule.reach.particularity()))
        reaches = [rule.reach for rule in self.rules]
        self._products = _dimension(reach.products for reach in reaches)
        self._categories = _dimension(reach.categories for reach in reaches)
        self._not_products = _named(reach.not_products for reach in reaches)
        self._not_categories = _named(reach.not_categories for reach in reaches)
        self._situations = _dimension(reach.situations for reach in reaches)
        self._placements = _dimension(reach.placements for reach in reaches)
        self._devices = _dimension(reach.devices for reach in reaches)
        self._languages = _dimension(reach.languages for reach in reaches)
        self._shoppers = _dimension(reach.shoppers for reach in reaches)
        # Codes that some exception names, and the exceptions that are narrowed by more than product and placement.
        self.named_products = frozenset({*self._products.by_value, *self._not_products})
        self.narrow = sum(
            1 << n
            for n, reach in enumerate(reaches)
            if reach.situations or reach.devices or reach.languages or reach.shoppers
        )

    def of_product(self, product: str, category: str) -> int:
        """Return, as bits, what covers a product of a category."""
        covered = self._products.covering(product) & self._categories.covering(category)
        return covered & ~(self._not_products.get(product, 0) | self._not_categories.get(category, 0))

    def of_place(
        self,
        placement: Placement,
        situation: Situation | None,
        device: Device | None,
        language: str | None,
        shopper: ShopperKind | None,
    ) -> int:
        """Return, as bits, what covers whoever sees a placement so; by None only what is not narrowed by it."""
        return self._placements.covering(placement) & self.of_seer(situation, device, language, shopper)

    def of_seer(
        self, situation: Situation | None, device: Device | None, language: str | None, shopper: ShopperKind | None
    ) -> int:
        """Return what covers those who see a product in some situation, wherever it stands."""
        return (
            self._situations.covering(situation)
            & self._devices.covering(device)
            & self._languages.covering(language)
            & self._shoppers.covering(shopper)
        )

    def of(self, context: Context) -> int:
        """Return, as bits, what covers one context."""
        where = self.of_place(context.placement, context.situation, context.device, context.language, context.shopper)
        return where & self.of_product(context.product, context.category)

    def of_placement(self, placement: Placement) -> int:
        """Return, as bits, what covers a placement."""
        return self._placements.covering(placement)

    def of_situation(self, situation: Situation) -> int:
        """Return, as bits, what covers a situation."""
        return self._situations.covering(situation)

    def of_device(self, device: Device) -> int:
        """Return, as bits, what covers a device."""
        return self._devices.covering(device)

    def of_language(self, language: str) -> int:
        """Return, as bits, what covers a language."""
        return self._languages.covering(language)

    def of_shopper(self, shopper: ShopperKind) -> int:
        """Return, as bits, what covers a kind of shopper."""
        return self._shoppers.covering(shopper)

    def named(self, bits: int) -> Iterator[ExceptionRule]:
        """Yield the rules of some bits, the least particular first."""
        while bits:
            lowest = bits & -bits
            yield self.rules[lowest.bit_length() - 1]
            bits ^= lowest


def _named(lists: Iterable[Sequence[str]]) -> dict[str, int]:
    bits_of_value: dict[str, int] = {}
    for n, values in enumerate(lists):
        for value in values:
            bits_of_value[value] = bits_of_value.get(value, 0) | 1 << n
    return bits_of_value


def _dimension(lists: Iterable[Sequence[str]]) -> _Dimension:
    listed = list(lists)
    free = sum(1 << n for n, values in enumerate(listed) if not values)
    return _Dimension(free, {value: bits | free for value, bits in _named(listed).items()})
