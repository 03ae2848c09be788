"""One line of the benchmark: a figure beside its baseline, and whether the budget holds."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Row:
    """`ratio` is the figure to the baseline of the same run; a budget is on the figure or on the ratio."""

    name: str
    figure: float
    unit: str
    baseline: float
    against: str
    budget: str
    holds: bool
    # A part that could not be measured has a row that says why.
    ran: bool = True

    @property
    def ratio(self) -> float | None:
        return self.figure / self.baseline if self.baseline else None


def p95(values: list[float]) -> float:
    return sorted(values)[int(len(values) * 0.95)]


def p99(values: list[float]) -> float:
    return sorted(values)[int(len(values) * 0.99)]


def median(values: list[float]) -> float:
    return sorted(values)[len(values) // 2]
