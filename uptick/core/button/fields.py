"""The fields of the button document, each declared once.

What a field is called, which part of a look it belongs to, whether it is replaced whole, what it moves, and how it is
written to CSS, to tokens and in a sentence, and read from them. Its type and its limits are the document's own model's.
"""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from annotated_types import Ge, Le
from pydantic import BaseModel

from uptick.core.button.document import ButtonDocument, Device
from uptick.core.button.look import STATES, Look


class MovedBox(StrEnum):
    """What of a drawing a field moves."""

    OUTER = "outer"
    WORDS = "words"
    ICON = "icon"
    # Nothing stands elsewhere: it is only painted otherwise.
    PAINT = "paint"


@dataclass(frozen=True, slots=True)
class Written:
    """How the value of a field stands in one property of CSS, on the body of the button or on its words.

    `write` returns nothing where the value is the usual one; `read` takes what `css_values` has read by `unit`.
    """

    name: str
    write: Callable[[Any], str]
    usual: str
    unit: str
    words: Mapping[str, Any] | None = None
    on_words: bool = False


@dataclass(frozen=True, slots=True)
class Field:
    """One field.

    `part` is the part of a look that it is carried with. `whole` says that a layer replaces it whole. `moves` are the
    boxes that it moves. `css` and `token` are there where one property and one token hold all of it; what stands in
    several is written by `css`, `css_out`, `css_in` and `tokens` themselves. `says` is what a sentence adds for it.
    """

    path: str
    title: str
    part: str = ""
    whole: bool = False
    moves: frozenset[MovedBox] = frozenset()
    css: Written | None = None
    token: str = ""
    says: Callable[[Any], str] | None = None

    def of(self, look: Look) -> Any:
        """Return its value in a look."""
        value: Any = look
        for name in self.path.split(".")[1:]:
            value = getattr(value, name)
        return value


def _px(value: float) -> str:
    return f"{round(value, 4):g}px" if value else "0"


_BODY, _TEXT = frozenset({MovedBox.OUTER}), frozenset({MovedBox.OUTER, MovedBox.WORDS})
_PAINT = frozenset({MovedBox.PAINT})

_PAINTED = (
    ("fill", "fill", "fill", True),
    ("text_colour", "words' colour", "fill", False),
    ("border", "border", "edge", True),
    ("shadows", "shadows", "edge", True),
    ("opacity", "opacity", "fill", False),
    ("motion", "transition", "motion", True),
)
_WHEN = {
    "hover": "when hovered",
    "pressed": "while pressed",
    "focus": "when focused",
    "disabled": "when sold out",
    "working": "while working",
    "added": "once added",
}


def _painted() -> Iterator[Field]:
    for name, title, part, whole in _PAINTED:
        moves = _BODY | _PAINT if name == "border" else _PAINT
        yield Field(f"look.{name}", title, part, whole, moves)
    for state in STATES:
        for name, title, _, whole in _PAINTED:
            yield Field(f"look.{state}.{name}", f"{title} {_WHEN[state]}", "states", whole, _PAINT)


FIELDS: tuple[Field, ...] = (
    Field("look.size", "size", "size", True, _BODY),
    Field("look.padding.top", "padding above", "padding", moves=_TEXT),
    Field("look.padding.right", "padding right", "padding", moves=_TEXT),
    Field("look.padding.bottom", "padding below", "padding", moves=_TEXT),
    Field("look.padding.left", "padding left", "padding", moves=_TEXT),
    Field("look.radius", "corner radius", "corners", True, _PAINT),
    Field("look.type.family", "type family", "type", moves=_TEXT),
    Field("look.type.size_px", "type size", "type", moves=_TEXT),
    Field("look.type.weight", "type weight", "type", moves=_TEXT),
    Field("look.type.line", "line height", "type", moves=_TEXT),
    Field(
        "look.type.letter_spacing_px", "letter spacing", "type", moves=_TEXT,
        css=Written("letter-spacing", _px, "0", "px"), token="letter-spacing",
        says=lambda px: f", letters {px:g} px apart" if px else "",
    ),
    Field(
        "look.type.case", "capitals", "type", moves=_TEXT,
        css=Written(
            "text-transform", {"upper": "uppercase", "as_written": "none"}.__getitem__, "none", "word",
            {"uppercase": "upper", "none": "as_written"},
        ),
        says=lambda case: ", in capitals" if case == "upper" else "",
    ),
    Field(
        "look.type.slant", "italics", "type", moves=_PAINT,
        css=Written(
            "font-style", {"italic": "italic", "upright": "normal"}.__getitem__, "normal", "word",
            {"italic": "italic", "oblique": "italic", "normal": "upright"},
        ),
        says=lambda slant: ", in italics" if slant == "italic" else "",
    ),
    Field(
        "look.type.underline_px", "underline", "type", moves=_PAINT,
        css=Written("text-decoration", lambda px: f"underline {_px(px)}" if px else "none", "none", "underline",
                    on_words=True),
        token="underline", says=lambda px: f", underlined {px:g} px thick" if px else "",
    ),
    Field(
        "look.type.underline_offset_px", "underline's distance", "type", moves=_PAINT,
        css=Written("text-underline-offset", lambda px: _px(px) if px else "auto", "auto", "px", on_words=True),
        token="underline-offset",
        says=lambda px: f", {px:g} px below them" if px else "",
    ),
    Field("look.text_shadows", "words' shadows", "type", True, _PAINT),
    Field("look.centring", "centring", "type", moves=frozenset({MovedBox.WORDS})),
    Field("look.wrap", "wrapping", "type", moves=_TEXT),
    *_painted(),
    Field("look.focus.ring_colour", "focus ring", "states", moves=_PAINT),
    Field("look.focus.ring_width_px", "focus ring's width", "states", moves=_PAINT),
    Field("look.focus.ring_offset_px", "focus ring's distance", "states", moves=_PAINT),
    Field("look.working.tell", "what moves while working", "states", moves=_PAINT),
    Field("look.added.tell", "what moves once added", "states", moves=_PAINT),
    Field("icon", "icon", "icon", True, frozenset({MovedBox.OUTER, MovedBox.WORDS, MovedBox.ICON})),
    Field("quantity", "quantity box", "quantity", True, _BODY),
    Field("second", "second button", "second", True, _BODY),
    Field("afterwards", "afterwards", whole=True),
    Field("choosing", "where what needs a choice is chosen"),
    Field("sheet.width_px", "the sheet's width"),
    Field("sheet.padding_px", "the sheet's padding"),
    Field("sheet.radius_px", "the sheet's corner radius"),
    Field("sheet.edge_px", "the sheet's edge"),
    Field("sheet.edge_colour", "the colour of the sheet's edge"),
    Field("sheet.ground", "the sheet's ground"),
    Field("sheet.ink", "the sheet's ink"),
    Field("sheet.size_px", "the sheet's type size"),
    Field("sheet.shade", "the shade behind the sheet"),
    Field("sheet.motion_ms", "how long the sheet takes to come"),
    Field("uses", "named look"),
    Field("placement.shown", "whether it stands"),
    Field("placement.product", "the product that it stands for"),
    Field("placement.pages.kinds", "the kinds of page on which that hangs"),
    Field("placement.pages.paths", "the paths at which that hangs"),
    Field("placement.pages.not_paths", "the paths at which that does not hang"),
    Field("placement.level", "the cards whose buttons are set level"),
    Field("placement.stretch", "whether those cards are made equally high"),
    Field("bar.edge", "the bar's edge"),
    Field("bar.comes", "when the bar comes", whole=True),
    Field("bar.only_up", "whether the bar comes on scrolling up only"),
    Field("bar.returns", "whether the bar goes when the page's own button is back"),
    Field("bar.foot_px", "how far before the page's end the bar goes"),
    Field("bar.slide_ms", "how long the bar slides"),
    Field("bar.parts", "what the bar holds"),
    Field("bar.phone_without", "what the bar leaves out on phones"),
    Field("bar.tablet_without", "what the bar leaves out on tablets"),
    Field("bar.desktop_without", "what the bar leaves out on desktops"),
    Field("bar.spread", "how the bar is spread"),
    Field("bar.taxed", "whether the bar's price is with tax"),
    Field("bar.heading", "the bar's heading"),
    Field("bar.ground", "the bar's ground"),
    Field("bar.ink", "the bar's ink"),
    Field("bar.shadow", "the bar's shadow"),
    Field("bar.close_hours", "how long a closed bar stays away"),
    Field("floating.corner", "the floating button's corner"),
    Field("floating.comes", "when the floating button comes", whole=True),
    Field("floating.only_up", "whether the floating button comes on scrolling up only"),
    Field("floating.returns", "whether the floating button goes when the page's own button is back"),
    Field("floating.foot_px", "how far before the page's end the floating button goes"),
    Field("floating.appear_ms", "how long the floating button takes to appear"),
    *(
        Field(f"floating.{device}.{name}", f"the floating button's distance from the {edge_words} on {device}s")
        for device in Device
        for name, edge_words in (("side_px", "side"), ("edge_px", "edge"))
    ),
    Field("over.anchor", "the anchor on the picture"),
    Field("over.across", "the distance from the picture's side"),
    Field("over.down", "the distance from the picture's upper or lower edge"),
    Field("over.reveal", "what comes on hovering the picture"),
    Field("over.reveal_ms", "how long that takes"),
    Field("over.curve", "the curve by which it comes"),
)  # fmt: skip

BY_PATH: Mapping[str, Field] = {field.path: field for field in FIELDS}
# Values that a layer replaces whole: to change a part of one is to write all of it.
WHOLE_FIELDS: tuple[str, ...] = tuple(field.path for field in FIELDS if field.whole)
# Fields whose CSS is one property.
WRITTEN: tuple[tuple[Field, Written], ...] = tuple((field, field.css) for field in FIELDS if field.css)


def _parts() -> dict[str, tuple[str, ...]]:
    roots_of: dict[str, dict[str, None]] = {}
    for field in FIELDS:
        if field.part:
            steps = field.path.split(".")
            # Of padding, type and a state all that is in it belongs together.
            together = len(steps) > 2 and (steps[1] in STATES or steps[1] in {"padding", "type"})
            root = ".".join(steps[:2]) if together else field.path
            roots_of.setdefault(field.part, {})[root] = None
    return {part: tuple(roots) for part, roots in roots_of.items()}


# The parts of a look that can be carried from one button to another, with what each takes along.
PARTS: Mapping[str, tuple[str, ...]] = _parts()


def field_title(path: str) -> str:
    """Return what a designer calls a field, for example `words: sold out, en-GB`."""
    if path.startswith("wording."):
        _, moment, *language = path.split(".")
        return ", ".join([f"words: {moment.replace('_', ' ')}", *language])
    if path.startswith("spoken."):
        return f"name for screen readers, {path.removeprefix('spoken.')}"
    if path.startswith("bar.heading."):
        return f"the bar's heading, {path.removeprefix('bar.heading.')}"
    field = BY_PATH.get(path)
    return field.title if field else path


def limits_of(path: str) -> tuple[float, float] | None:
    """Return the least and the greatest value of a field that is a number with limits; they are its model's."""
    model: type[BaseModel] = ButtonDocument
    *steps, last = path.split(".")
    for step in steps:
        info = model.model_fields.get(step)
        if info is None or not isinstance(info.annotation, type) or not issubclass(info.annotation, BaseModel):
            return None
        model = info.annotation
    info = model.model_fields.get(last)
    bounds = info.metadata if info else []
    least = next((bound.ge for bound in bounds if isinstance(bound, Ge)), None)
    most = next((bound.le for bound in bounds if isinstance(bound, Le)), None)
    return None if least is None or most is None else (float(least), float(most))  # type: ignore[arg-type]


def declared(look: Look, *, on_words: bool) -> dict[str, str]:
    """Return the CSS of the fields that are one property each, where they are not as usual."""
    properties = {}
    for field, css in WRITTEN:
        if css.on_words == on_words and (value := css.write(field.of(look))) != css.usual:
            properties[css.name] = value
    return properties


def declared_all(look: Look) -> dict[str, str]:
    """Return the CSS of all those fields, also where they are as usual."""
    return {css.name: css.write(field.of(look)) for field, css in WRITTEN}


def say_fields(look: Look, begin: str) -> str:
    """Return what sentences add for the fields under a path."""
    return "".join(f.says(f.of(look)) for f in FIELDS if f.says and f.path.startswith(begin))
