"""What passes between the edge and the data: what a store serves, and signals to keep."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, datetime, timedelta
from typing import Any, Protocol, cast

from uptick.core.button.document import Placement
from uptick.core.button.merge import Json
from uptick.core.outside.handed import Handed
from uptick.core.rules.reach import Context, Reach
from uptick.core.shop.catalogue import Product
from uptick.core.shop.signals import Signal, SignalKind
from uptick.core.shop.store import Store


@dataclass(frozen=True, slots=True)
class Served:
    """A store's current release and trials. `stamp` names the pair: it changes when either does."""

    store_id: int
    store: Store
    release_n: int
    release: Json
    trials: Json
    stamp: str


_MOST_REMEMBERED = 4096


@dataclass(frozen=True, slots=True)
class TrialScope:
    """What a running trial counts: what its reach covers, of the products that were in it at the start.

    `products` is None where the reach does not narrow them.
    """

    number: int
    version_salt: str
    reach: Reach
    products: frozenset[str] | None
    started_at: datetime
    closed_at: datetime | None
    window: timedelta
    _covered: dict[tuple[str, ...], bool] = field(default_factory=dict, compare=False)

    def concerns(self, signal: Signal) -> bool:
        """Tell whether a signal counts. An order has no place and no device: it counts by product and shopper."""
        if not signal.shopper or signal.at < self.started_at or (self.closed_at and signal.at >= self.closed_at):
            return False
        if self.products is not None and signal.product not in self.products:
            return False
        return signal.kind is SignalKind.ORDERED or self._covers_where(signal)

    def _covers_where(self, signal: Signal) -> bool:
        where = (signal.place, signal.situation, signal.device, signal.language, signal.shopper_kind)
        known = self._covered.get(where)
        if known is None:
            if len(self._covered) >= _MOST_REMEMBERED:
                self._covered.clear()
            known = self._covered[where] = self.reach.covers_where(seen_in(*where))
        return known


def seen_in(place: str, situation: str, device: str, language: str, shopper_kind: str) -> Context:
    """Return where something was seen, as signals tell it; a reach takes texts for what they name."""
    seen_as: Any = (situation or None, device or None, language or None, shopper_kind or None)
    return Context(cast(Placement, place), "", "", *seen_as)


@dataclass(frozen=True, slots=True)
class StoreBatch:
    """Believed signals of one store, with its trials and the refusals to count by reason."""

    store_id: int
    signals: Sequence[Signal]
    trials: Sequence[TrialScope]
    refused: Mapping[str, int]


class Shelf(Protocol):
    def served(self, key: str) -> Served | None: ...
    def picture(self, digest: str) -> tuple[str, bytes] | None: ...
    def scopes(self, store_id: int, *, is_practice: bool) -> tuple[TrialScope, ...]: ...


class OutsideDoor(Protocol):
    """Where the links of buttons outside lead. Both may raise `Unavailable`."""

    def handed(self, store_id: int, handed: str, today: date) -> tuple[Handed, Product | None] | None: ...
    def count(self, store_id: int, handed: str, day: date) -> None: ...


class Changes(Protocol):
    """Tells when what a store serves has changed; `hears` is false while it could miss that."""

    @property
    def hears(self) -> bool: ...
    def start(self, changed: Callable[[str | None], None]) -> None: ...
    def stop(self) -> None: ...


class Unavailable(Exception):
    """The database cannot be reached, whatever is written; trying again later may do."""


class BatchWriter(Protocol):
    """Writes a group of batches in one transaction.

    Raises:
        Unavailable: Nothing can be written now. Every other exception says that something in the group cannot be.
    """

    def write(self, batches: Sequence[StoreBatch], today: date) -> int: ...
