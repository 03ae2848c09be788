"""Resolution: baseline, placement, exceptions from the least to the most particular, then versions."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from uptick.core.button.document import ButtonDocument
from uptick.core.button.layer_ref import BASELINE, LayerRef
from uptick.core.button.merge import Json, at_path, merge_layer, without_gaps
from uptick.core.engine.layers import USES, Layer, layers_of
from uptick.core.engine.snapshot import Snapshot
from uptick.core.rules.reach import Context, Reach
from uptick.core.rules.settings import ExceptionRule, Settings
from uptick.core.words.wider_texts import document_of


@dataclass(frozen=True, slots=True)
class VersionLayer:
    """One version of a running trial as a layer."""

    trial: str
    letter: str
    reach: Reach
    layer: Json


@dataclass(frozen=True, slots=True)
class Candidate:
    """One layer that has something to say about a field, in a trace. `inactive` says why it does not count now."""

    layer: LayerRef
    title: str
    reach: Reach | None
    note: str
    author: str
    made_at: datetime | None
    value: Any
    wins: bool
    inactive: str = ""


@dataclass(frozen=True, slots=True)
class _Step:
    layer: LayerRef
    title: str
    content: Json
    rule: ExceptionRule | None = None
    inactive: str = ""


def sets_look(layer: Json) -> bool:
    """Tell whether a layer sets anything but texts."""
    return any(key != "wording" for key in layer)


def sets_texts(layer: Json) -> bool:
    """Tell whether a layer has texts of its own."""
    return bool(layer.get("wording"))


def _with_look(settings: Settings, layer: Json, title: str) -> str:
    look = settings.looks.get(layer.get(USES, ""))
    return f"{title}, with the look {look.name}" if look else title


def place_title(placement: str) -> str:
    """Return a placement as a heading."""
    return placement.replace("_", " ").capitalize()


def _steps(
    settings: Settings,
    layers: Mapping[LayerRef, Layer],
    rules: Iterable[ExceptionRule],
    context: Context,
    versions: Sequence[VersionLayer],
) -> list[_Step]:
    place = context.placement
    standing = layers.get(LayerRef.place(place))
    steps = [
        _Step(BASELINE, _with_look(settings, settings.baseline, "Store baseline"), layers[BASELINE].content),
        _Step(
            LayerRef.place(place),
            _with_look(settings, settings.placements.get(place, {}), place_title(place)),
            standing.content if standing else {},
        ),
    ]
    for rule in rules:
        title = _with_look(settings, rule.layer, rule.name)
        steps.append(_Step(LayerRef.exception(rule.id), title, layers[LayerRef.exception(rule.id)].content, rule))
    steps += [
        _Step(LayerRef.trial(v.trial, v.letter), f"Trial {v.trial}, version {v.letter}", without_gaps(v.layer))
        for v in versions
        if v.reach.covers(context)
    ]
    return steps


def _merged(layers: Iterable[Json]) -> Json:
    merged: Json = {}
    for layer in layers:
        merged = merge_layer(merged, layer)
    return merged


def resolve(settings: Settings, context: Context, versions: Sequence[VersionLayer] = ()) -> ButtonDocument:
    """Return the button document that holds in a context, worked out plainly: layer on layer, for this context alone.

    What the engine makes of a whole shop is held to it.

    Raises:
        BadDocument: The layers together do not make a button; names the field.
    """
    rules = [rule for rule in settings.exceptions if rule.on and rule.reach.covers(context)]
    # Sorting keeps equal ones in the order in which they were made: the later wins.
    rules.sort(key=lambda rule: rule.reach.particularity())
    steps = [step.content for step in _steps(settings, layers_of(settings), rules, context, versions)]
    return document_of(_merged(steps), steps)


def trace(
    snapshot: Snapshot,
    context: Context,
    field: str,
    versions: Sequence[VersionLayer] = (),
    sleeping: Mapping[str, str] | None = None,
) -> tuple[Candidate, ...]:
    """Return every layer that sets `field` in this context, the winner first.

    Args:
        sleeping: Exceptions by id that do not count now, with the reason; they are listed where they would stand.
    """
    settings = snapshot.settings
    rules = snapshot.index.named(snapshot.index.of(context))
    layer_values = [
        (step, value)
        for step in _steps(settings, snapshot.layers, rules, context, versions)
        if (value := at_path(step.content, field)) is not None
    ]
    candidates = [_candidate(step, value, wins=n == 0) for n, (step, value) in enumerate(reversed(layer_values))]
    for rule in settings.exceptions if sleeping else ():
        why = sleeping.get(rule.id) if sleeping else None
        value = at_path(snapshot.layers[LayerRef.exception(rule.id)].content, field)
        if why and value is not None and rule.reach.covers(context):
            step = _Step(LayerRef.exception(rule.id), rule.name, {}, rule, why)
            candidates.append(_candidate(step, value, wins=False))
    return tuple(candidates)


def _candidate(step: _Step, value: Any, *, wins: bool) -> Candidate:
    rule = step.rule
    return Candidate(
        layer=step.layer,
        title=step.title,
        reach=rule.reach if rule else None,
        note=rule.note if rule else "",
        author=rule.author if rule else "",
        made_at=rule.made_at if rule else None,
        value=value,
        wins=wins,
        inactive=step.inactive,
    )
