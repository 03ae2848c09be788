"""What the use cases need from outside, as Protocols. Everything here is bound to one store."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from typing import Protocol

from uptick.core.button.merge import Json
from uptick.core.drawing.kit import Kit
from uptick.core.engine.shops import CompiledShop
from uptick.core.engine.snapshot import Snapshot
from uptick.core.outside.handed import Handed
from uptick.core.rules.history import Mark
from uptick.core.rules.reach import Reach
from uptick.core.rules.settings import Settings
from uptick.core.scroll.study import KeptStudy
from uptick.core.shop.catalogue import Product
from uptick.core.shop.connection import BasketConnection
from uptick.core.shop.store import Store
from uptick.core.trial.readout import Measure, Tally
from uptick.core.trial.record import Trial


@dataclass(frozen=True, slots=True)
class Draft:
    """The draft as it stands. `version` grows with every change, undo and redo; it is what If-Match compares.

    The labels name what undo and redo would do for the person who looks.
    """

    version: int
    settings: Settings
    undo_label: str
    redo_label: str


@dataclass(frozen=True, slots=True)
class HistoryStep:
    n: int
    label: str
    author: str
    made_at: datetime
    is_undone: bool
    is_own: bool


@dataclass(frozen=True, slots=True)
class Release:
    n: int
    settings: Settings
    hash: str
    note: str
    author: str
    made_at: datetime


@dataclass(frozen=True, slots=True)
class Pace:
    """What the shop's own signals say: first-time shoppers a day, and of those followed to the end, who did what."""

    entering_per_day: float
    followed: int
    added: int
    ordered: int

    def rate(self, measure: Measure) -> float:
        hits = self.added if measure is Measure.ADDED else self.ordered
        return hits / self.followed if self.followed else 0.0


@dataclass(frozen=True, slots=True)
class TrialCount:
    a: Tally
    b: Tally
    inside: int


class Drafts(Protocol):
    def read(self) -> Draft: ...
    def append(
        self,
        base_version: int,
        settings: Settings,
        label: str,
        person: "Person",
        now: datetime,
        reverts: int | None = None,
    ) -> Draft: ...
    def marks(self) -> list[Mark]: ...
    def settings_at(self, n: int) -> Settings: ...
    def history(self, most: int, before: int | None = None) -> list[HistoryStep]: ...


class Catalogue(Protocol):
    def all(self) -> list[Product]: ...
    def put(self, products: Sequence[Product]) -> None: ...
    def remove(self, skus: Sequence[str]) -> None: ...
    def note_import(self, report: Json, author: str, now: datetime) -> None: ...
    def last_import(self) -> Json | None: ...


class Releases(Protocol):
    def newest(self) -> Release | None: ...
    def all(self) -> list[Release]: ...
    def get(self, n: int) -> Release: ...
    def at(self, when: datetime) -> Release | None: ...
    def add(
        self, settings: Settings, compiled: Mapping[str, object], note: str, author: str, now: datetime
    ) -> Release: ...
    def set_trials(self, release_n: int, compiled: Json, now: datetime) -> None: ...


class Trials(Protocol):
    def all(self) -> list[Trial]: ...
    def get(self, number: int) -> Trial: ...
    def add(self, trial: Trial) -> Trial: ...
    def save(self, trial: Trial) -> None: ...
    def freeze(self, number: int, products: Sequence[str]) -> None: ...


class Signals(Protocol):
    def pace(self, reach: Reach, products: Sequence[str] | None, window_days: int, now: datetime) -> Pace: ...
    def count(self, trial: Trial, now: datetime) -> TrialCount: ...
    def tallies(self, since: date) -> dict[tuple[str, str], dict[str, int]]: ...
    def refusals(self, since: date) -> dict[str, int]: ...


@dataclass(frozen=True, slots=True)
class StoredPicture:
    """A picture that somebody brought: its name, its size in pixels and its content's hash."""

    hash: str
    name: str
    media_type: str
    width: int
    height: int
    author: str
    made_at: datetime


class Pictures(Protocol):
    def all(self) -> list[StoredPicture]: ...
    def put(self, picture: StoredPicture, content: bytes) -> None: ...
    def content(self, digest: str) -> tuple[str, bytes] | None: ...


@dataclass(frozen=True, slots=True)
class HandedOut:
    """A button made for outside, so many in a row. `looks` stands for how it was drawn when it was copied last.

    `copied_at` is None where nobody has copied it yet; its link leads all the same.
    """

    of: Handed
    across: int
    words: str
    looks: str
    author: str
    made_at: datetime
    copied_at: datetime | None
    presses: int = 0


class OutsideButtons(Protocol):
    def all(self) -> list[HandedOut]: ...
    def put(self, buttons: Sequence[HandedOut]) -> None: ...
    def put_picture(self, digest: str, media_type: str, content: bytes) -> None: ...


class ShopSide(Protocol):
    """The shop's own side: how its basket is told, and the newest look at its live pages for each release."""

    def profile(self) -> Store: ...
    def connect(self, connection: BasketConnection) -> None: ...
    def readdress(self, store: Store) -> None: ...
    def add_look(self, release: int, moment: str, report: Mapping[str, object], now: datetime) -> None: ...
    def looks(self) -> dict[int, Json]: ...
    def keep_study(self, kept: KeptStudy) -> None: ...
    def study(self) -> KeptStudy | None: ...


@dataclass(frozen=True, slots=True)
class Shop:
    """One store with everything that belongs to it: no query made through it can reach another store.

    `store` has the containers of the draft's places, `registered` those of the shop's own code alone. `today` is the
    day in the store's own time; exceptions wake and sleep by it. `hold` keeps everybody else from changing what two
    people must not change at once (releases, trials, connection, addresses, catalogue) until the transaction ends, and
    has this one read what is there by then.
    """

    store: Store
    registered: Store
    compiled: CompiledShop
    drafts: Drafts
    catalogue: Catalogue
    releases: Releases
    trials: Trials
    signals: Signals
    pictures: Pictures
    side: ShopSide
    outside: OutsideButtons
    today: date
    hold: Callable[[], None] = lambda: None

    @property
    def kit(self) -> Kit:
        return self.compiled.kit

    def as_written(self, settings: Settings) -> Snapshot:
        """Return the store as settings make it, with exceptions that sleep today as if it were their day."""
        return self.compiled.at(settings, self.catalogue.all(), self.store)

    def at(self, settings: Settings) -> Snapshot:
        """Return the store as settings make it today."""
        return self.as_written(settings.on_day(self.today))

    def now(self) -> Snapshot:
        """Return the store as its draft makes it today."""
        return self.at(self.drafts.read().settings)


@dataclass(frozen=True, slots=True)
class Person:
    """A signed-in designer and the stores that they may open."""

    id: int
    name: str
    email: str
    stores: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class StoreLine:
    """A store in the list of a person's stores."""

    key: str
    name: str
    origin: str


class Accounts(Protocol):
    def find(self, email: str) -> tuple[Person, str] | None: ...
    def start_session(self, user_id: int, token_hash: str, now: datetime, ends_at: datetime) -> None: ...
    def session(self, token_hash: str, now: datetime) -> Person | None: ...
    def end_session(self, token_hash: str) -> None: ...
    def add_person(self, email: str, name: str, password_hash: str) -> int: ...
    def add_store(self, store: Store, settings: Settings, owner: int, now: datetime) -> None: ...
    def store_keys(self) -> list[str]: ...
    def stores_of(self, person: Person) -> tuple[StoreLine, ...]: ...
