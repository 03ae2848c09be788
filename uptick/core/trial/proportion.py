"""Single rates and the difference of two, with their intervals."""

from dataclasses import dataclass

from statsmodels.stats.proportion import confint_proportions_2indep, proportion_confint

from uptick.core.errors import OutOfRange


@dataclass(frozen=True, slots=True)
class Interval:
    """An estimate with its bounds, as shares, not percent."""

    estimate: float
    low: float
    high: float
    level: float


def _require_counts(hits: int, tries: int, level: float) -> None:
    if tries < 1:
        raise OutOfRange.of("tries", "at least 1", tries)
    if not 0 <= hits <= tries:
        raise OutOfRange.of("hits", f"from 0 to {tries}, the tries", hits)
    if not 0 < level < 1:
        raise OutOfRange.of("level", "between 0 and 1", level)


def wilson_interval(hits: int, tries: int, *, level: float = 0.95) -> Interval:
    """Estimate a share by the Wilson score interval.

    Raises:
        OutOfRange: A count or the level is outside its range.

    Source:
        Wilson (1927), JASA 22(158), doi:10.1080/01621459.1927.10502953; through statsmodels.
    """
    _require_counts(hits, tries, level)
    low, high = proportion_confint(hits, tries, alpha=1 - level, method="wilson")
    # At zero or all hits the bound is exactly 0 or 1; rounding leaves 7e-18.
    return Interval(hits / tries, float(low) if hits else 0.0, float(high) if hits < tries else 1.0, level)


def newcombe_difference(hits: int, tries: int, other_hits: int, other_tries: int, *, level: float = 0.95) -> Interval:
    """Estimate `hits/tries − other_hits/other_tries` by Newcombe's hybrid score interval.

    Raises:
        OutOfRange: A count or the level is outside its range.

    Source:
        Newcombe (1998), Statistics in Medicine 17:873–890, method 10; through statsmodels.
    """
    _require_counts(hits, tries, level)
    _require_counts(other_hits, other_tries, level)
    low, high = confint_proportions_2indep(
        hits, tries, other_hits, other_tries, method="newcomb", compare="diff", alpha=1 - level
    )
    estimate = hits / tries - other_hits / other_tries
    # At none against all the bound is exactly −1 or 1; rounding goes 1e-16 beyond it.
    return Interval(estimate, max(-1.0, min(float(low), estimate)), min(1.0, max(float(high), estimate)), level)
