"""Ports kept in memory, for tests of use cases."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from datetime import date, datetime

from tests.samples import PRODUCTS, kit, settings, store
from uptick.core.catalogue import Product
from uptick.core.errors import NotFound, NothingToUndo, Stale
from uptick.core.merge import Json
from uptick.core.release import content_hash
from uptick.core.settings import Settings
from uptick.core.trial.readout import Tally
from uptick.core.trial.record import Trial
from uptick.usecases.ports import Draft, Pace, Person, Release, Shop, Step, TrialCount

ADA = Person(1, "Ada", "ada@example.test", ("sample",))


@dataclass
class FakeDrafts:
    steps: list[tuple[Settings, Step]]
    head: int = 0
    version: int = 1

    def read(self) -> Draft:
        undo = self.steps[self.head][1].label if self.head else ""
        redo = self.steps[self.head + 1][1].label if self.head + 1 < len(self.steps) else ""
        return Draft(self.version, self.steps[self.head][0], undo, redo)

    def append(self, base_version: int, settings: Settings, label: str, author: str, now: datetime) -> Draft:
        if base_version != self.version:
            raise Stale("changed meanwhile")
        del self.steps[self.head + 1 :]
        self.steps.append((settings, Step(len(self.steps), label, author, now, False)))
        self.head, self.version = self.head + 1, self.version + 1
        return self.read()

    def move(self, steps: int) -> Draft:
        if not 0 <= self.head + steps < len(self.steps):
            raise NothingToUndo("nothing")
        self.head, self.version = self.head + steps, self.version + 1
        return self.read()

    def history(self, most: int) -> list[Step]:
        return [step for _, step in reversed(self.steps)][:most]


@dataclass
class FakeCatalogue:
    products: dict[str, Product]
    imports: list[Json] = field(default_factory=list)

    def all(self) -> list[Product]:
        return list(self.products.values())

    def put(self, products: Sequence[Product]) -> None:
        self.products.update({p.sku: p for p in products})

    def note_import(self, report: Json, author: str, now: datetime) -> None:
        self.imports.append(report)

    def last_import(self) -> Json | None:
        return self.imports[-1] if self.imports else None


@dataclass
class FakeReleases:
    made: list[Release] = field(default_factory=list)
    compiled: list[Json] = field(default_factory=list)
    trials: list[Json] = field(default_factory=list)

    def newest(self) -> Release | None:
        return self.made[-1] if self.made else None

    def all(self) -> list[Release]:
        return self.made[::-1]

    def get(self, n: int) -> Release:
        if not 0 < n <= len(self.made):
            raise NotFound(f"There is no release {n}.")
        return self.made[n - 1]

    def add(self, settings: Settings, compiled: Json, note: str, author: str, now: datetime) -> Release:
        self.compiled.append(compiled)
        self.made.append(Release(len(self.made) + 1, settings, content_hash(compiled), note, author, now))
        return self.made[-1]

    def set_trials(self, release_n: int, compiled: Json, now: datetime) -> None:
        self.trials.append(compiled)


@dataclass
class FakeTrials:
    kept: dict[int, Trial] = field(default_factory=dict)

    def all(self) -> list[Trial]:
        return list(self.kept.values())[::-1]

    def get(self, number: int) -> Trial:
        if number not in self.kept:
            raise NotFound(f"There is no trial {number}.")
        return self.kept[number]

    def add(self, trial: Trial) -> Trial:
        added = replace(trial, number=len(self.kept) + 1)
        self.kept[added.number] = added
        return added

    def save(self, trial: Trial) -> None:
        self.kept[trial.number] = trial


@dataclass
class FakeSignals:
    now_pace: Pace = field(default_factory=lambda: Pace(150.0, 1000, 200, 60))
    counted: TrialCount = field(
        default_factory=lambda: TrialCount(Tally("A", 0, 0, 0, 0, 0), Tally("B", 0, 0, 0, 0, 0), 0)
    )

    def pace(self, places: Sequence[str], products: Sequence[str] | None, window_days: int, now: datetime) -> Pace:
        return self.now_pace

    def count(self, trial: Trial, now: datetime) -> TrialCount:
        return self.counted

    def tallies(self, since: date) -> dict[str, dict[str, int]]:
        return {"product_page": {"shown": 200, "clicked": 50}}

    def refusals(self, since: date) -> dict[str, int]:
        return {"robot": 3}


@dataclass
class FakeShop:
    """A shop with its fakes within reach of a test."""

    drafts: FakeDrafts
    catalogue: FakeCatalogue
    releases: FakeReleases
    trials: FakeTrials
    signals: FakeSignals

    @property
    def shop(self) -> Shop:
        return Shop(store(), kit(), self.drafts, self.catalogue, self.releases, self.trials, self.signals)


def fake_shop(of: Settings | None = None, products: Sequence[Product] = PRODUCTS) -> FakeShop:
    began = Step(0, "store made", "", datetime(2026, 1, 1), False)
    return FakeShop(
        FakeDrafts([(of or settings(), began)]),
        FakeCatalogue({p.sku: p for p in products}),
        FakeReleases(),
        FakeTrials(),
        FakeSignals(),
    )
