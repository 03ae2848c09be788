"""Layers without gaps, each with keys for what it sets: equal content, equal key."""

from dataclasses import dataclass
from functools import cached_property
from typing import Any

import orjson

from uptick.core.button.document import Moment, Placement, wording_of
from uptick.core.button.layer_ref import BASELINE, LayerRef
from uptick.core.button.merge import Json, leaves, merge_layer, without_gaps
from uptick.core.rules.settings import ExceptionRule, Settings

USES = "uses"
# A text of a layer, by moment and language.
Cell = tuple[Moment, str]


@dataclass(frozen=True, eq=False)
class Layer:
    """One layer as it counts: on the named look that it uses, without gaps.

    `look` is what it sets besides texts. The keys are its content as bytes, empty where it sets nothing of that kind.
    """

    content: Json
    look: Json
    texts: dict[Cell, str]
    look_key: bytes
    words_key: bytes

    @cached_property
    def fields(self) -> dict[str, object]:
        """Return what it sets, by the fields' paths."""
        return dict(leaves(self.content))


def layer_of(content: Json, look: Json | None = None) -> Layer:
    """Return a layer, put on a named look where it uses one; its own values win.

    Raises:
        BadDocument: Its texts are no texts by moment and language.
    """
    clean = without_gaps(content)
    if USES in clean:
        own = {key: value for key, value in clean.items() if key != USES}
        clean = merge_layer(without_gaps(look or {}), own)
    drawn = {key: value for key, value in clean.items() if key != "wording"}
    texts: dict[Cell, str] = {}
    if "wording" in clean:
        for moment, by_language in wording_of(clean).items():
            texts |= {(moment, language): text for language, text in by_language.items()}
    return Layer(clean, drawn, texts, _key(drawn), _key(clean.get("wording")))


def _key(content: Any) -> bytes:
    return orjson.dumps(content, option=orjson.OPT_SORT_KEYS) if content else b""


def _of_rule(rule: ExceptionRule) -> Layer:
    return layer_of(rule.layer)


# A placement that stands nowhere until its layer says something.
NOT_THERE: dict[Placement, Json] = {Placement.FLOATING: {"placement": {"shown": False}}}


def layers_of(settings: Settings) -> dict[LayerRef, Layer]:
    """Return every layer by its reference. Exceptions that an edit leaves alone are read once."""
    looks = {look_id: look.layer for look_id, look in settings.looks.items()}

    def whole(content: Json) -> Layer:
        return layer_of(content, looks.get(content.get(USES, "")))

    layers = {BASELINE: whole(settings.baseline)}
    placements = {**NOT_THERE, **{place: layer for place, layer in settings.placements.items() if layer}}
    layers |= {LayerRef.place(place): whole(layer) for place, layer in placements.items()}
    for rule in settings.exceptions:
        used = rule.layer.get(USES)
        layers[LayerRef.exception(rule.id)] = whole(rule.layer) if used else rule.derived(_of_rule)
    return layers


def clean_layers(settings: Settings) -> dict[LayerRef, Json]:
    """Return the content of every layer, without gaps, on the named look that it uses."""
    return {ref: layer.content for ref, layer in layers_of(settings).items()}
