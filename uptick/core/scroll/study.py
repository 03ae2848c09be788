"""What a study of a whole shop along its pages has found."""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated

from pydantic import Field, StringConstraints

from uptick.core.button.document import Device, Language
from uptick.core.button.look import Part
from uptick.core.button.plain_text import Fit
from uptick.core.checks.finding import Weight

MOST_LINES = 300
Words = Annotated[str, StringConstraints(max_length=600), Fit]


class StudyFinding(Part):
    rule: Annotated[str, StringConstraints(max_length=40), Fit]
    weight: Weight
    title: Words
    says: Words = ""


class StudyLine(Part):
    """One page on one device: the share of scrolling with a button in reach, and what is wrong there.

    `findings` is None where the page did not answer; `why` says what is known of that.
    """

    name: Words
    path: Words
    product: Words = ""
    device: Device
    reach: Annotated[float, Field(ge=0, le=1)] = 0
    findings: Annotated[tuple[StudyFinding, ...], Field(max_length=60)] | None = None
    why: Words = ""

    @property
    def rank(self) -> int:
        """Return how bad it is, the worst first: no answer, then by its worst finding."""
        if self.findings is None:
            return 0
        return 1 + min((list(Weight).index(finding.weight) for finding in self.findings), default=len(Weight))


class Study(Part):
    """What a study of one version of the draft has found, the worst first."""

    version: Annotated[int, Field(ge=0)]
    language: Language
    took_ms: Annotated[float, Field(ge=0)]
    lines: Annotated[tuple[StudyLine, ...], Field(min_length=1, max_length=MOST_LINES)]


@dataclass(frozen=True, slots=True)
class KeptStudy:
    """A study with who made it, and when."""

    study: Study
    by: str
    made_at: datetime
