"""A trial: its question, its versions, what was frozen at the start, and its record."""

from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from typing import Any

from uptick.core.button.merge import Json
from uptick.core.resolved.resolve import VersionLayer
from uptick.core.rules.reach import Reach
from uptick.core.trial.plan import Plan
from uptick.core.trial.readout import Measure

SHARES = {"A": 5000, "B": 5000}


class TrialState(StrEnum):
    DRAWN = "drawn"
    RUNNING = "running"
    CLOSED = "closed"


@dataclass(frozen=True, slots=True)
class Trial:
    """A comparison of A, today's button, with B, which is A with named changes."""

    number: int
    question: str
    reach: Reach
    layer: Json
    decides: Measure
    relative_difference: float
    window_days: int
    state: TrialState
    salt: str
    plan: Plan | None
    started_at: datetime | None
    closed_at: datetime | None
    kept: str | None
    record: dict[str, Any] | None
    # Grows with every change; it is what If-Match compares.
    version: int = 1
    # Releases that changed its buttons while it ran: its numbers mix what was before and after.
    mixed_by: tuple[int, ...] = ()

    @property
    def version_b(self) -> VersionLayer:
        """Version B as a layer."""
        return VersionLayer(str(self.number), "B", self.reach, self.layer)

    @property
    def version_salt(self) -> str:
        """What is hashed with a shopper's id to deal a version."""
        return f"{self.salt}:version"
