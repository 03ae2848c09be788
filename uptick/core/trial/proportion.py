"""Single rates and the difference of two, with their intervals.

The formulas are short and stand here, since loading a library of statistics takes longer than a command may; tests hold
them to statsmodels.
"""

from dataclasses import dataclass
from math import sqrt
from statistics import NormalDist

from uptick.core.errors import OutOfRange


@dataclass(frozen=True, slots=True)
class Interval:
    """An estimate with its bounds, as shares, not percent."""

    estimate: float
    low: float
    high: float
    level: float


MOST_COUNTED = 10**15


def normal_quantile(tail: float) -> float:
    """Return z with that share of the normal distribution beyond it, for a tail in (0, 1).

    Source:
        Wichura (1988), algorithm AS 241, as Python's statistics.NormalDist has it.
    """
    # From the lower end, where a tail of 1e-300 is still told from nothing.
    return -NormalDist().inv_cdf(tail)


def _require_counts(hits: int, tries: int, level: float) -> None:
    if not 1 <= tries <= MOST_COUNTED:
        raise OutOfRange.of("tries", f"from 1 to {MOST_COUNTED:,}", tries)
    if not 0 <= hits <= tries:
        raise OutOfRange.of("hits", f"from 0 to {tries}, the tries", hits)
    if not 0 < level < 1:
        raise OutOfRange.of("level", "between 0 and 1", level)


def wilson_interval(hits: int, tries: int, *, level: float = 0.95) -> Interval:
    """Estimate a share by the Wilson score interval.

    Raises:
        OutOfRange: A count or the level is outside its range.

    Source:
        Wilson (1927), JASA 22(158), doi:10.1080/01621459.1927.10502953.
    """
    _require_counts(hits, tries, level)
    share, z = hits / tries, normal_quantile((1 - level) / 2)
    middle = (share + z * z / (2 * tries)) / (1 + z * z / tries)
    half = z * sqrt(share * (1 - share) / tries + z * z / (4 * tries * tries)) / (1 + z * z / tries)
    # At zero or all hits the bound is exactly 0 or 1; rounding leaves 7e-18.
    return Interval(share, middle - half if hits else 0.0, middle + half if hits < tries else 1.0, level)


def newcombe_difference(hits: int, tries: int, other_hits: int, other_tries: int, *, level: float = 0.95) -> Interval:
    """Estimate `hits/tries − other_hits/other_tries` by Newcombe's hybrid score interval.

    Raises:
        OutOfRange: A count or the level is outside its range.

    Source:
        Newcombe (1998), Statistics in Medicine 17:873–890, method 10: each side's distance from its Wilson bound.
    """
    one, other = wilson_interval(hits, tries, level=level), wilson_interval(other_hits, other_tries, level=level)
    estimate = one.estimate - other.estimate
    low = estimate - sqrt((one.estimate - one.low) ** 2 + (other.high - other.estimate) ** 2)
    high = estimate + sqrt((one.high - one.estimate) ** 2 + (other.estimate - other.low) ** 2)
    # At none against all the bound is exactly −1 or 1; rounding goes 1e-16 beyond it.
    return Interval(estimate, max(-1.0, min(low, estimate)), min(1.0, max(high, estimate)), level)
