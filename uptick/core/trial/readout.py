"""The numbers of a trial and the one sentence that they add up to."""

from dataclasses import dataclass
from enum import StrEnum
from math import ceil

from uptick.core.trial.plan import Plan
from uptick.core.trial.proportion import Interval, newcombe_difference, wilson_interval
from uptick.core.trial.split import SplitCheck, check_split


class Measure(StrEnum):
    ADDED = "added"
    ORDERED = "ordered"


@dataclass(frozen=True, slots=True)
class Tally:
    """Shoppers of one version. `entered` counts all who came in; the rest only those whose time is up."""

    letter: str
    entered: int
    timed_up: int
    clicked: int
    added: int
    ordered: int

    def hits(self, measure: Measure) -> int:
        """Return how many shoppers did what is measured."""
        return self.added if measure is Measure.ADDED else self.ordered


class Outcome(StrEnum):
    """The verdicts, in the order in which they are tried."""

    DO_NOT_READ = "do_not_read"
    KEEP_B = "keep_b"
    BACK_TO_A = "back_to_a"
    NO_DIFFERENCE = "no_difference"
    NOT_YET = "not_yet"
    CANNOT_TELL = "cannot_tell"


@dataclass(frozen=True, slots=True)
class Verdict:
    outcome: Outcome
    sentence: str


@dataclass(frozen=True, slots=True)
class TrialProgress:
    """How far the plan has come: shoppers whose time is up of those planned, and the days still to go."""

    timed_up: int
    planned: int
    inside: int
    days_to_go: int | None


@dataclass(frozen=True, slots=True)
class TrialRates:
    """Rates and differences; only there once the planned number is reached."""

    rates: dict[str, dict[str, Interval]]
    differences: dict[str, Interval]


@dataclass(frozen=True, slots=True)
class Readout:
    verdict: Verdict
    progress: TrialProgress
    split: SplitCheck | None
    reading: TrialRates | None


_MEASURES = ("clicked", "added", "ordered")


def read_trial(
    a: Tally, b: Tally, plan: Plan, decides: Measure, *, shares: tuple[int, int] = (5000, 5000), inside: int = 0
) -> Readout:
    """Return the readout of a trial of two versions, looked at once, at its end.

    Before the planned number of shoppers is reached no rate leaves this function: whoever cannot see the numbers
    cannot be tempted by them. The split is checked at every call, since a broken one is a reason to stop at once.

    Args:
        a: The tally of today's button.
        b: The tally of the changed one.
        plan: What was frozen at the start.
        decides: The measure chosen before the start.
        shares: Parts per 10,000.
        inside: Shoppers who have entered and whose time is not yet up.
    """
    timed_up = a.timed_up + b.timed_up
    missing = max(0, plan.total - timed_up)
    to_go = ceil(missing / plan.entering_per_day) if plan.entering_per_day > 0 else None
    progress = TrialProgress(timed_up, plan.total, inside, to_go)
    split = check_split((a.entered, b.entered), shares) if a.entered + b.entered else None
    reached = missing == 0 and a.timed_up > 0 and b.timed_up > 0
    reading = _reading(a, b) if reached else None
    return Readout(_verdict(reading, progress, split, plan, decides), progress, split, reading)


def _reading(a: Tally, b: Tally) -> TrialRates:
    rates = {
        name: {tally.letter: wilson_interval(getattr(tally, name), tally.timed_up) for tally in (a, b)}
        for name in _MEASURES
    }
    differences = {
        name: newcombe_difference(getattr(b, name), b.timed_up, getattr(a, name), a.timed_up) for name in _MEASURES
    }
    return TrialRates(rates, differences)


def _points(share: float) -> str:
    return f"{abs(share) * 100:.1f}"


def _measured(low: float, high: float, worth: float) -> str:
    """Return how a difference that is there compares with the smallest one that was worth having."""
    wanted = f"the {_points(worth)} points that were worth having"
    if low >= worth:
        return f"That is at least {wanted}."
    return f"That is less than {wanted}." if high < worth else f"It may be less than {wanted}."


def _verdict(
    reading: TrialRates | None, progress: TrialProgress, split: SplitCheck | None, plan: Plan, decides: Measure
) -> Verdict:
    does = {Measure.ADDED: "add to the basket", Measure.ORDERED: "order"}[decides]
    if split and not split.holds:
        counts = " and ".join(f"{n:,}" for n in split.observed)
        chance = f"p {split.p_value:.2g}"
        return Verdict(
            Outcome.DO_NOT_READ,
            f"Do not read this: the split is broken. {counts} shoppers came to A and B; "
            f"fair dealing would hardly ever do that ({chance}).",
        )
    if reading is None:
        wait = f"about {progress.days_to_go} more days" if progress.days_to_go else "a few more hours"
        left = max(0, progress.planned - progress.timed_up)
        wait = "about 1 more day" if progress.days_to_go == 1 else wait
        return Verdict(Outcome.NOT_YET, f"Not yet. {left:,} more shoppers are needed: {wait} at the present pace.")
    gap = reading.differences[decides]
    worth = plan.difference
    between = f"between {_points(gap.low)} and {_points(gap.high)} points"
    if gap.low > 0:
        more = f"{_points(gap.estimate)} points more shoppers {does}"
        return Verdict(Outcome.KEEP_B, f"Keep B. With it {more}: {between}. {_measured(gap.low, gap.high, worth)}")
    if gap.high < 0:
        fewer = f"{_points(gap.estimate)} points fewer shoppers {does}"
        span = f"between {_points(gap.high)} and {_points(gap.low)} points"
        measured = _measured(-gap.high, -gap.low, worth)
        return Verdict(Outcome.BACK_TO_A, f"Go back to A. With B {fewer}: {span}. {measured}")
    signed = f"between {gap.low * 100:+.1f} and {gap.high * 100:+.1f} points".replace("-", "−")
    if -worth < gap.low and gap.high < worth:
        return Verdict(
            Outcome.NO_DIFFERENCE,
            f"No difference worth having. B changes how many shoppers {does} by {signed}, within ±{_points(worth)}.",
        )
    return Verdict(
        Outcome.CANNOT_TELL,
        f"Cannot tell. The plan has run out and B changes how many shoppers {does} by {signed}; "
        f"four times the shoppers would halve that span.",
    )
