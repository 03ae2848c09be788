"""The draft of a store: one baseline, a layer for each placement, and exceptions."""

from datetime import date, datetime
from typing import Annotated, Any

from pydantic import Field, StringConstraints, ValidationInfo, field_validator

from uptick.core.button.document import Language, Placement
from uptick.core.button.layer_ref import LayerRef
from uptick.core.button.look import Part
from uptick.core.button.merge import Json
from uptick.core.colour.ramp import Brand
from uptick.core.rules.pointed import PointedPlace
from uptick.core.rules.reach import Reach

Name = Annotated[str, StringConstraints(min_length=1, max_length=80, strip_whitespace=True)]
Note = Annotated[str, StringConstraints(min_length=1, max_length=400, strip_whitespace=True)]


# These need no spot on a page: a store has them once its draft says something of them.
ADDED = (Placement.FLOATING, Placement.OUTSIDE)


class ExceptionRule(Part):
    """A layer with a reach and a note. Its days are the store's own, both included.

    `meant` says that its texts may differ from what other placements say of the same product.
    """

    id: str
    name: Name
    note: Note
    author: str
    made_at: datetime
    reach: Reach
    layer: dict[str, Any] = Field(default_factory=dict)
    on: bool = True
    starts_on: date | None = None
    ends_on: date | None = None
    meant: bool = False

    @field_validator("ends_on")
    @classmethod
    def _in_order(cls, ends_on: date | None, info: ValidationInfo) -> date | None:
        starts_on = info.data.get("starts_on")
        if starts_on and ends_on and ends_on < starts_on:
            raise ValueError(f"it ends on {ends_on}, before it starts on {starts_on}")
        return ends_on

    def inactive(self, day: date) -> str:
        """Return why it does not count on a day, or nothing."""
        if not self.on:
            return "switched off"
        if self.starts_on and day < self.starts_on:
            return f"inactive until {self.starts_on:%-d %B %Y}"
        if self.ends_on and day > self.ends_on:
            return f"inactive since {self.ends_on:%-d %B %Y}"
        return ""


class NamedLook(Part):
    """A look that several layers may use: changed in one place, it changes in all of them."""

    name: Name
    layer: dict[str, Any] = Field(default_factory=dict)


class Settings(Part):
    """All that a designer can change. Snapshots of it are the steps of undo, and releases."""

    language: Language
    currency: str
    baseline: dict[str, Any]
    placements: dict[Placement, dict[str, Any]]
    exceptions: tuple[ExceptionRule, ...] = ()
    more_languages: tuple[Language, ...] = ()
    looks: dict[str, NamedLook] = Field(default_factory=dict)
    brand: Brand = Brand()
    pointed: dict[str, PointedPlace] = Field(default_factory=dict)

    @property
    def languages(self) -> tuple[str, ...]:
        """Return the languages that the buttons speak, the store's first one first."""
        return (
            self.language,
            *(language for language in self.more_languages if language != self.language),
        )

    def exception(self, rule_id: str) -> ExceptionRule | None:
        """Return an exception by its id; None where there is none."""
        return next((rule for rule in self.exceptions if rule.id == rule_id), None)

    def layer(self, layer_id: str) -> Json | None:
        """Return a layer by its reference, or None where there is none."""
        ref = LayerRef(layer_id)
        match ref.kind:
            case "baseline":
                return self.baseline
            case "place" if ref.name in list(Placement):
                return self.placements.get(Placement(ref.name), {})
            case "look" if ref.name in self.looks:
                return dict(self.looks[ref.name].layer)
            case "exception" if rule := self.exception(ref.name):
                return dict(rule.layer)
        return None

    def with_layer(self, layer_id: str, layer: Json) -> "Settings":
        """Return the settings with one layer replaced, named by its id."""
        ref = LayerRef(layer_id)
        match ref.kind:
            case "baseline":
                return self.model_copy(update={"baseline": layer})
            case "place":
                return self.model_copy(update={"placements": {**self.placements, Placement(ref.name): layer}})
            case "look":
                changed = self.looks[ref.name].model_copy(update={"layer": layer})
                return self.model_copy(update={"looks": {**self.looks, ref.name: changed}})
        return self.with_exception(ref.name, layer=layer)

    def with_exception(self, rule_id: str, **changes: Any) -> "Settings":
        """Return the settings with some fields of one exception changed; they are not checked again."""
        changed = tuple(e.model_copy(update=changes) if e.id == rule_id else e for e in self.exceptions)
        return self.model_copy(update={"exceptions": changed})

    def on_day(self, day: date) -> "Settings":
        """Return the settings as they count on a day of the store's: what sleeps then is switched off."""
        if not any(rule.starts_on or rule.ends_on for rule in self.exceptions):
            return self
        return self.derived(Settings._on_day, day)

    def _on_day(self, day: date) -> "Settings":
        awake = tuple(
            rule.model_copy(update={"on": not rule.inactive(day), "starts_on": None, "ends_on": None})
            if rule.starts_on or rule.ends_on
            else rule
            for rule in self.exceptions
        )
        return self.model_copy(update={"exceptions": awake})
