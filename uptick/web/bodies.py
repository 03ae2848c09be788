"""What the studio sends."""

from datetime import date
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, model_validator

from uptick.core.button.document import Device
from uptick.core.button.plain_text import unfit_value
from uptick.core.rules.reach import Reach
from uptick.core.trial.readout import Measure


class Body(BaseModel):
    """Whatever it holds, no text of it can break what stores or shows it."""

    model_config = ConfigDict(extra="forbid")

    @model_validator(mode="before")
    @classmethod
    def _require_fit(cls, raw: Any) -> Any:
        if unfit := unfit_value(raw):
            raise ValueError(unfit)
        return raw


class SignIn(Body):
    email: Annotated[str, StringConstraints(max_length=200)]
    password: Annotated[str, StringConstraints(max_length=200)]


class OfNewStore(Body):
    """What has to be known of a shop; `says` is what its buttons say until somebody words them."""

    name: Annotated[str, StringConstraints(max_length=80)]
    origin: Annotated[str, StringConstraints(max_length=200)]
    language: Annotated[str, StringConstraints(pattern=r"^[a-z]{2}(-[A-Z]{2})?$")]
    currency: Annotated[str, StringConstraints(pattern=r"^[A-Z]{3}$")]
    timezone: Annotated[str, StringConstraints(max_length=60)]
    says: Annotated[str, StringConstraints(max_length=200)]


class Edit(Body):
    """A patch (RFC 7396) for one layer; null resets a field."""

    layer: Annotated[str, StringConstraints(max_length=80)]
    patch: dict[str, Any]


class Bring(Body):
    """A look to bring: from a button (`placement/product`), a starting point, a kept look, CSS or design tokens.

    `computed` is what a browser has made of a stylesheet, as JSON; `devices` are those that get exceptions; `laid`
    says which field each design token of another name is laid onto.
    """

    kind: Literal["button", "start", "look", "css", "computed", "tokens"]
    value: Annotated[str, StringConstraints(max_length=400_000)]
    selector: Annotated[str, StringConstraints(max_length=200)] = ""
    parts: Annotated[list[str], Field(max_length=20)] = Field(default_factory=list)
    layer: Annotated[str, StringConstraints(max_length=80)]
    devices: Annotated[list[Device], Field(max_length=3)] = Field(default_factory=list)
    laid: Annotated[dict[str, str], Field(max_length=200)] = Field(default_factory=dict)


class KeepLook(Body):
    name: Annotated[str, StringConstraints(max_length=80)]
    used_by: Annotated[str, StringConstraints(max_length=80)] = ""


class UseLook(Body):
    """An empty look takes it away again."""

    layer: Annotated[str, StringConstraints(max_length=80)]
    look: Annotated[str, StringConstraints(max_length=60)] = ""


class SeedColour(Body):
    name: Annotated[str, StringConstraints(max_length=30)]
    colour: Annotated[str, StringConstraints(max_length=7)]


class BrandColours(Body):
    seeds: Annotated[list[SeedColour], Field(max_length=3)]


class IconFile(Body):
    svg: Annotated[str, StringConstraints(max_length=200_001)]
    name: Annotated[str, StringConstraints(max_length=80)] = "own icon"


class NewException(Body):
    """The reach as lists, or in words, as *Frames & wax, on phones, except brood frames*."""

    name: Annotated[str, StringConstraints(min_length=1, max_length=80)]
    note: Annotated[str, StringConstraints(min_length=1, max_length=400)]
    reach: Reach = Reach()
    reach_words: Annotated[str, StringConstraints(max_length=4000)] = ""
    layer: dict[str, Any] = Field(default_factory=dict)
    starts_on: date | None = None
    ends_on: date | None = None


class ExceptionChange(Body):
    """What is told is changed, the rest stays; null takes a day away."""

    name: Annotated[str, StringConstraints(min_length=1, max_length=80)] | None = None
    note: Annotated[str, StringConstraints(min_length=1, max_length=400)] | None = None
    reach: Reach | None = None
    reach_words: Annotated[str, StringConstraints(max_length=4000)] | None = None
    on: bool | None = None
    starts_on: date | None = None
    ends_on: date | None = None
    meant: bool | None = None


class ReachWords(Body):
    text: Annotated[str, StringConstraints(max_length=4000)]


class Languages(Body):
    """The languages that the buttons speak besides the store's first."""

    more: Annotated[list[str], Field(max_length=40)]


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


class TrialStart(Body):
    """`days_ago` is for practice stores, which run on their own clock."""

    days_ago: int = 0
