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
        """Return which share of those followed did what is measured."""
        hits = self.added if measure is Measure.ADDED else self.ordered
        return hits / self.followed if self.followed else 0.0


@dataclass(frozen=True, slots=True)
class TrialCount:
    a: Tally
    b: Tally
    inside: int


class Drafts(Protocol):
    """The store's settings as they grow: every step is kept, and the newest is the draft."""

    def read(self) -> Draft:
        """Return the draft as it is now."""

    def append(
        self,
        base_version: int,
        settings: Settings,
        label: str,
        person: "Person",
        now: datetime,
        reverts: int | None = None,
    ) -> Draft:
        """Make the draft's next step of what somebody saw at `base_version`; `reverts` is a step that it takes back.

        Raises:
            Stale: Somebody has changed it since.
        """

    def marks(self) -> list[Mark]:
        """Return what can be undone and redone, by step."""

    def settings_at(self, n: int) -> Settings:
        """Return the settings as step `n` left them.

        Raises:
            NotFound: There is no such step.
        """

    def history(self, most: int, before: int | None = None) -> list[HistoryStep]:
        """Return so many steps, the newest first, older than `before` where that is given."""


class Catalogue(Protocol):
    """The store's products, as they were brought last."""

    def all(self) -> list[Product]:
        """Return every product, in the order in which the catalogue has them."""

    def put(self, products: Sequence[Product]) -> None:
        """Add products, or replace those that have their codes."""

    def remove(self, skus: Sequence[str]) -> None:
        """Remove products by their codes; unknown ones are passed over."""

    def note_import(self, report: Json, author: str, now: datetime) -> None:
        """Keep what an import did."""

    def last_import(self) -> Json | None:
        """Return what the newest import did; None before the first."""


class Releases(Protocol):
    """What shoppers get: releases are added and never changed."""

    def newest(self) -> Release | None:
        """Return the newest release; None before the first."""

    def all(self) -> list[Release]:
        """Return every release, the newest first."""

    def get(self, n: int) -> Release:
        """Return a release by its number.

        Raises:
            NotFound: There is no such release.
        """

    def at(self, when: datetime) -> Release | None:
        """Return the release that shoppers had at a time; None before the first."""

    def add(self, settings: Settings, compiled: Mapping[str, object], note: str, author: str, now: datetime) -> Release:
        """Add a release with what the script is told of it, and have every edge hear of it."""

    def set_trials(self, release_n: int, compiled: Json, now: datetime) -> None:
        """Keep what the script is told of the trials that run beside a release."""


class Trials(Protocol):
    """The store's trials, by their numbers."""

    def all(self) -> list[Trial]:
        """Return every trial, the newest first."""

    def get(self, number: int) -> Trial:
        """Return a trial.

        Raises:
            NotFound: There is no such trial.
        """

    def add(self, trial: Trial) -> Trial:
        """Add a trial, and return it with its number."""

    def save(self, trial: Trial) -> None:
        """Keep a trial that was changed from the version before its own.

        Raises:
            Stale: Somebody has changed it since.
        """

    def freeze(self, number: int, products: Sequence[str]) -> None:
        """Keep which products a trial covered when it started."""


class Signals(Protocol):
    """What shoppers did."""

    def pace(self, reach: Reach, products: Sequence[str] | None, window_days: int, now: datetime) -> Pace:
        """Return how many shoppers a reach meets a day, and what those did who were followed for a whole window."""

    def count(self, trial: Trial, now: datetime) -> TrialCount:
        """Return who entered a trial, whose window is over, and what they did, by version."""

    def tallies(self, since: date) -> dict[tuple[str, str], dict[str, int]]:
        """Return counts by kind of signal for each placement and product, from a day on."""

    def refusals(self, since: date) -> dict[str, int]:
        """Return how many batches were refused, by why, from a day on."""


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
    """Pictures that somebody brought, by the SHA-256 of their content."""

    def all(self) -> list[StoredPicture]:
        """Return every picture, the newest first."""

    def put(self, picture: StoredPicture, content: bytes) -> None:
        """Keep a picture; one that is there already stays as it is."""

    def content(self, digest: str) -> tuple[str, bytes] | None:
        """Return media type and content; None where there is no such picture."""


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
    """Buttons handed out for pages that are not the shop's."""

    def all(self) -> list[HandedOut]:
        """Return every button with how often it was pressed."""

    def put(self, buttons: Sequence[HandedOut]) -> None:
        """Keep buttons, or replace those that are the same."""

    def put_picture(self, digest: str, media_type: str, content: bytes) -> None:
        """Keep a picture of a button; mails ask for it for years."""


class ShopSide(Protocol):
    """The shop's own side: how its basket is told, and the newest look at its live pages for each release."""

    def profile(self) -> Store:
        """Return the store as its own side tells it."""

    def connect(self, connection: BasketConnection) -> None:
        """Keep how its basket is told and filled."""

    def readdress(self, store: Store) -> None:
        """Keep its addresses: its origins, and a page of each kind."""

    def add_look(self, release: int, moment: str, report: Mapping[str, object], now: datetime) -> None:
        """Keep a look at its live pages."""

    def looks(self) -> dict[int, Json]:
        """Return the newest look of each release."""

    def keep_study(self, kept: KeptStudy) -> None:
        """Keep a study of the whole shop instead of the one before."""

    def study(self) -> KeptStudy | None:
        """Return the newest study; None before the first."""


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
        """Fonts and icons that buttons are drawn with."""
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
    """People, their sessions and their stores."""

    def find(self, email: str) -> tuple[Person, str] | None:
        """Return a person with the password's hash; None where nobody has the address."""

    def start_session(self, user_id: int, token_hash: str, now: datetime, ends_at: datetime) -> None:
        """Begin a session, known by the hash of its token."""

    def session(self, token_hash: str, now: datetime) -> Person | None:
        """Return whose session it is; None where there is none or it has ended."""

    def end_session(self, token_hash: str) -> None:
        """End a session, if there is one."""

    def add_person(self, email: str, name: str, password_hash: str) -> int:
        """Add a person, and return the number."""

    def add_store(self, store: Store, settings: Settings, owner: int, now: datetime) -> None:
        """Add a store with its first settings."""

    def store_keys(self) -> list[str]:
        """Return the keys of all stores."""

    def stores_of(self, person: Person) -> tuple[StoreLine, ...]:
        """Return the stores that a person may open."""
