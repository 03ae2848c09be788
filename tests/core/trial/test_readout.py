from dataclasses import asdict, fields, replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from uptick.core.trial.plan import Plan
from uptick.core.trial.proportion import newcombe_difference, wilson_interval
from uptick.core.trial.readout import Measure, Outcome, Tally, read_trial

PLAN = Plan(rate=0.2, difference=0.04, per_version=1000, total=2000, days=14, entering_per_day=150)


def tally(letter: str, timed_up: int = 1000, added: int = 200, ordered: int = 60, entered: int = 0) -> Tally:
    return Tally(letter, entered or timed_up, timed_up, min(timed_up, added + 50), added, min(timed_up, ordered))


def verdict(a: Tally, b: Tally, decides: Measure = Measure.ADDED) -> tuple[Outcome, str]:
    found = read_trial(a, b, PLAN, decides).verdict
    return found.outcome, found.sentence


counts = st.integers(0, 5000).flatmap(lambda n: st.tuples(st.just(n), st.integers(0, n)))


@given(counts, counts)
def test_before_the_planned_number_no_rate_leaves(a: tuple[int, int], b: tuple[int, int]) -> None:
    one, other = tally("A", a[0], min(a[1], a[0])), tally("B", b[0], min(b[1], b[0]))
    found = read_trial(one, other, PLAN, Measure.ADDED)
    reached = a[0] + b[0] >= PLAN.total and a[0] > 0 and b[0] > 0
    assert (found.reading is not None) == reached
    if not reached:
        assert found.verdict.outcome in {Outcome.NOT_YET, Outcome.DO_NOT_READ}
        assert "%" not in found.verdict.sentence
        assert "points" not in found.verdict.sentence


def test_not_yet_says_how_many_shoppers_and_how_long() -> None:
    outcome, sentence = verdict(tally("A", 500), tally("B", 480))
    assert outcome is Outcome.NOT_YET
    assert sentence == "Not yet. 1,020 more shoppers are needed: about 7 more days at the present pace."
    assert "about 1 more day at" in verdict(tally("A", 950), tally("B", 950))[1]


def test_a_difference_above_zero_keeps_b_with_its_interval() -> None:
    outcome, sentence = verdict(tally("A", added=200), tally("B", added=260))
    gap = newcombe_difference(260, 1000, 200, 1000)
    assert outcome is Outcome.KEEP_B
    assert sentence == (
        f"Keep B. With it 6.0 points more shoppers add to the basket: between {gap.low * 100:.1f} and "
        f"{gap.high * 100:.1f} points. It may be less than the 4.0 points that were worth having."
    )


@pytest.mark.parametrize(
    ("worth", "says"),
    [
        (0.01, "That is at least the 1.0 points that were worth having."),
        (0.2, "That is less than the 20.0 points that were worth having."),
        (0.06, "It may be less than the 6.0 points that were worth having."),
    ],
)
def test_a_difference_is_compared_with_the_one_that_was_worth_having(worth: float, says: str) -> None:
    plan = replace(PLAN, difference=worth)
    better = read_trial(tally("A", added=200), tally("B", added=260), plan, Measure.ADDED).verdict
    worse = read_trial(tally("A", added=260), tally("B", added=200), plan, Measure.ADDED).verdict
    assert better.outcome is Outcome.KEEP_B
    assert better.sentence.endswith(says)
    assert worse.outcome is Outcome.BACK_TO_A
    assert worse.sentence.endswith(says)


def test_a_difference_below_zero_goes_back_to_a() -> None:
    outcome, sentence = verdict(tally("A", added=260), tally("B", added=200))
    assert outcome is Outcome.BACK_TO_A
    assert sentence.startswith("Go back to A. With B 6.0 points fewer shoppers add to the basket")


def test_the_measure_that_decides_is_the_one_that_was_chosen() -> None:
    a, b = tally("A", added=200, ordered=60), tally("B", added=260, ordered=61)
    assert verdict(a, b, Measure.ADDED)[0] is Outcome.KEEP_B
    assert verdict(a, b, Measure.ORDERED)[0] is not Outcome.KEEP_B


def test_within_what_is_worth_having_there_is_no_difference() -> None:
    big = Plan(0.2, 0.04, 10_000, 20_000, 14, 150)
    found = read_trial(tally("A", 10_000, 2000, 600), tally("B", 10_000, 2010, 600), big, Measure.ADDED)
    assert found.verdict.outcome is Outcome.NO_DIFFERENCE
    assert "within ±4.0" in found.verdict.sentence


def test_a_plan_that_ran_out_undecided_says_so() -> None:
    outcome, sentence = verdict(tally("A", added=200), tally("B", added=220))
    assert outcome is Outcome.CANNOT_TELL
    assert "−" in sentence
    assert "four times the shoppers" in sentence


def test_a_broken_split_voids_everything_else() -> None:
    outcome, sentence = verdict(tally("A", added=200, entered=3000), tally("B", added=300, entered=2500))
    assert outcome is Outcome.DO_NOT_READ
    assert "3,000 and 2,500" in sentence


def test_a_reading_holds_wilson_rates_and_newcombe_differences_of_every_measure() -> None:
    a, b = tally("A", added=200), tally("B", added=260)
    reading = read_trial(a, b, PLAN, Measure.ADDED).reading
    assert reading is not None
    assert set(reading.differences) == {"clicked", "added", "ordered"}
    assert reading.rates["added"]["B"] == wilson_interval(260, 1000)
    assert reading.differences["ordered"] == newcombe_difference(60, 1000, 60, 1000)


def test_one_empty_version_is_never_read() -> None:
    found = read_trial(tally("A", 2000), Tally("B", 0, 0, 0, 0, 0), PLAN, Measure.ADDED)
    assert found.reading is None


@pytest.mark.parametrize("letter", "AB")
def test_a_tally_counts_what_a_measure_asks_for(letter: str) -> None:
    tallied = tally(letter, added=7, ordered=3)
    assert (tallied.hits(Measure.ADDED), tallied.hits(Measure.ORDERED)) == (7, 3)
    assert {f.name for f in fields(tallied)} == set(asdict(tallied))
