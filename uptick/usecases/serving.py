"""What passes between the edge and the data: what a store serves, and signals to keep."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Protocol

from uptick.core.merge import Json
from uptick.core.signals import Kind, Signal
from uptick.core.store import Store


@dataclass(frozen=True, slots=True)
class Served:
    """A store's current release and trials. `stamp` names the pair: it changes when either does."""

    store_id: int
    store: Store
    release_n: int
    release: Json
    trials: Json
    stamp: str


@dataclass(frozen=True, slots=True)
class TrialScope:
    """What a running trial counts. `products` is None where every product is under trial."""

    number: int
    version_salt: str
    places: tuple[str, ...]
    products: frozenset[str] | None
    started_at: datetime
    closed_at: datetime | None
    window: timedelta

    def concerns(self, signal: Signal) -> bool:
        if not signal.shopper or signal.at < self.started_at or (self.closed_at and signal.at >= self.closed_at):
            return False
        if self.products is not None and signal.product not in self.products:
            return False
        return signal.kind is Kind.ORDERED or signal.place in self.places


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


class Writer(Protocol):
    def write(self, batches: Sequence[StoreBatch], today: date) -> int: ...
