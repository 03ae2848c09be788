"""A trial as the station shows it: both versions drawn where they differ, its plan and its numbers."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from itertools import islice
from zoneinfo import ZoneInfo

from uptick.core.button.document import Placement, Situation
from uptick.core.engine.snapshot import Snapshot
from uptick.core.resolved.classes import MOMENTS_OF, class_for, context_of, under_version
from uptick.core.resolved.differences import FieldChange, field_changes
from uptick.core.rules.settings import Settings
from uptick.core.shop.catalogue import Product
from uptick.core.trial.keeping import Elsewhere, shown_elsewhere
from uptick.core.trial.readout import Readout
from uptick.core.trial.record import Trial, TrialState
from uptick.usecases.ports import Shop
from uptick.usecases.state import Shown, State, show, telling_language, telling_moment
from uptick.usecases.trials.base import tried_on
from uptick.usecases.trials.plan import PlanView, view_plan
from uptick.usecases.trials.read import read_now


@dataclass(frozen=True, slots=True)
class TrialView:
    """A trial on a product, in a moment and a state in which its versions differ; if none, `differs` is false.

    Once it has started both are shown as shoppers got them then. `elsewhere` are exceptions that would stand above B
    once it is kept.
    """

    trial: Trial
    placement: Placement
    product: str
    product_url: str
    a: Shown
    b: Shown
    state: State
    differs: bool
    fields: tuple[FieldChange, ...]
    planned: PlanView
    readout: Readout | None
    ends_at: datetime | None
    counted: dict[str, dict[str, int]]
    elsewhere: tuple[Elsewhere, ...]


def view_trial(shop: Shop, number: int, now: datetime) -> TrialView:
    """Return a trial with both versions rendered, its plan and, once started, its readout."""
    trial = shop.trials.get(number)
    seen = _telling_sight(shop, shop.at(_shown_while(shop, trial)), trial)
    readout, counted = read_now(shop, trial, now)
    ends_at = trial.started_at + timedelta(days=trial.plan.days) if trial.started_at and trial.plan else None
    return TrialView(
        trial=trial,
        placement=seen.place,
        product=seen.product.name,
        product_url=shop.store.origin + seen.product.url,
        a=seen.a,
        b=seen.b,
        state=seen.state,
        differs=seen.differs,
        fields=seen.fields,
        planned=view_plan(shop, trial, now),
        readout=readout,
        ends_at=ends_at,
        counted=counted,
        elsewhere=_elsewhere(shop, trial) if trial.state is TrialState.RUNNING else (),
    )


@dataclass(frozen=True, slots=True)
class _Sight:
    """Both versions of a trial on one product."""

    place: Placement
    product: Product
    a: Shown
    b: Shown
    state: State
    fields: tuple[FieldChange, ...]
    differs: bool


# Looked at until versions differ: products of one situation and class are alike.
_MOST_LOOKED_AT = 200


def _telling_sight(shop: Shop, snapshot: Snapshot, trial: Trial) -> _Sight:
    """Return the first sight on which the versions differ, or the plainest where they never do."""
    products = shop.catalogue.all()
    covered = [
        (place, product)
        for place in trial.reach.placements
        for product in islice(filter(trial.reach.covers_goods, products), 5000)
    ]
    first: dict[tuple[Placement, Situation], tuple[Placement, Product]] = {}
    for place, product in covered:
        first.setdefault((place, product.situation), (place, product))
    # The plainest first, whose words are those that B is drawn with.
    plainest_first = sorted(first.values(), key=lambda at: tuple(Situation).index(at[1].situation))
    looked_at = [*plainest_first, *covered[:_MOST_LOOKED_AT]] or [(trial.reach.placements[0], products[0])]
    plainest: _Sight | None = None
    for place, product in looked_at:
        seen = _sight(shop, snapshot, trial, place, product)
        if seen.differs:
            return seen
        plainest = plainest or seen
    assert plainest is not None
    return plainest


def _sight(shop: Shop, snapshot: Snapshot, trial: Trial, place: Placement, product: Product) -> _Sight:
    devices = trial.reach.devices or (None,)
    languages = trial.reach.languages or (shop.store.language,)
    shopper = trial.reach.shoppers[0] if trial.reach.shoppers else None
    context = context_of(place, product, device=devices[0], language=languages[0], shopper=shopper)
    a = class_for(snapshot, context)
    b = under_version(a, trial.version_b)
    fields = field_changes(a.document, b.document)
    moment, state = telling_moment(fields, product)
    language = telling_language([field.path for field in fields], languages[0])
    before, after = (show(shop, version, moment, product, language, device=devices[0]) for version in (a, b))
    comes = moment in MOMENTS_OF[product.situation]
    return _Sight(place, product, before, after, state, fields, bool(fields) and comes and before != after)


def _elsewhere(shop: Shop, trial: Trial) -> tuple[Elsewhere, ...]:
    today = shop.drafts.read().settings.on_day(shop.today)
    return shown_elsewhere(today, trial, shop.catalogue.all())


def _shown_while(shop: Shop, trial: Trial) -> Settings:
    """Return what shoppers got when a trial began, and before that what they get now."""
    began = trial.started_at and shop.releases.at(trial.started_at)
    if not trial.started_at or not began:
        return tried_on(shop)
    return began.settings.on_day(trial.started_at.astimezone(ZoneInfo(shop.store.timezone)).date())
