"""Resolution: baseline, placement, exceptions from the least to the most particular, then versions."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from uptick.core.document import ButtonDocument, parse_document
from uptick.core.memo import remembered
from uptick.core.merge import Json, at_path, merge_layer, without_gaps
from uptick.core.reach import Context, Reach
from uptick.core.settings import ExceptionRule, Settings


@dataclass(frozen=True, slots=True)
class VersionLayer:
    """One version of a running trial as a layer."""

    trial: str
    letter: str
    reach: Reach
    layer: Json


@dataclass(frozen=True, slots=True)
class Candidate:
    """One layer that has something to say about a field, in a trace."""

    layer: str
    title: str
    reach: str
    note: str
    author: str
    made_at: datetime | None
    value: Any
    wins: bool


@dataclass(frozen=True, slots=True)
class _Step:
    layer_id: str
    title: str
    content: Json
    rule: ExceptionRule | None = None


def covering(settings: Settings, context: Context) -> tuple[ExceptionRule, ...]:
    """Return the exceptions that cover a context, the least particular first; of equals the later is later."""
    found = [rule for rule in settings.exceptions if rule.on and rule.reach.covers(context)]
    return tuple(sorted(found, key=lambda rule: rule.reach.particularity()))


@remembered(32)
def _clean(settings: Settings) -> dict[str, Json]:
    """Return every layer by its id, without gaps."""
    layers = {"baseline": without_gaps(settings.baseline)}
    layers |= {f"place:{place}": without_gaps(layer) for place, layer in settings.placements.items()}
    return layers | {f"exception:{rule.id}": without_gaps(dict(rule.layer)) for rule in settings.exceptions}


def _steps(settings: Settings, context: Context, versions: Sequence[VersionLayer]) -> list[_Step]:
    place = context.placement
    layers = _clean(settings)
    steps = [
        _Step("baseline", "Store baseline", layers["baseline"]),
        _Step(f"place:{place}", place.replace("_", " ").capitalize(), layers.get(f"place:{place}", {})),
    ]
    for rule in covering(settings, context):
        steps.append(_Step(f"exception:{rule.id}", rule.name, layers[f"exception:{rule.id}"], rule))
    steps += [
        _Step(f"trial:{v.trial}:{v.letter}", f"Trial {v.trial}, version {v.letter}", without_gaps(v.layer))
        for v in versions
        if v.reach.covers(context)
    ]
    return steps


def resolve_raw(settings: Settings, context: Context, versions: Sequence[VersionLayer] = ()) -> Json:
    """Return the merged document as plain JSON, not yet checked."""
    merged: Json = {}
    for step in _steps(settings, context, versions):
        merged = merge_layer(merged, step.content)
    return merged


def resolve(settings: Settings, context: Context, versions: Sequence[VersionLayer] = ()) -> ButtonDocument:
    """Return the button document that holds in a context.

    Raises:
        BadDocument: The layers together do not make a button; names the field.
    """
    return parse_document(resolve_raw(settings, context, versions))


def trace(
    settings: Settings, context: Context, field: str, versions: Sequence[VersionLayer] = ()
) -> tuple[Candidate, ...]:
    """Return every layer that sets `field` in this context, the winner first."""
    said = []
    for step in _steps(settings, context, versions):
        value = at_path(step.content, field)
        if value is not None:
            said.append((step, value))
    return tuple(
        Candidate(
            layer=step.layer_id,
            title=step.title,
            reach=step.rule.reach.in_words() if step.rule else "",
            note=step.rule.note if step.rule else "",
            author=step.rule.author if step.rule else "",
            made_at=step.rule.made_at if step.rule else None,
            value=value,
            wins=position == 0,
        )
        for position, (step, value) in enumerate(reversed(said))
    )
