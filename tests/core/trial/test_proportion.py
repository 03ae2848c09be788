import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.stats import norm

from uptick.core.errors import OutOfRange
from uptick.core.trial.proportion import newcombe_difference, wilson_interval

# Reference: Newcombe (1998), Statist. Med. 17:873–890, table II, method 10.
NEWCOMBE = [
    (56, 70, 48, 80, 0.0524, 0.3339),
    (9, 10, 3, 10, 0.1705, 0.8090),
    (6, 7, 2, 7, 0.0582, 0.8062),
    (5, 56, 0, 29, -0.0381, 0.1926),
    (0, 10, 0, 20, -0.1611, 0.2775),
    (10, 10, 0, 20, 0.6791, 1.0000),
]
# Reference: Newcombe (1998), Statist. Med. 17:857–872, table I, method 3 (Wilson).
WILSON = [(81, 263, 0.2553, 0.3662), (15, 148, 0.0624, 0.1605), (0, 20, 0.0, 0.1611), (1, 29, 0.0061, 0.1718)]

counts = st.integers(1, 400).flatmap(lambda tries: st.tuples(st.integers(0, tries), st.just(tries)))


@pytest.mark.parametrize(("hits", "tries", "low", "high"), WILSON)
def test_single_rates_have_their_published_intervals(hits: int, tries: int, low: float, high: float) -> None:
    found = wilson_interval(hits, tries)
    assert (found.low, found.high) == (pytest.approx(low, abs=5e-5), pytest.approx(high, abs=5e-5))


@pytest.mark.parametrize(("hits", "tries", "other", "of", "low", "high"), NEWCOMBE)
def test_differences_have_their_published_intervals(
    hits: int, tries: int, other: int, of: int, low: float, high: float
) -> None:
    found = newcombe_difference(hits, tries, other, of)
    assert found.estimate == pytest.approx(hits / tries - other / of)
    assert (found.low, found.high) == (pytest.approx(low, abs=5e-5), pytest.approx(high, abs=5e-5))


@given(counts)
def test_wilson_bounds_are_the_roots_of_the_score_equation(count: tuple[int, int]) -> None:
    """Reference: Wilson (1927): |p̂ − p| = z·√(p(1−p)/n) at both bounds."""
    hits, tries = count
    found = wilson_interval(hits, tries)
    z = norm.ppf(0.975)
    for bound in (found.low, found.high):
        if 0 < bound < 1:
            assert abs(hits / tries - bound) == pytest.approx(z * np.sqrt(bound * (1 - bound) / tries), rel=1e-6)
    assert 0 <= found.low <= hits / tries <= found.high <= 1


@given(counts, counts)
def test_a_difference_is_bounded_holds_its_estimate_and_turns_with_its_sides(
    one: tuple[int, int], other: tuple[int, int]
) -> None:
    found, turned = newcombe_difference(*one, *other), newcombe_difference(*other, *one)
    assert -1 <= found.low <= found.estimate <= found.high <= 1
    assert (turned.low, turned.high) == (pytest.approx(-found.high), pytest.approx(-found.low))


@given(counts, st.floats(0.5, 0.99))
def test_a_higher_level_gives_a_wider_interval(count: tuple[int, int], level: float) -> None:
    narrow, wide = wilson_interval(*count, level=level), wilson_interval(*count, level=level + 0.005)
    assert wide.low <= narrow.low + 1e-12
    assert wide.high >= narrow.high - 1e-12


@pytest.mark.parametrize(
    ("hits", "tries", "level", "says"),
    [(5, 4, 0.95, "from 0 to 4"), (-1, 4, 0.95, "from 0"), (0, 0, 0.95, "from 1 to"), (1, 4, 1.0, "between 0 and 1")],
)
def test_counts_that_cannot_be_are_refused(hits: int, tries: int, level: float, says: str) -> None:
    with pytest.raises(OutOfRange, match=says):
        wilson_interval(hits, tries, level=level)
    with pytest.raises(OutOfRange, match=says):
        newcombe_difference(hits, tries, 1, 2, level=level)


def test_intervals_hold_the_truth_about_as_often_as_they_claim() -> None:
    """20,000 simulated pairs, seed 5: coverage of 95 % within 0.01 (its standard error is 0.0015)."""
    rng = np.random.default_rng(5)
    p, q, n, m = 0.12, 0.09, 180, 220
    draws = set(zip(rng.binomial(n, p, 20_000).tolist(), rng.binomial(m, q, 20_000).tolist(), strict=True))
    holds = {(a, b): _covers(a, n, b, m, p - q) for a, b in draws}
    rng = np.random.default_rng(5)
    pairs = zip(rng.binomial(n, p, 20_000).tolist(), rng.binomial(m, q, 20_000).tolist(), strict=True)
    assert np.mean([holds[pair] for pair in pairs]) == pytest.approx(0.95, abs=0.01)


def _covers(a: int, n: int, b: int, m: int, truth: float) -> bool:
    found = newcombe_difference(a, n, b, m)
    return found.low <= truth <= found.high
