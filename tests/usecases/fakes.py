"""Ports kept in memory, for tests of use cases."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date, datetime

from tests.samples import NOW, PRODUCTS, kit, settings, store
from uptick.core.button.merge import Json
from uptick.core.colour.pictures import Picture
from uptick.core.drawing.kit import Kit
from uptick.core.engine.shops import CompiledShop
from uptick.core.errors import NotFound, Stale
from uptick.core.formats.picture_file import pixels_of
from uptick.core.release import content_hash
from uptick.core.rules.history import Mark, redoable, undoable
from uptick.core.rules.reach import Reach
from uptick.core.rules.settings import Settings
from uptick.core.scroll.study import KeptStudy
from uptick.core.shop.catalogue import Product
from uptick.core.shop.connection import BasketConnection
from uptick.core.shop.store import Store
from uptick.core.trial.readout import Tally
from uptick.core.trial.record import Trial
from uptick.usecases.ports import Draft, HandedOut, HistoryStep, Pace, Person, Release, Shop, StoredPicture, TrialCount

ADA = Person(1, "Ada", "ada@example.test", ("sample",))


@dataclass
class FakeDrafts:
    """A history that grows; `viewer` is the person whose undo and redo are told."""

    steps: list[tuple[Settings, Mark, HistoryStep]]
    version: int = 1
    viewer: int = ADA.id

    def read(self) -> Draft:
        marks = self.marks()
        undo, redo = undoable(marks, self.viewer), redoable(marks, self.viewer)
        return Draft(
            self.version,
            self.steps[-1][0],
            undo.label if undo else "",
            redo.label.removeprefix("Undone: ") if redo else "",
        )

    def append(
        self,
        base_version: int,
        settings: Settings,
        label: str,
        person: Person,
        now: datetime,
        reverts: int | None = None,
    ) -> Draft:
        if base_version != self.version:
            raise Stale("changed meanwhile")
        n = len(self.steps)
        step = HistoryStep(n, label, person.name, now, False, person.id == self.viewer)
        self.steps.append((settings, Mark(n, person.id, reverts, label), step))
        self.version += 1
        return self.read()

    def marks(self) -> list[Mark]:
        return [mark for _, mark, _ in self.steps]

    def settings_at(self, n: int) -> Settings:
        return self.steps[n][0]

    def history(self, most: int, before: int | None = None) -> list[HistoryStep]:
        return [step for _, _, step in reversed(self.steps) if before is None or step.n < before][:most]


@dataclass
class FakeCatalogue:
    products: dict[str, Product]
    imports: list[Json] = field(default_factory=list)
    _listed: list[Product] | None = None

    def all(self) -> list[Product]:
        # The same list as long as nothing changes, as the real one gives.
        if self._listed is None:
            self._listed = list(self.products.values())
        return self._listed

    def put(self, products: Sequence[Product]) -> None:
        self.products.update({p.sku: p for p in products})
        self._listed = None

    def remove(self, skus: Sequence[str]) -> None:
        for sku in skus:
            del self.products[sku]
        self._listed = None

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

    def at(self, when: datetime) -> Release | None:
        made = [release for release in self.made if release.made_at <= when] or self.made[:1]
        return made[-1] if made else None

    def add(self, settings: Settings, compiled: Json, note: str, author: str, now: datetime) -> Release:
        self.compiled.append(compiled)
        self.made.append(Release(len(self.made) + 1, settings, content_hash(compiled), note, author, now))
        return self.made[-1]

    def set_trials(self, release_n: int, compiled: Json, now: datetime) -> None:
        self.trials.append(compiled)


@dataclass
class FakeTrials:
    kept: dict[int, Trial] = field(default_factory=dict)
    frozen: dict[int, tuple[str, ...]] = field(default_factory=dict)

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
        self.kept[trial.number] = replace(trial, version=trial.version + 1)

    def freeze(self, number: int, products: Sequence[str]) -> None:
        self.frozen[number] = tuple(products)


@dataclass
class FakeSignals:
    asked: list[tuple[Reach, Sequence[str] | None]] = field(default_factory=list)
    now_pace: Pace = field(default_factory=lambda: Pace(150.0, 1000, 200, 60))
    counted: TrialCount = field(
        default_factory=lambda: TrialCount(Tally("A", 0, 0, 0, 0, 0), Tally("B", 0, 0, 0, 0, 0), 0)
    )

    def pace(self, reach: Reach, products: Sequence[str] | None, window_days: int, now: datetime) -> Pace:
        self.asked.append((reach, products))
        return self.now_pace

    def count(self, trial: Trial, now: datetime) -> TrialCount:
        return self.counted

    def tallies(self, since: date) -> dict[tuple[str, str], dict[str, int]]:
        return {("product_page", "plain"): {"shown": 200, "clicked": 50}}

    def refusals(self, since: date) -> dict[str, int]:
        return {"robot": 3}


@dataclass
class FakeSide:
    connection: BasketConnection | None = None
    store: Store | None = None
    kept: dict[int, Json] = field(default_factory=dict)
    studied: KeptStudy | None = None

    def profile(self) -> Store:
        registered = self.store or store()
        return registered.model_copy(update={"connection": self.connection or registered.connection})

    def connect(self, connection: BasketConnection) -> None:
        self.connection = connection

    def readdress(self, store: Store) -> None:
        self.store = store

    def add_look(self, release: int, moment: str, report: Mapping[str, object], now: datetime) -> None:
        self.kept[release] = dict(report)

    def looks(self) -> dict[int, Json]:
        return self.kept

    def keep_study(self, kept: KeptStudy) -> None:
        self.studied = kept

    def study(self) -> KeptStudy | None:
        return self.studied


@dataclass
class FakePictures:
    kept: dict[str, tuple[StoredPicture, bytes]] = field(default_factory=dict)

    def all(self) -> list[StoredPicture]:
        return [picture for picture, _ in self.kept.values()]

    def put(self, picture: StoredPicture, content: bytes) -> None:
        self.kept[picture.hash] = picture, content

    def content(self, digest: str) -> tuple[str, bytes] | None:
        found = self.kept.get(digest)
        return (found[0].media_type, found[1]) if found else None


class PicturesAsPixels(dict[str, Picture]):
    """What a kit has of the pictures that a fake shop keeps."""

    def __init__(self, pictures: FakePictures) -> None:
        super().__init__()
        self._pictures = pictures

    def __contains__(self, digest: object) -> bool:
        return digest in self._pictures.kept

    def get(self, digest: str, default: object = None) -> Picture | None:  # type: ignore[override]
        found = self._pictures.content(digest)
        if found and digest not in self.keys():
            self[digest] = pixels_of(found[1])
        return self[digest] if found else None


@dataclass
class FakeOutside:
    made: dict[str, HandedOut] = field(default_factory=dict)
    pictures: dict[str, tuple[str, bytes]] = field(default_factory=dict)

    def all(self) -> list[HandedOut]:
        return list(self.made.values())

    def put(self, buttons: Sequence[HandedOut]) -> None:
        for button in buttons:
            if button.copied_at or button.of.id not in self.made:
                self.made[button.of.id] = button

    def put_picture(self, digest: str, media_type: str, content: bytes) -> None:
        self.pictures[digest] = (media_type, content)


@dataclass
class FakeShop:
    """A shop with its fakes within reach of a test."""

    drafts: FakeDrafts
    catalogue: FakeCatalogue
    releases: FakeReleases
    trials: FakeTrials
    signals: FakeSignals
    pictures: FakePictures = field(default_factory=FakePictures)
    side: FakeSide = field(default_factory=FakeSide)
    outside: FakeOutside = field(default_factory=FakeOutside)
    today: date = field(default_factory=NOW.date)
    compiled: CompiledShop = field(init=False)
    store: Store = field(default_factory=store)

    def __post_init__(self) -> None:
        made = Kit(kit().fonts, kit().icons, PicturesAsPixels(self.pictures))
        self.compiled = CompiledShop(lambda _: made)

    @property
    def shop(self) -> Shop:
        return Shop(
            self.compiled.placed(self.store, self.drafts.read().settings),
            self.store,
            self.compiled,
            self.drafts,
            self.catalogue,
            self.releases,
            self.trials,
            self.signals,
            self.pictures,
            self.side,
            self.outside,
            self.today,
        )


def fake_shop(of: Settings | None = None, products: Sequence[Product] = PRODUCTS) -> FakeShop:
    began = HistoryStep(0, "store made", "", datetime(2026, 1, 1), False, False)
    return FakeShop(
        FakeDrafts([(of or settings(), Mark(0, 0, None, "store made"), began)]),
        FakeCatalogue({p.sku: p for p in products}),
        FakeReleases(),
        FakeTrials(),
        FakeSignals(),
    )
