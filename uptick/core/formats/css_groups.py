"""The properties of CSS that fields of a look come from, with what reads their computed values."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import tinycss2
from tinycss2.ast import Node

from uptick.core.button.merge import Json
from uptick.core.formats import css_values as values
from uptick.core.formats.css_errors import NotUnderstood
from uptick.core.formats.css_size import SIZES

SIDES = ("top", "right", "bottom", "left")
_CORNERS = ("top_left", "top_right", "bottom_right", "bottom_left")
Values = Mapping[str, str]


def tokens_of(value: str) -> list[Node]:
    """Return the component values of a property (CSS Syntax 3, 5.4.10), without comments."""
    return list(tinycss2.parse_component_value_list(value, skip_comments=True))


# Fields and their values; what is told beside them has this for its path.
TOLD = ""
Pairs = Iterator[tuple[str, Any]]


@dataclass(frozen=True, slots=True)
class PropertyGroup:
    """Properties that give one field, or a few that are read together."""

    path: str
    names: frozenset[str]
    read: Callable[[Values], Pairs]
    of_words: bool = False

    def told(self, style: Values) -> Iterator[str]:
        """Yield the group's properties that a style sets otherwise than usual."""
        return (name for name in sorted(self.names) if name in style and style[name] not in _USUAL)


_USUAL = ("none", "normal", "auto", "scroll", "border-box", "padding-box", "repeat", "0% 0%", "0s", "ease", "all")


def _padding(style: Values) -> Pairs:
    for side in SIDES:
        yield f"look.padding.{side}", values.length(tokens_of(style[f"padding-{side}"]))


def _radius(style: Values) -> Pairs:
    each = []
    for corner in _CORNERS:
        lengths = values.lengths(tokens_of(style[f"border-{corner.replace('_', '-')}-radius"]), 1, 2)
        if len(set(lengths)) > 1:
            raise NotUnderstood("a corner that is no circle's")
        # A pill is often written as a radius that no button has.
        each.append(min(lengths[0], 400) if isinstance(lengths[0], float) else lengths[0])
    yield "look.radius", each[0] if len(set(each)) == 1 else {
        "kind": "corners", **dict(zip(_CORNERS, each, strict=True)),
    }  # fmt: skip


_LAYERS = {
    "background-size": "auto", "background-attachment": "scroll", "background-blend-mode": "normal",
    "background-clip": "border-box", "background-origin": "padding-box",
}  # fmt: skip


def _fill(style: Values) -> Pairs:
    ground = values.colour(tokens_of(style["background-color"]))
    image = style["background-image"]
    if image == "none":
        if style.get("background-clip", "border-box") != "border-box" and style["border-top-width"] != "0px":
            raise NotUnderstood("a fill that ends at the border")
        yield "look.fill", values.filled_with([], ground)
        return
    for name, usual in _LAYERS.items():
        if any(position.strip() not in (usual, f"{usual} {usual}") for position in style.get(name, usual).split(",")):
            raise NotUnderstood(f"{name}: a gradient fills the whole button")
    places = {style.get("background-position", "0% 0%"), style.get("background-position-x", "0%")}
    if any(place_part.strip() not in ("0% 0%", "0%") for place in places for place_part in place.split(",")):
        raise NotUnderstood("background-position: a gradient fills the whole button")
    layers = [values.fill(layer) for layer in values.parted(tokens_of(image))]
    yield "look.fill", values.filled_with([layer for layer in layers if layer["kind"] != "none"], ground)


def _text_colour(style: Values) -> Pairs:
    fill = style.get("-webkit-text-fill-color")
    if fill not in (None, style["color"], "currentcolor"):
        raise NotUnderstood(f"-webkit-text-fill-color: {fill}")
    yield "look.text_colour", values.colour(tokens_of(style["color"]))


def _border(style: Values) -> Pairs:
    lines = [_line(style, side) for side in SIDES]
    if all(not line["width_px"] for line in lines):
        yield "look.border", {"kind": "none"}
    elif all(line == lines[0] for line in lines):
        yield "look.border", {"kind": "line", **lines[0]}
    else:
        yield "look.border", {"kind": "sides", **dict(zip(SIDES, lines, strict=True))}


def _line(style: Values, side: str) -> Json:
    kind = style[f"border-{side}-style"]
    width = values.in_px(tokens_of(style[f"border-{side}-width"]), 16)
    if kind in ("none", "hidden") or not width:
        return {"width_px": 0.0}
    if kind not in ("solid", "dashed", "dotted", "double"):
        raise NotUnderstood("solid, dashed, dotted and double are taken")
    return {"width_px": width, "style": kind, "colour": values.colour(tokens_of(style[f"border-{side}-color"]))}


def _family(style: Values) -> Pairs:
    tokens = tokens_of(style["font-family"])
    family, first = values.family(tokens), values.first_family(tokens)
    yield "look.type.family", family
    if first.lower().removeprefix("up-").removesuffix(" variable") != family:
        yield TOLD, f"font-family: {first or style['font-family'][:40]} is not shipped; {family.capitalize()} stands in"


def _line_height(style: Values) -> Pairs:
    height, size = style["line-height"], values.in_px(tokens_of(style["font-size"]), 16)
    yield "look.type.line", 0 if height == "normal" else round(values.in_px(tokens_of(height), size) / size, 7)


def _letter_spacing(style: Values) -> Pairs:
    spacing = style["letter-spacing"]
    yield "look.type.letter_spacing_px", 0 if spacing == "normal" else values.in_px(tokens_of(spacing), 16, least=-100)


def _case(style: Values) -> Pairs:
    word = {"uppercase": "upper", "none": "as_written"}.get(style["text-transform"])
    if word is None:
        raise NotUnderstood("uppercase and none are taken")
    yield "look.type.case", word


def _slant(style: Values) -> Pairs:
    style_word = style["font-style"]
    if style_word not in ("normal", "italic", "oblique"):
        raise NotUnderstood("italic and normal are taken")
    yield "look.type.slant", "upright" if style_word == "normal" else "italic"


def _underline(style: Values) -> Pairs:
    line = style["text-decoration-line"]
    if line == "none":
        yield "look.type.underline_px", 0
        if (away := style["text-underline-offset"]) == "auto" or away.endswith("px"):
            offset = 0 if away == "auto" else values.in_px(tokens_of(away), 16, least=-100)
            yield "look.type.underline_offset_px", offset
        return
    if line != "underline" or style["text-decoration-style"] != "solid":
        raise NotUnderstood("one solid line under the words is taken")
    if style["text-decoration-color"] != style["color"]:
        raise NotUnderstood("an underline has the words' colour")
    size = values.in_px(tokens_of(style["font-size"]), 16)
    thick, away = style["text-decoration-thickness"], style["text-underline-offset"]
    # What a browser takes where nothing is said: a tenth of the type, at least one pixel (Chromium, from memory).
    yield "look.type.underline_px", max(1.0, size / 10) if thick == "auto" else values.in_px(tokens_of(thick), size)
    if away != "auto" and not values.in_px(tokens_of(away), size, least=-100):
        raise NotUnderstood("an underline at 0 px; 0 stands for the browser's own distance")
    yield "look.type.underline_offset_px", 0 if away == "auto" else values.in_px(tokens_of(away), size, least=-100)


def _wrap(style: Values) -> Pairs:
    if style.get("white-space-collapse", "collapse") not in ("collapse", "preserve"):
        raise NotUnderstood("lines are broken as they fit")
    breaks = style.get("text-wrap-mode", style.get("white-space", "wrap")) not in ("nowrap", "pre")
    cut = style["text-overflow"] == "ellipsis" and style["overflow-x"] in ("hidden", "clip")
    yield "look.wrap", "lines" if breaks else "ellipsis" if cut else "none"


def _motion(style: Values) -> Pairs:
    names = [listed.strip() for listed in style["transition-property"].split(",")]
    lists = [
        [values.bare(token) for token in values.parted(tokens_of(style[f"transition-{part}"]))]
        for part in ("duration", "delay", "timing-function")
    ]
    each = [[tinycss2.serialize(value[n % len(value)]) for value in lists] for n in range(len(names))]
    moving = [
        values_of
        for name, values_of in zip(names, each, strict=True)
        if name in _MOVING or name.startswith(("background", "border"))
    ]
    lasting = [timing for timing in moving if values.milliseconds(timing[0]) + values.milliseconds(timing[1]) > 0]
    if not lasting:
        yield "look.motion", {"kind": "motion", "duration_ms": 0}
        return
    if any(timing != lasting[0] for timing in moving):
        raise NotUnderstood("all of a button moves in one time")
    duration, delay, curve = lasting[0]
    motion = {"kind": "motion", "duration_ms": values.milliseconds(duration), "delay_ms": values.milliseconds(delay)}
    yield "look.motion", {**motion, "curve": values.curve(curve)}


_MOVING = ("all", "color", "box-shadow", "opacity")


def _group(path: str, names: str, read: Callable[[Values], Pairs], *, of_words: bool = False) -> PropertyGroup:
    return PropertyGroup(path, frozenset(names.split()), read, of_words)


def _named(pattern: str, each: Sequence[str]) -> str:
    return " ".join(pattern.format(part) for part in each)


def _shadows(style: Values) -> Pairs:
    yield "look.shadows", values.shadows(tokens_of(style["box-shadow"]))


_PARTS_OF_LINES = ("width", "style", "color")
GROUPS = (
    _group("look.padding", _named("padding-{}", SIDES), _padding),
    _group("look.radius", _named("border-{}-radius", [c.replace("_", "-") for c in _CORNERS]), _radius),
    _group(
        "look.fill",
        "background-color background-image background-position background-position-x background-position-y "
        "background-repeat " + " ".join(_LAYERS),
        _fill,
    ),
    _group("look.text_colour", "color -webkit-text-fill-color", _text_colour, of_words=True),
    _group("look.border", " ".join(_named(f"border-{{}}-{part}", SIDES) for part in _PARTS_OF_LINES), _border),
    _group("look.shadows", "box-shadow", _shadows),
    _group("look.opacity", "opacity", lambda s: iter([("look.opacity", values.share(tokens_of(s["opacity"])))])),
    _group(
        "look.motion",
        "transition-property transition-duration transition-delay transition-timing-function transition-behavior",
        _motion,
    ),
    _group("look.type.family", "font-family", _family, of_words=True),
    _group(
        "look.type.size_px", "font-size",
        lambda s: iter([("look.type.size_px", values.in_px(tokens_of(s["font-size"]), 16))]), of_words=True,
    ),
    _group(
        "look.type.weight", "font-weight",
        lambda s: iter([("look.type.weight", values.weight(tokens_of(s["font-weight"])))]), of_words=True,
    ),
    _group("look.type.line", "line-height", _line_height, of_words=True),
    _group("look.type.letter_spacing_px", "letter-spacing", _letter_spacing, of_words=True),
    _group("look.type.case", "text-transform", _case, of_words=True),
    _group("look.type.slant", "font-style", _slant, of_words=True),
    _group(
        "look.type.underline_px",
        _named("text-decoration-{}", ("line", "style", "thickness", "color")) + " text-underline-offset",
        _underline, of_words=True,
    ),
    _group(
        "look.text_shadows", "text-shadow",
        lambda s: iter([("look.text_shadows", values.text_shadows(tokens_of(s["text-shadow"])))]), of_words=True,
    ),
    _group("look.wrap", "white-space white-space-collapse text-wrap-mode text-wrap text-overflow", _wrap),
)  # fmt: skip
ALL_READ = frozenset(
    {name for group in GROUPS for name in group.names} | set(SIZES) | {"display", "overflow-x", "text-align"}
)
