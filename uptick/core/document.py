"""The button document: everything that can be said about one purchase button."""

import re
from enum import StrEnum
from itertools import count
from typing import Annotated, Any, Literal

from pydantic import Field, PrivateAttr, StringConstraints, TypeAdapter, ValidationError, model_validator

from uptick.core.errors import BadDocument
from uptick.core.look import (
    STATES,
    Border,
    Colour,
    LineBorder,
    Look,
    NoFill,
    Padding,
    Part,
    PictureFill,
    Radius,
    SolidFill,
)
from uptick.core.merge import merge_layer
from uptick.core.plain_text import unfit_value


class Placement(StrEnum):
    PRODUCT_PAGE = "product_page"
    LISTING_CARD = "listing_card"
    STICKY_BAR = "sticky_bar"
    STRIP = "strip"


class Situation(StrEnum):
    PLAIN = "plain"
    CHOICE = "choice"
    SET = "set"
    PRE_ORDER = "pre_order"
    SOLD_OUT = "sold_out"


class Moment(StrEnum):
    READY = "ready"
    WORKING = "working"
    ADDED = "added"
    IN_BASKET = "in_basket"
    CHOOSE_FIRST = "choose_first"
    PRE_ORDER = "pre_order"
    SOLD_OUT = "sold_out"


class Device(StrEnum):
    """The three fixed ranges of window width: to 599 px, to 1023 px, and above."""

    PHONE = "phone"
    TABLET = "tablet"
    DESKTOP = "desktop"


class ShopperKind(StrEnum):
    """Who looks: a shopper is of one kind, the last that holds."""

    NEW = "new"
    RETURNING = "returning"
    SIGNED_IN = "signed_in"


Text = Annotated[str, StringConstraints(max_length=200)]
Name = Annotated[str, StringConstraints(min_length=1, max_length=60, strip_whitespace=True)]
Language = Annotated[str, StringConstraints(pattern=r"^[a-z]{2}(-[A-Z]{2})?$")]


class NoIcon(Part):
    kind: Literal["none"] = "none"


class _Icon(Part):
    """Where an icon stands: `alone` hides the words, which are still read out.

    `centring` sets it by its square or by its mass; `mirror` turns it about where one reads from right to left.
    """

    side: Literal["before", "after", "above", "alone"] = "before"
    size_px: Annotated[float, Field(ge=8, le=96)] = 18
    gap_px: Annotated[float, Field(ge=0, le=64)] = 8
    centring: Literal["box", "mass"] = "box"
    mirror: bool = False


class ShippedIcon(_Icon):
    kind: Literal["shipped"] = "shipped"
    name: Annotated[str, StringConstraints(max_length=40)]


PathData = Annotated[str, StringConstraints(pattern=r"^[MmLlHhVvCcSsQqTtAaZz0-9eE,.+\- ]*$", max_length=20_000)]


class Shape(Part):
    """One path of an icon: filled, or drawn as a line of `stroke` units."""

    d: PathData
    rule: Literal["nonzero", "evenodd"] = "nonzero"
    stroke: Annotated[float, Field(ge=0, le=400)] = 0
    cap: Literal["butt", "round", "square"] = "butt"
    join: Literal["miter", "round", "bevel"] = "miter"


class OwnIcon(_Icon):
    """An icon that somebody brought, cleaned: paths in a box of `width` by `height` units, in the words' colour."""

    kind: Literal["own"] = "own"
    name: Annotated[str, StringConstraints(min_length=1, max_length=40)] = "own icon"
    width: Annotated[float, Field(gt=0, le=4096)]
    height: Annotated[float, Field(gt=0, le=4096)]
    shapes: Annotated[tuple[Shape, ...], Field(min_length=1, max_length=40)]


Icon = Annotated[NoIcon | ShippedIcon | OwnIcon, Field(discriminator="kind")]


class NoQuantity(Part):
    kind: Literal["none"] = "none"


class BoxNames(Part):
    """What screen readers call a quantity box and its two keys in one language."""

    quantity: Name
    fewer: Name
    more: Name


class QuantityBox(Part):
    """A number of pieces before the button, in the direction of reading, as high as the button.

    `plain` is the number alone, `sides` has minus and plus at its sides, `stacked` has both at its end.
    """

    kind: Literal["box"] = "box"
    layout: Literal["plain", "sides", "stacked"] = "plain"
    least: Annotated[int, Field(ge=1, le=9999)] = 1
    most: Annotated[int, Field(ge=1, le=9999)] = 99
    step: Annotated[int, Field(ge=1, le=999)] = 1
    start: Annotated[int, Field(ge=1, le=9999)] = 1
    width_px: Annotated[float, Field(ge=32, le=200)] = 64
    names: dict[Language, BoxNames] = Field(default_factory=dict)

    @model_validator(mode="after")
    def _in_order(self) -> "QuantityBox":
        if not self.least <= self.start <= self.most:
            raise ValueError(f"start must be from least ({self.least}) to most ({self.most}); it is {self.start}")
        if (self.start - self.least) % self.step:
            raise ValueError(f"start must be least plus whole steps of {self.step}; it is {self.start}")
        return self

    @property
    def whole_width_px(self) -> float:
        """Return the width with its keys."""
        return self.width_px + {"plain": 0, "sides": 2 * KEY_PX, "stacked": KEY_PX}[self.layout]


# Minus and plus: a finger's width and no more, so that the number stays the larger part.
KEY_PX = 36.0


class NoSecond(Part):
    kind: Literal["none"] = "none"


class SecondButton(Part):
    """A second button that goes straight to the checkout, beside the first or under it; its type family is the first's.

    With `first` it stands before the main one. With `share` both are equally wide where the first is of full width.
    """

    kind: Literal["checkout"] = "checkout"
    side: Literal["beside", "under"] = "beside"
    first: bool = False
    share: bool = False
    gap_px: Annotated[float, Field(ge=0, le=64)] = 8
    wording: dict[Language, Text]
    fill: SolidFill | NoFill = Field(NoFill(), discriminator="kind")
    text_colour: Colour | None = None
    border: Border = LineBorder()
    padding: Padding
    radius: Radius
    size_px: Annotated[float, Field(ge=8, le=72)] = 16
    weight: Annotated[int, Field(ge=100, le=900)] = 600


Second = Annotated[NoSecond | SecondButton, Field(discriminator="kind")]


class Stay(Part):
    """The shopper stays and the button says so."""

    kind: Literal["stay"] = "stay"


class ToBasket(Part):
    kind: Literal["basket"] = "basket"


class ToCheckout(Part):
    kind: Literal["checkout"] = "checkout"


class Standing(Part):
    """How a button stands in its placement: whether at all, and what stands beside it in the sticky bar."""

    shown: bool = True
    name: bool = True
    price: bool = True


# Texts that a narrower rule's text overrides, the nearest first, by moment and language.
Wider = dict[tuple[Moment, str], tuple[str, ...]]


class ButtonDocument(Part):
    """A whole button. Its JSON Schema is published by the studio's API.

    `spoken` is what screen readers call it when it is ready and no words are drawn; the ready text where it is empty.
    """

    look: Look
    icon: Icon
    wording: dict[Moment, dict[Language, Text]]
    placement: Standing = Standing()
    spoken: dict[Language, Text] = Field(default_factory=dict)
    quantity: Annotated[NoQuantity | QuantityBox, Field(discriminator="kind")] = NoQuantity()
    second: Second = NoSecond()
    afterwards: Annotated[Stay | ToBasket | ToCheckout, Field(discriminator="kind")] = Stay()
    # Not a setting, but known from resolving: what is said where a product lacks a value that the text needs.
    _wider: Wider = PrivateAttr(default_factory=dict)
    # Which drawing and which texts these are, for keys; no part of what the document says, so never compared.
    __slots__ = ("_bare", "_said")

    def with_texts(self, wording: dict[Moment, dict[str, str]], wider: Wider, said: int = 0) -> "ButtonDocument":
        """Return the document with other texts, and those that they override; none of them is checked again.

        Args:
            said: A number that stands for these texts, where there is one.
        """
        made = self.model_copy(update={"wording": wording})
        made._wider = wider
        object.__setattr__(made, "_bare", self.bare)
        object.__setattr__(made, "_said", said or new_number())
        return made

    @property
    def wider(self) -> Wider:
        return self._wider

    @property
    def bare(self) -> "ButtonDocument":
        """Return the document as far as it is drawn: one and the same for all that differ in their texts alone.

        What depends on no text is worked out of it, once for all of them.
        """
        return _slot(self, "_bare") or self

    @property
    def drawn_number(self) -> int:
        """Return a number that stands for how it is drawn, for keys; it is never given to another drawing."""
        return self.bare.derived(_new_number)

    @property
    def said_number(self) -> int:
        """Return a number that stands for what it says, for keys."""
        return _slot(self, "_said") or self.derived(_new_number)

    def texts(self, moment: Moment, language: str) -> tuple[str, ...]:
        """Return a moment's text in a language and those of wider rules, the nearest first, where it has any."""
        text = self.wording.get(moment, {}).get(language)
        return (text, *self._wider.get((moment, language), ())) if text else ()

    @property
    def is_wordless(self) -> bool:
        """Tell whether its words are only read out."""
        fill = self.look.fill
        alone = isinstance(self.icon, ShippedIcon | OwnIcon) and self.icon.side == "alone"
        return alone or (isinstance(fill, PictureFill) and fill.instead)


_numbers = count(1)


def new_number() -> int:
    """Return a number that nothing else has in this process."""
    return next(_numbers)


def _new_number(_: ButtonDocument) -> int:
    return new_number()


def _slot(document: ButtonDocument, name: str) -> Any:
    """Return what a slot holds, or None where nothing is; a plain look-up would go through all of Pydantic."""
    try:
        return object.__getattribute__(document, name)
    except AttributeError:
        return None


# Values that a layer replaces whole: to change a part of one is to write all of it.
WHOLE_FIELDS = (
    "icon",
    "look.size",
    "look.radius",
    "look.fill",
    "look.border",
    "look.shadows",
    "look.motion",
    *(f"look.{state}.{part}" for state in STATES for part in ("fill", "border", "shadows", "motion")),
    "quantity",
    "second",
    "afterwards",
)


def parse_document(raw: Any) -> ButtonDocument:
    """Return the document that `raw` describes.

    Raises:
        BadDocument: With `field`, and a sentence that says what is allowed there.
    """
    try:
        return ButtonDocument.model_validate(raw)
    except ValidationError as error:
        raise _bad(error) from error


# The plainest whole button: what one layer sets is tried on it, so that each layer is right by itself.
_PLAINEST: dict[str, Any] = {
    "look": {
        "size": {"kind": "natural"},
        "padding": {"top": 12, "right": 20, "bottom": 12, "left": 20},
        "radius": 4,
        "fill": {"kind": "solid", "colour": "#14202b"},
        "type": {"family": "figtree", "size_px": 16, "weight": 600},
    },
    "icon": {"kind": "none"},
    "wording": {"ready": {"en": "Buy"}},
}


def require_layer(layer: dict[str, Any]) -> None:
    """Refuse a layer whose values could never be part of a button, whether or not it counts now.

    Raises:
        BadDocument: With `field`, and a sentence that says what is allowed there.
    """
    if unfit := unfit_value(layer):
        raise BadDocument(f"{unfit}.", field="")
    parse_document(merge_layer(_PLAINEST, {key: value for key, value in layer.items() if key != "uses"}))
    if not isinstance(layer.get("uses", ""), str):
        raise BadDocument("uses: it names a look that is kept.", field="uses")


def _bad(error: ValidationError, inside: str = "") -> BadDocument:
    first = error.errors(include_url=False)[0]
    field = inside + ".".join(str(step) for step in first["loc"])
    value = first.get("input")
    seen = "" if isinstance(value, dict | list) or first["type"] == "missing" else f"; it is {value!r}"
    return BadDocument(f"{field}: {first['msg']}{seen}.", field=field)


_WORDING: TypeAdapter[dict[Moment, dict[str, str]]] = TypeAdapter(dict[Moment, dict[Language, Text]])


def wording_of(layer: dict[str, Any]) -> dict[Moment, dict[str, str]]:
    """Return the texts that one layer sets.

    Raises:
        BadDocument: They are no texts by moment and language.
    """
    try:
        return _WORDING.validate_python(layer.get("wording", {}))
    except ValidationError as error:
        raise _bad(error, "wording.") from error


_STATE_SAYS = {
    "hover": "when hovered",
    "pressed": "while pressed",
    "focus": "when focused",
    "disabled": "when sold out",
    "working": "while working",
    "added": "once added",
}
_PART_SAYS = {
    "fill": "fill",
    "text_colour": "words' colour",
    "border": "border",
    "shadows": "shadows",
    "opacity": "opacity",
    "motion": "transition",
}
_NAMES = {
    "look.size": "size",
    "look.padding.top": "padding above",
    "look.padding.right": "padding right",
    "look.padding.bottom": "padding below",
    "look.padding.left": "padding left",
    "look.radius": "corner radius",
    "look.type.family": "type family",
    "look.type.size_px": "type size",
    "look.type.weight": "type weight",
    "look.type.line": "line height",
    "look.type.letter_spacing_px": "letter spacing",
    "look.type.case": "capitals",
    "look.centring": "centring",
    "look.wrap": "wrapping",
    **{f"look.{part}": said for part, said in _PART_SAYS.items()},
    **{
        f"look.{state}.{part}": f"{said} {when}"
        for state, when in _STATE_SAYS.items()
        for part, said in _PART_SAYS.items()
    },
    "look.focus.ring_colour": "focus ring",
    "look.focus.ring_width_px": "focus ring's width",
    "look.focus.ring_offset_px": "focus ring's distance",
    "look.working.tell": "what moves while working",
    "look.added.tell": "what moves once added",
    "icon": "icon",
    "uses": "named look",
    "placement.shown": "whether it stands",
    "placement.name": "name beside it",
    "placement.price": "price beside it",
    "quantity": "quantity box",
    "second": "second button",
    "afterwards": "afterwards",
}


def field_name(path: str) -> str:
    """Return what a designer calls a field, for example `words: sold out, en-GB`."""
    if path.startswith("wording."):
        _, moment, *language = path.split(".")
        return ", ".join([f"words: {moment.replace('_', ' ')}", *language])
    if path.startswith("spoken."):
        return f"name for screen readers, {path.removeprefix('spoken.')}"
    return _NAMES.get(path, path)


def value_text(value: Any) -> str:
    """Return a field's value as a designer would say it."""
    if value is None:
        return "nothing"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, dict):
        return _tagged_text(value)
    if isinstance(value, str):
        return value if value.startswith("#") or _BARE.match(value) else f"“{value}”"
    return f"{value:g}" if isinstance(value, float | int) else str(value)


_BARE = re.compile(r"^[\d.]+(%|em|vw)$")


def _px_text(value: float | str) -> str:
    return value if isinstance(value, str) else f"{value:g}"


def _tagged_text(value: dict[str, Any]) -> str:
    """Return a value that names its own kind in words."""
    match value:
        case {"kind": "natural" | "full" as kind, **more}:
            said = "natural" if kind == "natural" else "full width"
            least = f", at least {_px_text(more['least'])}" if more.get("least") else ""
            return said + least + (f", at most {_px_text(more['most'])}" if more.get("most") else "")
        case {"kind": "fixed", "width": width, "height": height}:
            return f"{_px_text(width)} × {height:g} px"
        case {"kind": "corners", **each}:
            names = ("top_left", "top_right", "bottom_right", "bottom_left")
            return " ".join(_px_text(each[name]) for name in names)
        case {"kind": "solid", "colour": colour}:
            return str(colour)
        case {"kind": "linear" | "radial" as kind, "stops": stops}:
            return f"{kind} gradient " + " to ".join(stop["colour"] for stop in stops)
        case {"kind": "picture"}:
            return "picture"
        case {"kind": "line", "width_px": width, **more}:
            return f"{width:g} px {more.get('style', 'solid')} {more.get('colour') or 'from the fill'}"
        case {"kind": "cast", "list": cast}:
            return f"{len(cast)} shadow{'' if len(cast) == 1 else 's'}" if cast else "none"
        case {"kind": "motion", "duration_ms": duration, "curve": curve, **more}:
            late = f" after {more['delay_ms']} ms" if more.get("delay_ms") else ""
            return f"{duration} ms {curve}{late}"
        case {"kind": "none"}:
            return "none"
        case {"kind": "rule"}:
            return "by rule"
        case {"kind": "box", "least": least, "most": most, "step": step, "start": start}:
            return f"{least} to {most} in steps of {step}, {start} at first"
        case {"kind": "stay"}:
            return "stay on the page"
        case {"kind": "checkout", "wording": wording, "side": side}:
            return f"“{next(iter(wording.values()), '')}” {side} it"
        case {"kind": "basket" | "checkout" as goal}:
            return f"go to the {goal}"
        case {"kind": "shipped" | "own", "name": name, "side": "alone", "size_px": size}:
            return f"{name} without words, {size:g} px"
        case {"kind": "shipped" | "own", "name": name, "side": side, "size_px": size, "gap_px": gap}:
            return f"{name} {side} the words, {size:g} px, gap {gap:g}"
        case _:
            return str(value)
