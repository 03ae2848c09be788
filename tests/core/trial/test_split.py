from collections.abc import Sequence

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.stats import chi2, norm

from uptick.core.errors import OutOfRange
from uptick.core.trial.split import ALARM, check_split


def test_two_counts_have_the_p_value_of_the_normal_test() -> None:
    """Reference: with one degree of freedom chi-square is z² (any textbook; from memory): 5000 against 5300."""
    z = (5300 - 5150) / (10300 * 0.25) ** 0.5
    found = check_split([5000, 5300])
    assert found.statistic == pytest.approx(z * z)
    assert found.p_value == pytest.approx(2 * norm.sf(z))
    assert found.holds


def test_a_die_of_a_published_example_is_judged_as_published() -> None:
    """Reference: NIST/SEMATECH e-Handbook 1.3.5.15 gives the form; the upper tail of chi-square with 5 degrees."""
    rolls = [5, 8, 9, 8, 10, 20]
    found = check_split(rolls)
    assert found.statistic == pytest.approx(13.4)
    assert found.p_value == pytest.approx(chi2.sf(13.4, 5))


def test_a_missing_percent_of_a_large_trial_rings_the_alarm() -> None:
    assert check_split([50_000, 48_500]).p_value < ALARM
    assert not check_split([50_000, 48_500]).holds


@given(st.lists(st.integers(1, 5000), min_size=2, max_size=4))
def test_shares_need_not_add_up_to_anything(counts: list[int]) -> None:
    shares = [float(n + 1) for n in range(len(counts))]
    once, doubled = check_split(counts, shares), check_split(counts, [2 * s for s in shares])
    assert once.p_value == pytest.approx(doubled.p_value)
    assert sum(once.expected) == pytest.approx(sum(counts))


@pytest.mark.parametrize(
    ("counts", "shares"), [([5], None), ([0, 0], None), ([-1, 5], None), ([5, 5], [1.0]), ([5, 5], [1.0, 0.0])]
)
def test_counts_or_shares_that_make_no_split_are_refused(counts: list[int], shares: Sequence[float] | None) -> None:
    with pytest.raises(OutOfRange):
        check_split(counts, shares)
