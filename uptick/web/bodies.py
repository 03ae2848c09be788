"""What the studio sends."""

from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from uptick.core.reach import Reach
from uptick.core.trial.readout import Measure


class Body(BaseModel):
    model_config = ConfigDict(extra="forbid")


class SignIn(Body):
    email: Annotated[str, StringConstraints(max_length=200)]
    password: Annotated[str, StringConstraints(max_length=200)]


class Edit(Body):
    """A patch (RFC 7396) for one layer; null resets a field."""

    layer: Annotated[str, StringConstraints(max_length=80)]
    patch: dict[str, Any]


class NewException(Body):
    name: Annotated[str, StringConstraints(min_length=1, max_length=80)]
    note: Annotated[str, StringConstraints(min_length=1, max_length=400)]
    reach: Reach
    layer: dict[str, Any] = Field(default_factory=dict)


class Publish(Body):
    note: Annotated[str, StringConstraints(max_length=400)] = ""
    despite: list[Literal["findings", "trial"]] = Field(default_factory=list)


class NewTrial(Body):
    question: Annotated[str, StringConstraints(max_length=200)]
    reach: Reach
    layer: dict[str, Any] = Field(default_factory=dict)
    decides: Measure = Measure.ADDED
    relative_difference: float = 0.2
    window_days: int = 3


class TrialChange(Body):
    question: Annotated[str, StringConstraints(max_length=200)] | None = None
    patch: dict[str, Any] | None = None
    decides: Measure | None = None
    relative_difference: float | None = None


class Start(Body):
    """`days_ago` is for practice stores, which run on their own clock."""

    days_ago: int = 0
