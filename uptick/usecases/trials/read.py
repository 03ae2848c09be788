"""The numbers of a trial, read only as its plan allows."""

from datetime import datetime

from uptick.core.errors import WrongTrialState
from uptick.core.trial.readout import Readout, read_trial
from uptick.core.trial.record import Trial, TrialState
from uptick.usecases.ports import Shop


def read_now(shop: Shop, trial: Trial, now: datetime) -> tuple[Readout | None, dict[str, dict[str, int]]]:
    """Return what a trial says now with its counts by version; None before it has started."""
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
    readout, counted = read_now(shop, trial, now)
    if readout is None:
        raise WrongTrialState(f"Trial {number} has not started, so there is nothing to read.", trial=number)
    return readout, counted
