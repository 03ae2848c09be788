"""Design tokens: a look written as a Design Tokens file.

Source:
    Design Tokens Format Module (W3C Design Tokens Community Group, 2025.10): `$value`, `$type`, groups, aliases in
    braces; types color, dimension, fontFamily, fontWeight, number, duration, cubicBezier, shadow, border, gradient and
    transition.
"""

import json
from collections.abc import Mapping

from uptick.core.button.fields import FIELDS
from uptick.core.button.look import (
    AnyBorder,
    FixedSize,
    LayersFill,
    LinearFill,
    LineBorder,
    Look,
    Motion,
    Part,
    PictureFill,
    RadialFill,
    Shadow,
    Shadows,
    SolidFill,
    corners_of,
    lines_of,
)
from uptick.core.button.merge import Json
from uptick.core.colour.colour import opacity_of, opaque
from uptick.core.colour.dress import REST, Dress, dresses, ring_colour
from uptick.core.colour.fills import AnyFill, places_of

CURVES = {
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
    """Return a look, and the brand's colours by name, as a Design Tokens file; `read_tokens` reads it again."""
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
    # What the format has no type for; a group may carry it (2025.10, section 6.8).
    own: Json = {"size": look.size.model_dump(mode="json"), "type": {"case": look.type.case, "slant": look.type.slant}}
    own |= {"wrap": look.wrap, "centring": look.centring, "text_shadows": look.text_shadows.model_dump(mode="json")}
    button["$extensions"] = {_OWN: own}
    brand = {"brand": {name: _colour(colour) for name, colour in (seeds or {}).items()}} if seeds else {}
    return json.dumps({**brand, "button": button}, indent=2, ensure_ascii=False) + "\n"


_DERIVED = {"fill": "fill", "words": "text_colour", "border": "border"}
_AS_AT_REST = ("opacity", "shadow", "transition")
_BY_RULE = "uptick.rule"
_OWN = "uptick"


def _in_state(worn: Dress, rest: Dress) -> Json:
    """Return a state in full, for others to read; what follows from rest is marked, so that it goes on doing so."""
    parts, at_rest = _dressed(worn), _dressed(rest)
    for name, token in parts.items():
        follows = name in _AS_AT_REST and token == at_rest.get(name)
        if follows or _DERIVED.get(name) in worn.derived:
            token.setdefault("$extensions", {})[_BY_RULE] = True
    return parts


def _dressed(worn: Dress) -> Json:
    tokens_of: Json = {"words": _colour(worn.text_colour), "opacity": {"$type": "number", "$value": worn.opacity}}
    tokens_of["fill"] = fill_token(worn.fill)
    tokens_of["border"] = border_token(worn.border)
    tokens_of["shadow"] = shadows_token(worn.shadows)
    tokens_of["transition"] = {"$type": "transition", "$value": _transition(worn.motion)}
    return tokens_of


def fill_token(fill: AnyFill) -> Json:
    """Return a fill as a colour or gradient token; what the format cannot say stands beside it."""
    if isinstance(fill, SolidFill):
        return _colour(fill.colour)
    if isinstance(fill, LinearFill | RadialFill | LayersFill):
        first = fill.list[0] if isinstance(fill, LayersFill) else fill
        placed = zip(first.stops, places_of(first.stops), strict=True)
        stops = [{"color": _colour(s.colour)["$value"], "position": round(at / 100, 4)} for s, at in placed]
        return {"$type": "gradient", "$value": stops, **_beside(fill)}
    return {**_colour("#00000000"), **(_beside(fill) if isinstance(fill, PictureFill) else {})}


def border_token(border: AnyBorder) -> Json:
    """Return a border; of sides that differ the thickest stands for all, the sides beside it."""
    line = max(lines_of(border), key=lambda side: side.width_px)
    value = {
        "color": _colour(str(line.colour or "#00000000"))["$value"],
        "width": _dimension(line.width_px)["$value"],
        "style": line.style,
    }
    own = {} if isinstance(border, LineBorder) else _beside(border)
    return {"$type": "border", "$value": value, **own}


def shadows_token(cast: Shadows) -> Json:
    """Return shadows as a token."""
    if cast.list:
        return {"$type": "shadow", "$value": [_shadow(shadow) for shadow in cast.list]}
    # The format has no empty list of shadows: one that is not seen, and beside it that there is none.
    return {"$type": "shadow", "$value": [_shadow(Shadow(x_px=0, y_px=0, blur_px=0, opacity=0))], **_beside(cast)}


def _beside(value: Part) -> Json:
    """Return what the format cannot say of a value, for whoever knows us."""
    return {"$extensions": {_OWN: value.model_dump(mode="json")}}


def _colour(colour: str, alpha: float = 1) -> Json:
    parts = [round(int(colour[n : n + 2], 16) / 255, 5) for n in (1, 3, 5)]
    value: Json = {"colorSpace": "srgb", "components": parts, "hex": opaque(colour)}
    alpha *= opacity_of(colour)
    if alpha < 1:
        value["alpha"] = round(alpha, 4)
    return {"$type": "color", "$value": value}


def _dimension(length: float | str) -> Json:
    """Return a dimension; what the format has no unit for is kept beside it."""
    if not isinstance(length, str):
        return {"$type": "dimension", "$value": {"value": length, "unit": "px"}}
    return {"$type": "dimension", "$value": {"value": 0, "unit": "px"}, "$extensions": {"uptick": length}}


def _shadow(shadow: Shadow) -> Json:
    sizes = {"offsetX": shadow.x_px, "offsetY": shadow.y_px, "blur": shadow.blur_px, "spread": shadow.spread_px}
    return {
        "color": _colour(shadow.colour, shadow.opacity)["$value"],
        **{name: _dimension(value)["$value"] for name, value in sizes.items()},
        "inset": shadow.inner,
    }


def _transition(motion: Motion) -> Json:
    return {
        "duration": {"value": motion.duration_ms, "unit": "ms"},
        "delay": {"value": motion.delay_ms, "unit": "ms"},
        "timingFunction": CURVES[motion.curve],
    }
