"""Which fields of a button a design token of any name can be laid onto, by its type, and what its name suggests."""

import re
from collections.abc import Iterator, Mapping, Sequence, Set
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
    those = [str(name) for name in (value if isinstance(value, list) else [value])]
    for name in those:
        bare = name.lower().removesuffix(" variable")
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


_SIDES = {"top": "top", "bottom": "bottom", "left": "left", "start": "left", "right": "right", "end": "right"}
_STATES = {
    "hover": "hover", "hovered": "hover", "press": "pressed", "pressed": "pressed", "active": "pressed",
    "focus": "focus", "focused": "focus", "disabled": "disabled", "inactive": "disabled",
}  # fmt: skip
_OF_NUMBERS = {"opacity": "look.opacity", "line": "look.type.line", "weight": "look.type.weight"}
_OF_WORDS = {"text", "label", "foreground", "fg", "content", "on"}
_OF_FILL = {"background", "bg", "fill", "surface", "container"}


def proposed(name: str, kind: str) -> str:
    """Return the field that a token's name suggests, where it speaks of a button; an empty text where none does.

    A name is read by its words, whether they are divided by signs or by capitals.
    """
    words = [word.lower() for word in re.findall(r"[A-Z]?[a-z]+|[A-Z]+(?![a-z])", name)]
    words_said = set(words)
    if words_said.isdisjoint({"button", "buttons", "btn", "cta", "action"}):
        return ""
    state = next((f"{_STATES[word]}." for word in words if word in _STATES), "")
    match kind:
        case "color":
            field = _of_colour(words, state)
        case "dimension":
            field = _of_length(words_said)
        case "number":
            field = next((path for word, path in _OF_NUMBERS.items() if word in words_said), "")
        case "shadow" | "border":
            field = f"look.{state}{'shadows' if kind == 'shadow' else 'border'}"
        case _:
            field = next(iter(FIELDS_OF.get(kind, ())), "")
    return field if field in FIELDS_OF.get(kind, ()) else ""


def _of_colour(words: Sequence[str], state: str) -> str:
    words_said = set(words)
    if not words_said.isdisjoint(_OF_FILL):
        return f"look.{state}fill"
    if "ring" in words_said or {"outline", "focus"} <= words_said:
        return "look.focus.ring_colour"
    if not words_said.isdisjoint(_OF_WORDS):
        return f"look.{state}text_colour"
    if not words_said.isdisjoint({"border", "stroke", "outline", "shadow"}):
        return ""
    # As CSS has it, whose `color` is the words'.
    return f"look.{state}{'text_colour' if words[-1] in ('color', 'colour') else 'fill'}"


def _of_length(words_said: Set[str]) -> str:
    if words_said & {"radius", "corner", "corners", "round", "rounded"}:
        return "look.radius"
    if "padding" in words_said:
        return next((f"look.padding.{_SIDES[word]}" for word in words_said if word in _SIDES), "")
    return (
        "look.type.size_px"
        if "fontsize" in words_said or ("size" in words_said and words_said & {"font", "text", "type"})
        else ""
    )
