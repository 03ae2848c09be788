"""How many shoppers a trial needs, and how many days that takes."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil, sqrt

from uptick.core.errors import OutOfRange, TooFewData
from uptick.core.trial.proportion import normal_quantile


@dataclass(frozen=True, slots=True)
class Plan:
    """A trial's plan: frozen at the start. Rates are shares; days are whole weeks, in days."""

    rate: float
    difference: float
    per_version: int
    total: int
    days: int
    entering_per_day: float


@dataclass(frozen=True, slots=True)
class CurvePoint:
    """A smallest difference, as a share of A's rate, and what it would take to see it."""

    relative: float
    plan: Plan


def shoppers_per_version(rate: float, other: float, *, alpha: float = 0.05, power: float = 0.8) -> int:
    """Return how many shoppers each of two equal versions needs to tell two rates apart, looked at once, two-sided.

    Raises:
        OutOfRange: A rate, alpha or the power is outside (0, 1), or the rates are equal.

    Source:
        Fleiss, Levin, Paik (2003), Statistical Methods for Rates and Proportions, 3rd ed., formula 4.14 without the
        continuity correction.
    """
    for name, value in (("rate", rate), ("other rate", other), ("alpha", alpha), ("power", power)):
        if not 0 < value < 1:
            raise OutOfRange.of(name, "between 0 and 1", value)
    if rate == other:
        raise OutOfRange.of("other rate", "different from the rate", other)
    mean = (rate + other) / 2
    spread_equal = sqrt(2 * mean * (1 - mean))
    spread_apart = sqrt(rate * (1 - rate) + other * (1 - other))
    root = normal_quantile(alpha / 2) * spread_equal + normal_quantile(1 - power) * spread_apart
    return ceil((root / (rate - other)) ** 2)


def plan_trial(
    rate: float,
    difference: float,
    entering_per_day: float,
    window_days: int,
    *,
    alpha: float = 0.05,
    power: float = 0.8,
) -> Plan:
    """Return the plan for a smallest difference worth having, at a pace of first-time shoppers.

    Args:
        rate: What A converts now.
        difference: The smallest difference worth having, absolute, above 0.
        entering_per_day: Shoppers who would enter for the first time, a day.
        window_days: How long each is followed after entering.

    Raises:
        OutOfRange: The rates leave (0, 1).
        TooFewData: Nobody would enter.
    """
    if entering_per_day <= 0:
        raise TooFewData(
            "No shopper has seen this button lately, so the days cannot be told. Let signals come in first."
        )
    if not 0 < rate < 1:
        raise OutOfRange.of("rate", "between 0 and 1; too few shoppers have done this lately", rate)
    if difference <= 0:
        raise OutOfRange.of("difference", "above 0", difference)
    # The nearer to one half, the more shoppers: the harder of the two directions is what is planned.
    ways = [other for other in (rate + difference, rate - difference) if 0 < other < 1]
    if not ways:
        raise OutOfRange.of("difference", f"at most {max(rate, 1 - rate):.3f}", difference)
    each = max(shoppers_per_version(rate, other, alpha=alpha, power=power) for other in ways)
    days = ceil((2 * each / entering_per_day + window_days) / 7) * 7
    return Plan(rate, difference, each, 2 * each, days, entering_per_day)


def plan_curve(
    rate: float,
    entering_per_day: float,
    window_days: int,
    relatives: Sequence[float] = (0.05, 0.1, 0.15, 0.2, 0.3, 0.5),
) -> tuple[CurvePoint, ...]:
    """Return the plans for a row of differences, those that make a rate impossible left out."""
    return tuple(
        CurvePoint(relative, plan_trial(rate, rate * relative, entering_per_day, window_days))
        for relative in relatives
        if 0 < rate * (1 + relative) < 1
    )
