"""The draft of a store: one baseline, a layer for each placement, and exceptions."""

from datetime import datetime
from typing import Annotated, Any

from pydantic import Field, StringConstraints

from uptick.core.document import Language, Part, Placement
from uptick.core.merge import Json
from uptick.core.reach import Reach

Name = Annotated[str, StringConstraints(min_length=1, max_length=80, strip_whitespace=True)]
Note = Annotated[str, StringConstraints(min_length=1, max_length=400, strip_whitespace=True)]


class ExceptionRule(Part):
    """A layer with a reach and a note."""

    id: str
    name: Name
    note: Note
    author: str
    made_at: datetime
    reach: Reach
    layer: dict[str, Any] = Field(default_factory=dict)
    on: bool = True


class Settings(Part):
    """All that a designer can change. Snapshots of it are the steps of undo, and releases."""

    language: Language
    currency: str
    baseline: dict[str, Any]
    placements: dict[Placement, dict[str, Any]]
    exceptions: tuple[ExceptionRule, ...] = ()

    def layer(self, layer_id: str) -> Json | None:
        """Return a layer by its id: `baseline`, `place:<placement>` or `exception:<id>`."""
        if layer_id == "baseline":
            return self.baseline
        kind, _, name = layer_id.partition(":")
        if kind == "place" and name in list(Placement):
            return self.placements.get(Placement(name), {})
        return next((dict(e.layer) for e in self.exceptions if kind == "exception" and e.id == name), None)

    def with_layer(self, layer_id: str, layer: Json) -> "Settings":
        if layer_id == "baseline":
            return self.model_copy(update={"baseline": layer})
        kind, _, name = layer_id.partition(":")
        if kind == "place":
            return self.model_copy(update={"placements": {**self.placements, Placement(name): layer}})
        changed = tuple(e.model_copy(update={"layer": layer}) if e.id == name else e for e in self.exceptions)
        return self.model_copy(update={"exceptions": changed})
