"""Design tokens: a look written as a Design Tokens file, and read from one.

Source:
    Design Tokens Format Module (W3C Design Tokens Community Group, 2025.10): `$value`, `$type`, groups, aliases in
    braces; types color, dimension, fontFamily, fontWeight, number, duration, cubicBezier, shadow, border, gradient and
    transition.
"""

import json
import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from coloraide import Color

from uptick.core.button.fields import FIELDS
from uptick.core.button.look import (
    FixedSize,
    LinearFill,
    LineBorder,
    Look,
    Motion,
    NoFill,
    RadialFill,
    Shadow,
    SolidFill,
    corners_of,
)
from uptick.core.button.merge import Json, merge_layer, patch_at
from uptick.core.colour.dress import REST, Dress, dresses, ring_colour
from uptick.core.colour.ramp import Seed
from uptick.core.errors import BadTokens

MOST_CHARACTERS = 400_000
_CURVES = {
    "linear": [0, 0, 1, 1],
    "ease": [0.25, 0.1, 0.25, 1],
    "ease-in": [0.42, 0, 1, 1],
    "ease-out": [0, 0, 0.58, 1],
    "ease-in-out": [0.42, 0, 0.58, 1],
}
_SIDES = ("top", "right", "bottom", "left")
_CORNERS = ("top_left", "top_right", "bottom_right", "bottom_left")
_STATES = ("hover", "pressed", "focus", "disabled")


def write_tokens(look: Look, seeds: Mapping[str, str] | None = None) -> str:
    """Return a look, and the brand's colours by name, as a Design Tokens file."""
    worn = dresses(look)
    button: Json = {
        "padding": {side: _dimension(getattr(look.padding, side)) for side in _SIDES},
        "radius": {corner: _dimension(getattr(corners_of(look.radius), corner)) for corner in _CORNERS},
        "type": {
            "family": {"$type": "fontFamily", "$value": look.type.family},
            "size": _dimension(look.type.size_px),
            "weight": {"$type": "fontWeight", "$value": look.type.weight},
            "line": {"$type": "number", "$value": look.type.line},
            **{field.token: _dimension(field.of(look)) for field in FIELDS if field.token},
        },
        "rest": _dressed(worn[REST]),
        **{state: _in_state(worn[state], worn[REST]) for state in _STATES},
    }
    button["focus"]["ring"] = {
        "colour": _colour(ring_colour(look)),
        "width": _dimension(look.focus.ring_width_px),
        "offset": _dimension(look.focus.ring_offset_px),
    }
    if isinstance(look.size, FixedSize):
        button["size"] = {"width": _dimension(look.size.width), "height": _dimension(look.size.height)}
    brand = {"brand": {name: _colour(colour) for name, colour in (seeds or {}).items()}} if seeds else {}
    return json.dumps({**brand, "button": button}, indent=2, ensure_ascii=False) + "\n"


_DERIVED = {"fill": "fill", "words": "text_colour", "border": "border"}
_AS_AT_REST = ("opacity", "shadow", "transition")
_BY_RULE = "uptick.rule"


def _in_state(worn: Dress, rest: Dress) -> Json:
    """Return a state in full, for others to read; what follows from rest is marked, so that it goes on doing so."""
    found, at_rest = _dressed(worn), _dressed(rest)
    for name, token in found.items():
        follows = name in _AS_AT_REST and token == at_rest.get(name)
        if follows or _DERIVED.get(name) in worn.derived:
            token.setdefault("$extensions", {})[_BY_RULE] = True
    return found


def _dressed(worn: Dress) -> Json:
    found: Json = {"words": _colour(worn.text_colour), "opacity": {"$type": "number", "$value": worn.opacity}}
    if isinstance(worn.fill, SolidFill):
        found["fill"] = _colour(worn.fill.colour)
    elif isinstance(worn.fill, NoFill):
        found["fill"] = _colour("#000000", 0)
    elif isinstance(worn.fill, LinearFill | RadialFill):
        stops = [{"color": _colour(s.colour)["$value"], "position": round(s.at / 100, 4)} for s in worn.fill.stops]
        found["fill"] = {
            "$type": "gradient", "$value": stops, "$extensions": {"uptick": worn.fill.model_dump(mode="json")},
        }  # fmt: skip
    if isinstance(worn.border, LineBorder):
        value = {
            "color": _colour(str(worn.border.colour))["$value"],
            "width": _dimension(worn.border.width_px)["$value"],
            "style": worn.border.style,
        }
        found["border"] = {"$type": "border", "$value": value}
    if worn.shadows.list:
        found["shadow"] = {"$type": "shadow", "$value": [_shadow(one) for one in worn.shadows.list]}
    found["transition"] = {"$type": "transition", "$value": _transition(worn.motion)}
    return found


def _colour(colour: str, alpha: float = 1) -> Json:
    parts = [round(int(colour[n : n + 2], 16) / 255, 5) for n in (1, 3, 5)]
    value: Json = {"colorSpace": "srgb", "components": parts, "hex": colour}
    if alpha < 1:
        value["alpha"] = alpha
    return {"$type": "color", "$value": value}


def _dimension(length: float | str) -> Json:
    """Return a dimension; what the format has no unit for is kept beside it."""
    if not isinstance(length, str):
        return {"$type": "dimension", "$value": {"value": length, "unit": "px"}}
    return {"$type": "dimension", "$value": {"value": 0, "unit": "px"}, "$extensions": {"uptick": length}}


def _shadow(one: Shadow) -> Json:
    sizes = {"offsetX": one.x_px, "offsetY": one.y_px, "blur": one.blur_px, "spread": one.spread_px}
    return {
        "color": _colour(one.colour, one.opacity)["$value"],
        **{name: _dimension(value)["$value"] for name, value in sizes.items()},
        "inset": one.inner,
    }


def _transition(motion: Motion) -> Json:
    return {
        "duration": {"value": motion.duration_ms, "unit": "ms"},
        "delay": {"value": motion.delay_ms, "unit": "ms"},
        "timingFunction": _CURVES[motion.curve],
    }


@dataclass(frozen=True, slots=True)
class ReadTokens:
    """A look's values as a layer, colours by their names, and what was left out."""

    layer: Json
    colours: tuple[Seed, ...]
    left_out: tuple[str, ...]


def read_tokens(text: str) -> ReadTokens:
    """Return what a Design Tokens file has for a button: our own names in full, and every colour by its name.

    Raises:
        BadTokens: It is no JSON, or has no token in it.
    """
    if len(text) > MOST_CHARACTERS:
        raise BadTokens(f"The file has {len(text):,} characters; {MOST_CHARACTERS:,} are the most.")
    try:
        raw = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise BadTokens(f"The file is no JSON: {str(error)[:80]}.") from error
    tokens = dict(_tokens(raw, "", "")) if isinstance(raw, dict) else {}
    if not tokens:
        raise BadTokens('The file has no design token in it: none has a "$value".')
    left_out: list[str] = []
    layer: Json = {}
    colours: list[Seed] = []
    for name, token in tokens.items():
        if token["rule"]:
            continue
        try:
            token = _resolved(token, tokens, 0)
            if token["type"] == "color":
                colours.append(
                    Seed(name=name.rpartition(".")[2][:30] or "colour", colour=_read_colour(token["value"])[0])
                )
            for path, value in _fields(name, token):
                layer = merge_layer(layer, patch_at(path, value))
        except (KeyError, TypeError, ValueError, AttributeError) as error:
            left_out.append(f"{name}: {_short(error)}")
    unnamed = [
        name for name in tokens if not name.startswith(("button.", "brand.")) and tokens[name]["type"] != "color"
    ]
    left_out += [f"{name}: no value of a button has that name" for name in unnamed[:40]]
    return ReadTokens(_whole(layer), tuple(dict.fromkeys(colours)), tuple(dict.fromkeys(left_out)))


def _short(error: Exception) -> str:
    return str(error)[:80] or "cannot be read"


def _tokens(group: Json, path: str, kind: str) -> Iterator[tuple[str, Json]]:
    kind = str(group.get("$type", kind))
    if "$value" in group:
        more = group["$extensions"] if isinstance(group.get("$extensions"), dict) else {}
        yield path, {"type": kind, "value": group["$value"], "own": more.get("uptick"), "rule": _BY_RULE in more}
        return
    for name, inner in group.items():
        if isinstance(inner, dict) and not name.startswith("$") and path.count(".") < 12:
            yield from _tokens(inner, f"{path}.{name}" if path else name, kind)


def _resolved(token: Json, tokens: Mapping[str, Json], depth: int) -> Json:
    value = token["value"]
    named = re.fullmatch(r"\{([^{}]+)\}", value) if isinstance(value, str) else None
    if not named:
        return token
    if depth > 8 or named[1] not in tokens:
        raise ValueError(f"{value} is no token in this file")
    found = _resolved(tokens[named[1]], tokens, depth + 1)
    return {**found, "type": token["type"] or found["type"]}


def _read_colour(value: Any) -> tuple[str, float]:
    """Return a colour as hex and its opacity; a bare text, as older files have it, is CSS."""
    if isinstance(value, str):
        made = Color(value)
    else:
        space = {"display-p3": "display-p3", "oklch": "oklch", "hsl": "hsl", "srgb": "srgb"}.get(value["colorSpace"])
        if space is None:
            raise ValueError(f"the colour space {value['colorSpace']}")
        if space == "hsl":
            hue, saturation, lightness = value["components"]
            made = Color("hsl", [hue, saturation / 100, lightness / 100])
        else:
            made = Color(space, [0 if one == "none" else float(one) for one in value["components"]])
        made.set("alpha", float(value.get("alpha", 1)))
    alpha = round(float(made.alpha()), 4)
    return str(made.set("alpha", 1).convert("srgb").fit().to_string(hex=True)), alpha


def _read_dimension(token: Json) -> float | str:
    if isinstance(token.get("own"), str):
        return str(token["own"])
    return _px(token["value"])


def _px(value: Any) -> float:
    if isinstance(value, dict):
        return float(value["value"]) * {"px": 1, "rem": 16}[value["unit"]]
    found = re.fullmatch(r"(-?[\d.]+)(px|rem)", str(value).strip())
    if not found:
        raise ValueError(f"{value} is no dimension in px or rem")
    return float(found[1]) * (16 if found[2] == "rem" else 1)


_OF_FIELDS = {field.token: field.path for field in FIELDS if field.token}


def _fields(name: str, token: Json) -> Iterator[tuple[str, Any]]:
    """Yield the values of a look that a token of our own names sets."""
    match name.split("."):
        case ["button", "padding", side] if side in _SIDES:
            yield f"look.padding.{side}", _read_dimension(token)
        case ["button", "radius", corner] if corner in _CORNERS:
            yield f"corners.{corner}", _read_dimension(token)
        case ["button", "size", side] if side in ("width", "height"):
            yield f"size.{side}", _read_dimension(token)
        case ["button", "type", "family"]:
            yield "look.type.family", token["value"] if isinstance(token["value"], str) else token["value"][0]
        case ["button", "type", "size"]:
            yield "look.type.size_px", _px(token["value"])
        case ["button", "type", "weight"]:
            yield "look.type.weight", int(token["value"])
        case ["button", "type", "line"]:
            yield "look.type.line", float(token["value"])
        case ["button", "type", part] if part in _OF_FIELDS:
            yield _OF_FIELDS[part], _px(token["value"])
        case ["button", "focus", "ring", part]:
            ring = {"colour": "ring_colour", "width": "ring_width_px", "offset": "ring_offset_px"}[part]
            yield f"look.focus.{ring}", _read_colour(token["value"])[0] if part == "colour" else _px(token["value"])
        case ["button", state, part] if state in ("rest", *_STATES):
            before = "look" if state == "rest" else f"look.{state}"
            yield from _of_state(before, part, token)


def _of_state(before: str, part: str, token: Json) -> Iterator[tuple[str, Any]]:
    value = token["value"]
    if part == "words":
        yield f"{before}.text_colour", _read_colour(value)[0]
    elif part == "opacity":
        yield f"{before}.opacity", float(value)
    elif part == "fill" and token["type"] == "gradient":
        yield f"{before}.fill", token["own"] or _read_gradient(value)
    elif part == "fill":
        colour, opacity = _read_colour(value)
        yield f"{before}.fill", {"kind": "solid", "colour": colour} if opacity else {"kind": "none"}
    elif part == "border":
        line = {"kind": "line", "width_px": _px(value["width"]), "style": value["style"]}
        yield f"{before}.border", {**line, "colour": _read_colour(value["color"])[0]}
    elif part == "shadow":
        those = value if isinstance(value, list) else [value]
        yield f"{before}.shadows", {"kind": "cast", "list": [_read_shadow(one) for one in those]}
    elif part == "transition":
        yield f"{before}.motion", _read_transition(value)


def _read_gradient(value: list[Json]) -> Json:
    stops = [{"at": round(float(s["position"]) * 100, 2), "colour": _read_colour(s["color"])[0]} for s in value]
    return {"kind": "linear", "space": "srgb", "stops": stops}


def _read_shadow(one: Json) -> Json:
    colour, opacity = _read_colour(one["color"])
    sizes = {"x_px": "offsetX", "y_px": "offsetY", "blur_px": "blur", "spread_px": "spread"}
    made = {name: _px(one[theirs]) for name, theirs in sizes.items()}
    return {**made, "colour": colour, "opacity": opacity, "inner": bool(one.get("inset", False))}


def _read_transition(value: Json) -> Json:
    def ms(time: Json) -> int:
        return round(float(time["value"]) * (1000 if time["unit"] == "s" else 1))

    curve = next((name for name, points in _CURVES.items() if points == list(value["timingFunction"])), "ease-in-out")
    return {
        "kind": "motion", "duration_ms": ms(value["duration"]), "delay_ms": ms(value["delay"]), "curve": curve,
    }  # fmt: skip


def _whole(layer: Json) -> Json:
    """Put values together that a look replaces whole."""
    corners, size = layer.pop("corners", None), layer.pop("size", None)
    if corners and len(corners) == 4:
        alike = len({str(one) for one in corners.values()}) == 1
        radius = next(iter(corners.values())) if alike else {"kind": "corners", **corners}
        layer = merge_layer(layer, patch_at("look.radius", radius))
    if size and set(size) == {"width", "height"}:
        layer = merge_layer(layer, patch_at("look.size", {"kind": "fixed", **size}))
    return layer
