"""Floor: the whole shop's purchase buttons as one plan."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime
from typing import Literal

from uptick.core.button.document import Device, Moment, Placement, ShopperKind, Situation
from uptick.core.button.fields import field_title
from uptick.core.checks import Finding, Found, Spot, Weight, fields_of, seen_in
from uptick.core.engine.goods import Batch, ProductGroup
from uptick.core.engine.snapshot import Snapshot
from uptick.core.resolved.classes import LEADING, ButtonClass, bare_class, opens_message
from uptick.core.rules.reach import Reach
from uptick.core.shop.catalogue import Product
from uptick.core.trial.record import Trial, TrialState
from uptick.usecases.ports import Shop
from uptick.usecases.state import DraftState, Shown, draft_state, language_of, show


@dataclass(frozen=True, slots=True)
class ExceptionMark:
    """An exception that narrows a cell: what it sets, and for how many of the cell's products."""

    id: str
    name: str
    products: int
    sets: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Cell:
    """One crossing of the plan. `trials` run there; `shown` and `clicked` are signals of the last days."""

    column: str
    button: Shown | None
    stands: bool
    product: Product | None
    products: int
    exceptions: tuple[ExceptionMark, ...]
    trials: tuple[int, ...]
    shown: int
    clicked: int


@dataclass(frozen=True, slots=True)
class FloorRow:
    """A placement of the plan; `stands_on` is what `pages` counts."""

    placement: Placement
    pages: int
    stands_on: Literal["page", "list", "product"]
    room_px: float
    cells: tuple[Cell, ...]
    shown: int
    clicked: int


@dataclass(frozen=True, slots=True)
class RunningTrial:
    number: int
    question: str
    day: int
    days: int


@dataclass(frozen=True, slots=True)
class FloorView:
    draft: DraftState
    device: Device
    language: str
    days: int
    rows: tuple[FloorRow, ...]
    running: tuple[RunningTrial, ...]
    refused: dict[str, int]


IN_BASKET = "in_basket"


def view_floor(
    shop: Shop, since: date, days: int, now: datetime, device: Device | None = None, language: str | None = None
) -> FloorView:
    """Return the plan as it is seen on a device and in a language: placements down, situations across.

    Raises:
        OutOfRange: The buttons do not speak the language.
    """
    draft = shop.drafts.read()
    snapshot = shop.at(draft.settings)
    seen_on, spoken = device or Device.DESKTOP, language_of(snapshot.settings, language)
    plan = _Plan(shop, snapshot, seen_on, spoken, shop.signals.tallies(since))
    running = [t for t in shop.trials.all() if t.state is TrialState.RUNNING]
    marks = tuple(
        RunningTrial(t.number, t.question, (now - t.started_at).days + 1, t.plan.days)
        for t in running
        if t.started_at and t.plan
    )
    return FloorView(
        draft_state(shop, draft),
        seen_on,
        spoken,
        days,
        tuple(plan.row(placement) for placement in shop.store.places),
        marks,
        shop.signals.refusals(since),
    )


class _Plan:
    def __init__(
        self,
        shop: Shop,
        snapshot: Snapshot,
        device: Device,
        language: str,
        tallies: Mapping[tuple[str, str], Mapping[str, int]],
    ) -> None:
        self.shop = shop
        self.snapshot = snapshot
        self.settings = snapshot.settings
        self.device, self.language = device, language
        self.tallies = tallies
        self._able: dict[Placement, dict[Situation, list[tuple[ProductGroup, tuple[Batch, ...]]]]] = {}
        self.products = len(snapshot.products)
        self.lists = len(snapshot.goods.by_category) + 1 if snapshot.products else 0
        self.trials = [t for t in shop.trials.all() if t.state is TrialState.RUNNING]

    def able(self, placement: Placement) -> dict[Situation, list[tuple[ProductGroup, tuple[Batch, ...]]]]:
        """Return the groups that have products in a situation, with those, as far as a placement shows them."""
        if placement not in self._able:
            groups = [group for group in self.snapshot.cover.groups_at(placement) if group.batches]
            self._able[placement] = {
                situation: [(group, batches) for group in groups if (batches := group.of(situation))]
                for situation in Situation
            }
        return self._able[placement]

    def _count(self, placement: Placement) -> tuple[int, Literal["page", "list", "product"]]:
        if placement is Placement.LISTING_CARD:
            return self.lists, "list"
        held = self.snapshot.cover.held.get(placement)
        if held is None and placement is Placement.OUTSIDE:
            return self.products, "product"
        if held is None:
            return self.products, "page"
        # Its pages are not those of its products.
        return sum(len(batch) for group in held for batch in group.batches), "product"

    def row(self, placement: Placement) -> FloorRow:
        cells = [self._cell(placement, situation, situation.value, LEADING[situation]) for situation in Situation]
        # What is in the basket was bought from any of the other columns; the plain button stands for it.
        cells.append(self._cell(placement, self._fullest(placement), IN_BASKET, Moment.IN_BASKET))
        totals = [counts for (place, _), counts in self.tallies.items() if place == placement]
        return FloorRow(
            placement,
            *self._count(placement),
            self.shop.store.surfaces[placement].width_px(self.device),
            tuple(cells),
            sum(counts.get("shown", 0) for counts in totals),
            sum(counts.get("clicked", 0) for counts in totals),
        )

    def _fullest(self, placement: Placement) -> Situation:
        counts = {
            situation: sum(len(batch) for _, batches in able for batch in batches)
            for situation, able in self.able(placement).items()
            if situation is not Situation.SOLD_OUT
        }
        return Situation.PLAIN if counts.get(Situation.PLAIN) else max(counts, key=lambda s: counts[s])

    def _cell(self, placement: Placement, situation: Situation, column: str, moment: Moment) -> Cell:
        counts = self.tallies.get((placement, column), {})
        shown, clicked = counts.get("shown", 0), counts.get("clicked", 0)
        able = self.able(placement)[situation]
        if not able:
            return Cell(column, None, False, None, 0, (), (), shown, clicked)
        served = [(self._class(placement, group, situation), batches) for group, batches in able]
        # The least narrowed stands for the rest; of these the one with the most products.
        button, members = min(served, key=lambda pair: (len(pair[0].rules), -sum(map(len, pair[1]))))
        example = members[0].first
        return Cell(
            column,
            show(self.shop, button, moment, example, self.language),
            button.document.placement.shown and not (column == IN_BASKET and opens_message(button.document)),
            example,
            sum(len(batch) for _, batches in able for batch in batches),
            self._marks(served),
            tuple(t.number for t in self.trials if self._touches(t, placement, situation, served)),
            shown,
            clicked,
        )

    def _class(self, placement: Placement, group: ProductGroup, situation: Situation) -> ButtonClass:
        """Return the class of a group's products here; only what the plan shows is resolved, however large the shop."""
        where = self.snapshot.index.of_place(placement, situation, self.device, self.language, ShopperKind.NEW)
        return bare_class(self.snapshot, placement, group.bits[0] & where)

    def spots(self, placement: Placement, situation: Situation) -> list[Spot]:
        """Return the classes that a cell's products are in."""
        where = self.snapshot.index.of_place(placement, situation, self.device, self.language, ShopperKind.NEW)
        frames = self.snapshot.cover.by_bits[placement]
        return [
            Spot(placement, frames[bits].key)
            for bits in {button.bits[0] & where for button, _ in self.able(placement)[situation]}
        ]

    def _marks(self, served: Sequence[tuple[ButtonClass, Sequence[Batch]]]) -> tuple[ExceptionMark, ...]:
        counts: dict[str, int] = {}
        for button, batches in served:
            for rule in button.rules:
                counts[rule] = counts.get(rule, 0) + sum(map(len, batches))
        return tuple(
            ExceptionMark(rule.id, rule.name, counts[rule.id], self._sets(rule.id))
            for rule in self.settings.exceptions
            if rule.id in counts
        )

    def _sets(self, rule: str) -> tuple[str, ...]:
        names = (field_title(path).partition(":")[0] for path in fields_of(self.snapshot, rule))
        return tuple(dict.fromkeys(names))

    @staticmethod
    def _touches(
        trial: Trial,
        placement: Placement,
        situation: Situation,
        served: Sequence[tuple[ButtonClass, Sequence[Batch]]],
    ) -> bool:
        at_place = trial.reach.intersection(Reach(placements=(placement,), situations=(situation,)))
        return at_place is not None and any(
            at_place.covers_product(product.sku, product.category)
            for _, batches in served
            for batch in batches
            for product in batch.products
        )


@dataclass(frozen=True, slots=True)
class CellWeight:
    """How many findings of each weight are about the buttons of a cell."""

    placement: Placement
    column: str
    must_fix: int
    look_again: int


@dataclass(frozen=True, slots=True)
class RowWeight:
    """How many findings of each weight are about every button of a row; its cells do not count them again."""

    placement: Placement
    must_fix: int
    look_again: int


@dataclass(frozen=True, slots=True)
class FindingsView:
    """The worst findings, how many there are of each weight, and what they are about."""

    findings: tuple[Finding, ...]
    must_fix: int
    look_again: int
    notes: int
    rows: tuple[RowWeight, ...]
    cells: tuple[CellWeight, ...]


_NAMED_BUTTONS = 12


def view_findings(
    shop: Shop, device: Device | None = None, language: str | None = None, most: int = 60
) -> FindingsView:
    """Return what the checks find in the whole shop, worst first, and in which rows and cells of the plan.

    Apart from the plan, since on a large shop checking every kind of button takes longer than drawing a few.
    """
    draft = shop.drafts.read()
    snapshot = shop.at(draft.settings)
    findings = seen_in(snapshot, shop.compiled.tell_progress)
    shop.compiled.progress = None
    plan = _Plan(shop, snapshot, device or Device.DESKTOP, language_of(snapshot.settings, language), {})
    by_spot: dict[Spot, list[int]] = {}
    for n, finding in enumerate(findings):
        for spot in finding.buttons:
            by_spot.setdefault(spot, []).append(n)
    rows: list[RowWeight] = []
    cells: list[CellWeight] = []
    for placement in shop.store.places:
        about = {
            situation: {n for spot in plan.spots(placement, situation) for n in by_spot.get(spot, ())}
            for situation in Situation
        }
        met = [about[situation] for situation in Situation if plan.spots(placement, situation)]
        # Of a row with one cell nothing is everywhere: it is said where it is.
        everywhere = set.intersection(*met) if len(met) > 1 else set()
        rows.append(RowWeight(placement, *_weights(findings, everywhere)))
        cells += [
            CellWeight(placement, situation.value, *_weights(findings, about[situation] - everywhere))
            for situation in Situation
        ]
    named = tuple(replace(finding.told(), buttons=finding.buttons[:_NAMED_BUTTONS]) for finding in findings[:most])
    weights = [finding.weight for finding in findings]
    must_fix, look_again = weights.count(Weight.MUST_FIX), weights.count(Weight.LOOK_AGAIN)
    return FindingsView(named, must_fix, look_again, weights.count(Weight.NOTE), rows=tuple(rows), cells=tuple(cells))


def _weights(findings: Sequence[Found], those: Collection[int]) -> tuple[int, int]:
    weights = [findings[n].weight for n in those]
    return weights.count(Weight.MUST_FIX), weights.count(Weight.LOOK_AGAIN)
