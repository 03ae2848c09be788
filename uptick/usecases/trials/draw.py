"""A question, and a version B that is to answer it."""

from dataclasses import replace
from datetime import datetime

from uptick.core.button.document import Placement, require_layer
from uptick.core.button.merge import Json, merge_layer, without_gaps
from uptick.core.errors import BadReach, OutOfRange, WrongTrialState
from uptick.core.rules.reach import Reach
from uptick.core.trial.keeping import with_winner
from uptick.core.trial.readout import Measure
from uptick.core.trial.record import Trial, TrialState
from uptick.usecases.edit import require_reach, require_sound, require_whole_tags
from uptick.usecases.ports import Shop
from uptick.usecases.publish import require_seen, serve_trials
from uptick.usecases.trials.base import seen_trial, tried_on

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
    require_sound(shop, with_winner(tried_on(shop), trial, _TRIED, "", now))
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
    trial = seen_trial(shop, number, version)
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
    require_sound(shop, with_winner(tried_on(shop), trial, _TRIED, "", now))
    shop.trials.save(trial)
    serve_trials(shop, now)
    return trial
