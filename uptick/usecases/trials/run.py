"""A trial from its start to its end: shoppers are dealt from a day on, and one of the versions stays."""

from dataclasses import asdict, replace
from datetime import datetime, timedelta

from uptick.core.errors import OutOfRange, WrongTrialState
from uptick.core.resolved.reach_words import say_reach, vocabulary_of
from uptick.core.trial.keeping import with_winner
from uptick.core.trial.plan import plan_trial
from uptick.core.trial.readout import Outcome, Readout
from uptick.core.trial.record import Trial, TrialState
from uptick.usecases.edit import next_rule_id, require_sound
from uptick.usecases.ports import Draft, Person, Shop
from uptick.usecases.publish import serve_trials
from uptick.usecases.trials import plan as planning
from uptick.usecases.trials.base import seen_trial
from uptick.usecases.trials.read import read_numbers
from uptick.usecases.trials.view import view_trial

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
    trial = seen_trial(shop, number, version)
    if trial.state is not TrialState.DRAWN:
        raise WrongTrialState(f"Trial {number} has started before.", trial=number)
    if shop.releases.newest() is None:
        raise WrongTrialState("Release the draft first: shoppers see no button of ours yet.", trial=number)
    view = view_trial(shop, number, now)
    if not view.fields:
        raise WrongTrialState("B is the same as A. Change something on it first.", trial=number)
    _require_apart(shop, trial)
    started_at = now - timedelta(days=days_ago)
    pace = planning.pace_of(shop, trial, started_at)
    rate = pace.rate(trial.decides)
    plan = plan_trial(rate, rate * trial.relative_difference, pace.entering_per_day, trial.window_days)
    trial = replace(trial, state=TrialState.RUNNING, plan=plan, started_at=started_at)
    shop.trials.save(trial)
    covered = planning.covered_codes(shop, trial)
    if covered is not None:
        shop.trials.freeze(number, covered)
    serve_trials(shop, now)
    return trial


def _require_apart(shop: Shop, trial: Trial) -> None:
    """Refuse a trial on buttons that another one compares, and say on which of them."""
    goods = shop.catalogue.all()
    for other in shop.trials.all():
        if other.state is not TrialState.RUNNING or not trial.reach.overlaps(other.reach, goods):
            continue
        both = trial.reach.intersection(other.reach)
        assert both is not None
        where = "the same buttons" if trial.reach.is_within(other.reach) else "some of the same buttons"
        words = say_reach(both, vocabulary_of(shop.now()))
        raise WrongTrialState(
            f"Trial {other.number} compares {where} and still runs ({words}). Two at once would spoil both: close that "
            "one, or narrow this one.",
            trial=other.number,
        )


def keep_b(shop: Shop, number: int, person: Person, now: datetime, *, version: int | None = None) -> Draft:
    """Put B's change into the draft at the trial's own reach, and close the trial with its record.

    Raises:
        TrialState: It does not run, or its numbers may not be read (yet).
        Stale: Somebody changed the trial meanwhile.
    """
    shop.hold()
    trial = seen_trial(shop, number, version)
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
    trial = seen_trial(shop, number, version)
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
