import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.stats import norm
from statsmodels.stats.power import NormalIndPower

from uptick.core.errors import OutOfRange, TooFewData
from uptick.core.trial.plan import plan_curve, plan_trial, shoppers_per_version

rates = st.floats(0.02, 0.6)


def test_five_against_six_percent_needs_8158_shoppers_a_version() -> None:
    """Reference: Fleiss, Levin, Paik (2003), formula 4.14 without correction, worked for 0.05 and 0.06."""
    assert shoppers_per_version(0.05, 0.06) == 8158


def test_the_rule_of_thumb_is_near() -> None:
    """Reference: Lehr (1992), Statist. Med. 11:1099: 16·p(1−p)/δ², here 7,600."""
    assert pytest.approx(7600) == 16 * 0.05 * 0.95 / 0.01**2
    assert shoppers_per_version(0.05, 0.06) == pytest.approx(7600, rel=0.1)


@given(rates, st.floats(0.05, 0.35))
def test_the_number_is_near_what_a_general_library_gives(rate: float, relative: float) -> None:
    """Reference: statsmodels 0.15, NormalIndPower with the arcsine effect size of Cohen (1988), another formula."""
    other = rate * (1 + relative)
    effect = 2 * np.arcsin(np.sqrt(other)) - 2 * np.arcsin(np.sqrt(rate))
    reference = NormalIndPower().solve_power(effect_size=effect, alpha=0.05, power=0.8)
    assert shoppers_per_version(rate, other) == pytest.approx(reference, rel=0.03, abs=3)


@given(rates, st.floats(0.01, 0.3))
def test_smaller_differences_and_more_power_need_more_shoppers(rate: float, gap: float) -> None:
    needed = shoppers_per_version(rate, rate + gap)
    assert shoppers_per_version(rate, rate + gap / 2) > needed
    assert shoppers_per_version(rate, rate + gap, power=0.9) > needed
    assert shoppers_per_version(rate, rate + gap, alpha=0.01) > needed
    assert shoppers_per_version(rate + gap, rate) == needed


def test_the_planned_number_has_the_planned_power() -> None:
    """4,000 simulated trials, seed 8, two-sided pooled test: 80 % within 2.5 points (standard error 0.6)."""
    p, q = 0.2, 0.26
    n = shoppers_per_version(p, q)
    rng = np.random.default_rng(8)
    a, b = rng.binomial(n, p, 4000) / n, rng.binomial(n, q, 4000) / n
    mean = (a + b) / 2
    z = (b - a) / np.sqrt(2 * mean * (1 - mean) / n)
    assert np.mean(np.abs(z) > norm.ppf(0.975)) == pytest.approx(0.8, abs=0.025)


def test_days_are_whole_weeks_and_hold_the_time_of_the_last_shopper() -> None:
    plan = plan_trial(0.2, 0.04, 180.0, 3)
    # The harder of the two directions is planned.
    assert plan.per_version == max(shoppers_per_version(0.2, 0.24), shoppers_per_version(0.2, 0.16))
    assert plan.total == 2 * plan.per_version
    assert plan.days % 7 == 0
    assert plan.days - 7 < plan.total / 180 + 3 <= plan.days


def test_a_curve_falls_with_the_difference_and_leaves_out_what_cannot_be() -> None:
    days = [point.plan.days for point in plan_curve(0.3, 200, 3)]
    assert days == sorted(days, reverse=True)
    assert [point.relative for point in plan_curve(0.9, 200, 3)] == [0.05, 0.1]


BAD = [
    (0.0, 0.1, 100.0, OutOfRange, "too few shoppers"),
    (0.5, 0.0, 100.0, OutOfRange, "above 0"),
    (0.5, 0.6, 100.0, OutOfRange, "at most 0.500"),
    (0.5, 0.1, 0.0, TooFewData, "No shopper has seen this button"),
]


@pytest.mark.parametrize(("rate", "gap", "pace", "error", "says"), BAD)
def test_plans_that_cannot_be_made_say_why(
    rate: float, gap: float, pace: float, error: type[Exception], says: str
) -> None:
    with pytest.raises(error, match=says):
        plan_trial(rate, gap, pace, 3)


def test_equal_rates_and_shares_out_of_bounds_are_refused() -> None:
    with pytest.raises(OutOfRange, match="different from the rate"):
        shoppers_per_version(0.1, 0.1)
    with pytest.raises(OutOfRange, match="power must be between 0 and 1"):
        shoppers_per_version(0.1, 0.2, power=1)
