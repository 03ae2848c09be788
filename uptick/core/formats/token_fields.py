"""Which fields of a button a design token of any name can be laid onto, by its type, and what its name suggests."""

import re
from collections.abc import Iterator, Mapping
from typing import Any

from uptick.core.errors import BadTokens
from uptick.core.formats.token_values import (
    Unfit,
    read_border,
    read_colour,
    read_curve,
    read_dimension,
    read_gradient,
    read_ms,
    read_number,
    read_shadows,
    read_transition,
    read_weight,
)

_COLOURED = tuple(
    f"look.{state}{part}"
    for state in ("", "hover.", "pressed.", "focus.", "disabled.")
    for part in ("fill", "text_colour")
)
# By type: what can take it; the first is what it is tried on.
FIELDS_OF: Mapping[str, tuple[str, ...]] = {
    "color": (*_COLOURED, "look.focus.ring_colour"),
    "dimension": (
        "look.radius", "look.padding.top", "look.padding.right", "look.padding.bottom", "look.padding.left",
        "look.type.size_px", "look.type.letter_spacing_px", "look.type.underline_px", "look.focus.ring_width_px",
        "look.focus.ring_offset_px",
    ),
    "fontFamily": ("look.type.family",),
    "fontWeight": ("look.type.weight",),
    "number": ("look.type.line", "look.opacity", "look.disabled.opacity", "look.type.weight"),
    "shadow": ("look.shadows", "look.hover.shadows", "look.pressed.shadows", "look.focus.shadows"),
    "border": ("look.border", "look.hover.border", "look.pressed.border", "look.focus.border", "look.disabled.border"),
    "gradient": ("look.fill", "look.hover.fill", "look.pressed.fill"),
    "typography": ("look.type",),
    "transition": ("look.motion",),
    "duration": ("look.motion",),
    "cubicBezier": ("look.motion",),
}  # fmt: skip


def laid_on(field: str, kind: str, value: Any, name: str) -> Iterator[tuple[str, Any]]:
    """Yield what a token's value sets where it is laid onto a field.

    Raises:
        BadTokens: The field cannot take a token of that type.
        Unfit: It is no value of its type.
    """
    if field not in FIELDS_OF.get(kind, ()):
        raise BadTokens(f"{name}: a token of the type {kind or 'unknown'} cannot be laid onto {field}.")
    match kind:
        case "color":
            colour = read_colour(value)
            yield field, {"kind": "solid", "colour": colour} if field.endswith("fill") else colour
        case "dimension":
            yield field, read_dimension(value)
        case "fontFamily":
            yield field, _family(value)
        case "fontWeight":
            yield field, read_weight(value)
        case "number":
            number = read_number(value)
            yield field, round(number) if field.endswith("weight") else number
        case "shadow":
            yield field, read_shadows(value)
        case "border":
            yield field, read_border(value)
        case "gradient":
            yield field, read_gradient(value)
        case "typography":
            yield from _typography(value)
        case "transition":
            yield field, read_transition(value)
        case "duration":
            yield field, {"kind": "motion", "duration_ms": read_ms(value)}
        case "cubicBezier":
            yield field, {"kind": "motion", "curve": read_curve(value)}


def _family(value: Any) -> str:
    """Return the shipped family that a list of families names.

    Raises:
        Unfit: It names none of them.
    """
    those = [str(one) for one in (value if isinstance(value, list) else [value])]
    for one in those:
        bare = one.lower().removesuffix(" variable")
        if bare in ("figtree", "lora", "archivo"):
            return bare
    raise Unfit(f"the family {', '.join(those)[:60]} is not shipped; there are figtree, lora and archivo")


def _typography(value: Any) -> Iterator[tuple[str, Any]]:
    size = read_dimension(value["fontSize"])
    yield "look.type.size_px", size
    if "fontWeight" in value:
        yield "look.type.weight", read_weight(value["fontWeight"])
    if "letterSpacing" in value:
        yield "look.type.letter_spacing_px", read_dimension(value["letterSpacing"])
    if "lineHeight" in value:
        yield "look.type.line", read_number(value["lineHeight"])
    try:
        family = _family(value.get("fontFamily", []))
    except Unfit:
        # The rest of it can be had all the same; which family it is is shown with the value.
        return
    yield "look.type.family", family


_SIDES = (
    ("top", "top"), ("bottom", "bottom"), ("left", "left"), ("start", "left"), ("right", "right"), ("end", "right"),
)  # fmt: skip
_STATES = (("hover", "hover"), ("press|active", "pressed"), ("focus", "focus"), ("disab|inactive", "disabled"))


def proposed(name: str, kind: str) -> str:
    """Return the field that a token's name suggests, where it speaks of a button; an empty text where none does."""
    said = name.lower()
    if not re.search(r"button|btn|\bcta\b|action", said):
        return ""
    state = next((f"{ours}." for pattern, ours in _STATES if re.search(pattern, said)), "")
    found = ""
    match kind:
        case "color":
            words = re.search(r"text|label|foreground|\bfg\b|on-|content|\bcolor$", said)
            ring = re.search(r"ring|outline", said)
            found = "look.focus.ring_colour" if ring else f"look.{state}{'text_colour' if words else 'fill'}"
            if re.search(r"border|stroke", said):
                found = ""
        case "dimension":
            sides = {
                "top": "top",
                "bottom": "bottom",
                "left": "left",
                "start": "left",
                "right": "right",
                "end": "right",
            }
            side = next((ours for theirs, ours in sides.items() if theirs in said), "")
            if re.search(r"radius|corner|round", said):
                found = "look.radius"
            elif "padding" in said and side:
                found = f"look.padding.{side}"
            elif re.search(r"font-?size|text-?size", said):
                found = "look.type.size_px"
        case _:
            found = f"look.{state}shadows" if kind == "shadow" else f"look.{state}border" if kind == "border" else ""
            found = found or FIELDS_OF.get(kind, ("",))[0]
    return found if found in FIELDS_OF.get(kind, ()) else ""
