"""Whether shoppers were dealt to the versions as the shares say."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import erfc, sqrt

from uptick.core.errors import OutOfRange
from uptick.core.trial.proportion import MOST_COUNTED

ALARM = 0.001
_LEAST_SHARE = 1e-6


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
        Alarm level: Fabijan et al. (2019), KDD, doi:10.1145/3292500.3330722. The tail of chi-square with one degree
        of freedom is that of a squared normal (Abramowitz and Stegun, 26.4.7); of more, scipy's.
    """
    if len(observed) < 2 or min(observed) < 0 or not 0 < sum(observed) <= MOST_COUNTED:
        raise OutOfRange.of("observed", f"two or more counts, from 1 to {MOST_COUNTED:,} in all", list(observed))
    weights = list(shares) if shares is not None else [1.0] * len(observed)
    if len(weights) != len(observed) or not all(_LEAST_SHARE <= weight <= 1 / _LEAST_SHARE for weight in weights):
        raise OutOfRange.of("shares", f"{len(observed)} numbers from {_LEAST_SHARE} to {1 / _LEAST_SHARE:g}", weights)
    total = sum(observed)
    expected = [total * weight / sum(weights) for weight in weights]
    statistic = sum((seen - wanted) ** 2 / wanted for seen, wanted in zip(observed, expected, strict=True))
    p_value = _tail(statistic, len(observed) - 1)
    return SplitCheck(tuple(observed), tuple(expected), statistic, p_value, p_value >= ALARM)


def _tail(statistic: float, freedom: int) -> float:
    if freedom == 1:
        return erfc(sqrt(statistic / 2))
    from scipy.special import chdtrc

    return float(chdtrc(freedom, statistic))
