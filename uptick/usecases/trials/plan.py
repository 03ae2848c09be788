"""What a trial would take: shoppers and days, from the pace at which the shop's own come."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from uptick.core.errors import OutOfRange, TooFewData
from uptick.core.trial.plan import CurvePoint, Plan, plan_curve, plan_trial
from uptick.core.trial.record import Trial
from uptick.usecases.ports import Pace, Shop


@dataclass(frozen=True, slots=True)
class PlanView:
    """What the shop's pace makes of the wish: the plan, the curve of differences against days, or why not."""

    pace: float
    rate: float
    followed: int
    plan: Plan | None
    why_not: str
    curve: tuple[CurvePoint, ...]


def covered_codes(shop: Shop, trial: Trial) -> Sequence[str] | None:
    """Return the products that a trial covers by code; None where it covers all."""
    if not trial.reach.narrows_products:
        return None
    return [p.sku for p in shop.catalogue.all() if trial.reach.covers_product(p.sku, p.category)]


def pace_of(shop: Shop, trial: Trial, now: datetime) -> Pace:
    """Return how many shoppers a trial would have met in its window, and what they did."""
    return shop.signals.pace(trial.reach, covered_codes(shop, trial), trial.window_days, now)


def view_plan(shop: Shop, trial: Trial, now: datetime) -> PlanView:
    """Return how many shoppers and days the trial would take at the shop's present pace."""
    if trial.plan:
        return PlanView(trial.plan.entering_per_day, trial.plan.rate, 0, trial.plan, "", ())
    pace = pace_of(shop, trial, now)
    rate = pace.rate(trial.decides)
    try:
        plan = plan_trial(rate, rate * trial.relative_difference, pace.entering_per_day, trial.window_days)
    except (TooFewData, OutOfRange) as error:
        return PlanView(pace.entering_per_day, rate, pace.followed, None, error.says, ())
    curve = plan_curve(rate, pace.entering_per_day, trial.window_days)
    return PlanView(pace.entering_per_day, rate, pace.followed, plan, "", curve)
