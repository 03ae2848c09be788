"""Whether shoppers were dealt to the versions as the shares say."""

from collections.abc import Sequence
from dataclasses import dataclass

from scipy.stats import chisquare

from uptick.core.errors import OutOfRange

ALARM = 0.001


@dataclass(frozen=True, slots=True)
class SplitCheck:
    """`p_value` of the dealing; `holds` is false under the alarm of 0.001."""

    observed: tuple[int, ...]
    expected: tuple[float, ...]
    statistic: float
    p_value: float
    holds: bool


def check_split(observed: Sequence[int], shares: Sequence[float] | None = None) -> SplitCheck:
    """Test observed shoppers against the shares by Pearson's chi-square.

    Raises:
        OutOfRange: Fewer than two versions, a negative count, nobody at all, or shares that do not match.

    Source:
        Alarm level: Fabijan et al. (2019), KDD, doi:10.1145/3292500.3330722. The test: scipy.stats.chisquare.
    """
    if len(observed) < 2 or min(observed) < 0 or sum(observed) == 0:
        raise OutOfRange.of("observed", "two or more counts, not all 0", list(observed))
    weights = list(shares) if shares is not None else [1.0] * len(observed)
    if len(weights) != len(observed) or min(weights) <= 0:
        raise OutOfRange.of("shares", f"{len(observed)} positive numbers", weights)
    total = sum(observed)
    expected = [total * weight / sum(weights) for weight in weights]
    result = chisquare(list(observed), expected)
    p_value = float(result.pvalue)
    return SplitCheck(tuple(observed), tuple(expected), float(result.statistic), p_value, p_value >= ALARM)
