"""Comparing versions of a button."""

from collections.abc import Sequence
from dataclasses import asdict, dataclass, replace
from datetime import datetime, timedelta
from itertools import islice
from zoneinfo import ZoneInfo

from uptick.core.button.document import Placement, Situation, require_layer
from uptick.core.button.merge import Json, merge_layer, without_gaps
from uptick.core.engine.snapshot import Snapshot
from uptick.core.errors import BadReach, OutOfRange, TooFewData, WrongTrialState
from uptick.core.resolved.classes import MOMENTS_OF, class_for, context_of, under_version
from uptick.core.resolved.differences import FieldChange, field_changes
from uptick.core.rules.reach import Reach
from uptick.core.rules.settings import Settings
from uptick.core.shop.catalogue import Product
from uptick.core.trial.keeping import Elsewhere, shown_elsewhere, with_winner
from uptick.core.trial.plan import CurvePoint, Plan, plan_curve, plan_trial
from uptick.core.trial.readout import Measure, Outcome, Readout, read_trial
from uptick.core.trial.record import Trial, TrialState
from uptick.usecases.edit import next_rule_id, require_reach, require_sound, require_whole_tags
from uptick.usecases.ports import Draft, Pace, Person, Shop
from uptick.usecases.publish import require_seen, serve_trials
from uptick.usecases.state import Shown, State, show, telling_language, telling_moment


@dataclass(frozen=True, slots=True)
class PlanView:
    """What the shop's pace makes of the wish: the plan, the curve of differences against days, or why not."""

    pace: float
    rate: float
    followed: int
    plan: Plan | None
    why_not: str
    curve: tuple[CurvePoint, ...]


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


# Under this id a version is laid over the settings while somebody draws it; no exception has it.
_TRIED = "e0"


def draw_trial(
    shop: Shop,
    question: str,
    reach: Reach,
    layer: Json,
    decides: Measure,
    relative_difference: float,
    window_days: int,
    salt: str,
    now: datetime,
    *,
    release: int | None = None,
) -> Trial:
    """Draw a comparison of today's button (A) with a named change on it (B).

    Args:
        release: The number of the release that was seen, whose buttons are A; 0 where there was none.

    Raises:
        BadReach: No placement, or something unknown.
        OutOfRange: The question is empty, the difference is not in (0, 2] or the days not in 1 to 14.
        Stale: Another release came meanwhile.
        BadDocument: B would make no button.
    """
    shop.hold()
    newest = shop.releases.newest()
    require_seen(release, newest.n if newest else 0, "The release")
    if not question.strip():
        raise OutOfRange.of("question", "a sentence that the trial answers", "empty")
    if not reach.placements:
        raise BadReach("A trial needs the placement whose button it compares.", field="placements")
    if Placement.OUTSIDE in reach.placements:
        raise BadReach(
            "Outside the shop nobody is dealt a version. Leave outside buttons out of the trial.", field="placements"
        )
    require_reach(shop, reach)
    _require_wish(relative_difference, window_days)
    require_whole_tags(layer)
    require_layer(without_gaps(layer))
    trial = Trial(
        0, question.strip(), reach, without_gaps(layer), decides, relative_difference, window_days, TrialState.DRAWN,
        salt, None, None, None, None, None,
    )  # fmt: skip
    require_sound(shop, with_winner(_base(shop), trial, _TRIED, "", now))
    trial = shop.trials.add(trial)
    serve_trials(shop, now)
    return trial


def _require_wish(relative_difference: float, window_days: int) -> None:
    if not 0 < relative_difference <= 2:
        raise OutOfRange.of("smallest difference", "above 0 and at most 200 %", f"{relative_difference:.0%}")
    if not 1 <= window_days <= 14:
        raise OutOfRange.of("days followed", "from 1 to 14", window_days)


def change_trial(
    shop: Shop,
    number: int,
    now: datetime,
    *,
    version: int | None = None,
    question: str | None = None,
    patch: Json | None = None,
    decides: Measure | None = None,
    relative_difference: float | None = None,
) -> Trial:
    """Change a trial that has not started: its question, version B, the measure or the difference.

    Raises:
        Stale: Somebody changed the trial meanwhile.
        TrialState: It has started.
    """
    shop.hold()
    trial = _seen(shop, number, version)
    if trial.state is not TrialState.DRAWN:
        raise WrongTrialState(f"Trial {number} has started; what it compares is frozen.", trial=number)
    layer = trial.layer
    if patch is not None:
        require_whole_tags(patch)
        layer = without_gaps(merge_layer(layer, patch))
        require_layer(layer)
    trial = replace(
        trial,
        question=(question or trial.question).strip() or trial.question,
        layer=layer,
        decides=decides or trial.decides,
        relative_difference=trial.relative_difference if relative_difference is None else relative_difference,
    )
    _require_wish(trial.relative_difference, trial.window_days)
    require_sound(shop, with_winner(_base(shop), trial, _TRIED, "", now))
    shop.trials.save(trial)
    serve_trials(shop, now)
    return trial


def _seen(shop: Shop, number: int, version: int | None) -> Trial:
    trial = shop.trials.get(number)
    require_seen(version, trial.version, f"Trial {number}")
    return trial


def _base(shop: Shop) -> Settings:
    newest = shop.releases.newest()
    return (newest.settings if newest else shop.drafts.read().settings).on_day(shop.today)


def _elsewhere(shop: Shop, trial: Trial) -> tuple[Elsewhere, ...]:
    today = shop.drafts.read().settings.on_day(shop.today)
    return shown_elsewhere(today, trial, shop.catalogue.all())


def _shown_while(shop: Shop, trial: Trial) -> Settings:
    """Return what shoppers got when a trial began, and before that what they get now."""
    began = trial.started_at and shop.releases.at(trial.started_at)
    if not trial.started_at or not began:
        return _base(shop)
    return began.settings.on_day(trial.started_at.astimezone(ZoneInfo(shop.store.timezone)).date())


def _covered(shop: Shop, trial: Trial) -> Sequence[str] | None:
    if not trial.reach.narrows_products:
        return None
    return [p.sku for p in shop.catalogue.all() if trial.reach.covers_product(p.sku, p.category)]


def _pace(shop: Shop, trial: Trial, now: datetime) -> Pace:
    return shop.signals.pace(trial.reach, _covered(shop, trial), trial.window_days, now)


def view_trial(shop: Shop, number: int, now: datetime) -> TrialView:
    """Return a trial with both versions rendered, its plan and, once started, its readout."""
    trial = shop.trials.get(number)
    seen = _telling_sight(shop, shop.at(_shown_while(shop, trial)), trial)
    readout, counted = _readout(shop, trial, now)
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
        for product in islice((p for p in products if trial.reach.covers_product(p.sku, p.category)), 5000)
        if not trial.reach.situations or product.situation in trial.reach.situations
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
    before, after = (show(shop, one, moment, product, language, device=devices[0]) for one in (a, b))
    comes = moment in MOMENTS_OF[product.situation]
    return _Sight(place, product, before, after, state, fields, bool(fields) and comes and before != after)


def view_plan(shop: Shop, trial: Trial, now: datetime) -> PlanView:
    """Return how many shoppers and days the trial would take at the shop's present pace."""
    if trial.plan:
        return PlanView(trial.plan.entering_per_day, trial.plan.rate, 0, trial.plan, "", ())
    pace = _pace(shop, trial, now)
    rate = pace.rate(trial.decides)
    try:
        plan = plan_trial(rate, rate * trial.relative_difference, pace.entering_per_day, trial.window_days)
    except (TooFewData, OutOfRange) as error:
        return PlanView(pace.entering_per_day, rate, pace.followed, None, error.says, ())
    curve = plan_curve(rate, pace.entering_per_day, trial.window_days)
    return PlanView(pace.entering_per_day, rate, pace.followed, plan, "", curve)


MOST_DAYS_AGO = 120


def start_trial(shop: Shop, number: int, now: datetime, *, version: int | None = None, days_ago: int = 0) -> Trial:
    """Freeze the plan and deal shoppers to the versions from now on.

    Args:
        version: The trial's version that was seen.
        days_ago: On a practice store's own clock a trial can have started earlier; its shoppers come afterwards.

    Raises:
        Stale: Somebody changed the trial meanwhile.
        OutOfRange: Days ago on a store that is not for practice, or too many of them.
        TrialState: It is not waiting to start, B equals A, nothing is released, or another trial runs on its buttons.
        TooFewData: The plan cannot be made.
    """
    most = MOST_DAYS_AGO if shop.store.is_practice else 0
    if not 0 <= days_ago <= most:
        raise OutOfRange.of(
            "days ago", f"from 0 to {most}" if most else "0: only practice stores have a past", days_ago
        )
    shop.hold()
    trial = _seen(shop, number, version)
    if trial.state is not TrialState.DRAWN:
        raise WrongTrialState(f"Trial {number} has started before.", trial=number)
    if shop.releases.newest() is None:
        raise WrongTrialState("Release the draft first: shoppers see no button of ours yet.", trial=number)
    view = view_trial(shop, number, now)
    if not view.fields:
        raise WrongTrialState("B is the same as A. Change something on it first.", trial=number)
    for other in shop.trials.all():
        if other.state is TrialState.RUNNING and _overlap(shop, trial, other):
            raise WrongTrialState(
                f"Trial {other.number} compares the same buttons and still runs. Two at once would spoil both.",
                trial=other.number,
            )
    started_at = now - timedelta(days=days_ago)
    pace = _pace(shop, trial, started_at)
    rate = pace.rate(trial.decides)
    plan = plan_trial(rate, rate * trial.relative_difference, pace.entering_per_day, trial.window_days)
    trial = replace(trial, state=TrialState.RUNNING, plan=plan, started_at=started_at)
    shop.trials.save(trial)
    covered = _covered(shop, trial)
    if covered is not None:
        shop.trials.freeze(number, covered)
    serve_trials(shop, now)
    return trial


def _overlap(shop: Shop, one: Trial, other: Trial) -> bool:
    if not one.reach.meets_where(other.reach):
        return False
    return any(
        one.reach.covers_product(p.sku, p.category) and other.reach.covers_product(p.sku, p.category)
        for p in shop.catalogue.all()
    )


def _readout(shop: Shop, trial: Trial, now: datetime) -> tuple[Readout | None, dict[str, dict[str, int]]]:
    if trial.plan is None or trial.state is TrialState.DRAWN:
        return None, {}
    # What comes in once it is closed is no part of what was decided on.
    count = shop.signals.count(trial, min(now, trial.closed_at or now))
    readout = read_trial(count.a, count.b, trial.plan, trial.decides, inside=count.inside)
    counted: dict[str, dict[str, int]] = {
        t.letter: {"entered": t.entered, "timed_up": t.timed_up} for t in (count.a, count.b)
    }
    if readout.reading:
        for t in (count.a, count.b):
            counted[t.letter] |= {"clicked": t.clicked, "added": t.added, "ordered": t.ordered}
    return readout, counted


def read_numbers(shop: Shop, number: int, now: datetime) -> tuple[Readout, dict[str, dict[str, int]]]:
    """Return the readout of a trial that has started.

    Raises:
        TrialState: It has not started.
    """
    trial = shop.trials.get(number)
    readout, counted = _readout(shop, trial, now)
    if readout is None:
        raise WrongTrialState(f"Trial {number} has not started, so there is nothing to read.", trial=number)
    return readout, counted


def keep_b(shop: Shop, number: int, person: Person, now: datetime, *, version: int | None = None) -> Draft:
    """Put B's change into the draft at the trial's own reach, and close the trial with its record.

    Raises:
        TrialState: It does not run, or its numbers may not be read (yet).
        Stale: Somebody changed the trial meanwhile.
    """
    shop.hold()
    trial = _seen(shop, number, version)
    readout, _ = read_numbers(shop, number, now)
    _require_running(trial)
    if readout.reading is None or readout.verdict.outcome is Outcome.DO_NOT_READ:
        raise WrongTrialState(f"Trial {number} cannot be read: {readout.verdict.sentence}", trial=number)
    draft = shop.drafts.read()
    settings = with_winner(draft.settings, trial, next_rule_id(draft), person.name, now)
    require_sound(shop, settings)
    kept = shop.drafts.append(draft.version, settings, f"Kept B of trial {number}", person, now)
    _close(shop, trial, readout, "B", now)
    return kept


def close_trial(shop: Shop, number: int, now: datetime, *, version: int | None = None) -> Trial:
    """End a trial and stay with A; its record is kept as it stands."""
    shop.hold()
    trial = _seen(shop, number, version)
    _require_running(trial)
    readout, _ = read_numbers(shop, number, now)
    return _close(shop, trial, readout, "A", now)


def _require_running(trial: Trial) -> None:
    if trial.state is not TrialState.RUNNING:
        raise WrongTrialState(f"Trial {trial.number} does not run.", trial=trial.number)


def _close(shop: Shop, trial: Trial, readout: Readout, kept: str, now: datetime) -> Trial:
    closed = replace(trial, state=TrialState.CLOSED, closed_at=now, kept=kept, record=asdict(readout))
    shop.trials.save(closed)
    serve_trials(shop, now)
    return closed
