"""The button document: everything that can be said about one purchase button."""

from enum import StrEnum
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, TypeAdapter, ValidationError, model_validator

from uptick.core.errors import BadDocument


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


Family = Literal["figtree", "lora", "archivo"]
Colour = Annotated[str, StringConstraints(pattern=r"^#[0-9a-f]{6}$")]
Text = Annotated[str, StringConstraints(max_length=200)]
Language = Annotated[str, StringConstraints(pattern=r"^[a-z]{2}(-[A-Z]{2})?$")]
Px = Annotated[float, Field(ge=0, le=400)]


class Part(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


class NaturalSize(Part):
    kind: Literal["natural"] = "natural"


class FullSize(Part):
    kind: Literal["full"] = "full"


class FixedSize(Part):
    kind: Literal["fixed"] = "fixed"
    width_px: Annotated[float, Field(ge=16, le=1200)]
    height_px: Annotated[float, Field(ge=16, le=400)]


class SolidFill(Part):
    kind: Literal["solid"] = "solid"
    colour: Colour


class Padding(Part):
    top_px: Px
    right_px: Px
    bottom_px: Px
    left_px: Px


class Type(Part):
    family: Family
    size_px: Annotated[float, Field(ge=8, le=72)]
    weight: Annotated[int, Field(ge=100, le=900)]


class StateLook(Part):
    fill: SolidFill
    text_colour: Colour


class FocusLook(StateLook):
    ring_colour: Colour


class Look(Part):
    size: Annotated[NaturalSize | FullSize | FixedSize, Field(discriminator="kind")]
    padding: Padding
    radius_px: Px
    fill: SolidFill
    text_colour: Colour
    type: Type
    hover: StateLook
    focus: FocusLook
    disabled: StateLook


class NoIcon(Part):
    kind: Literal["none"] = "none"


class ShippedIcon(Part):
    kind: Literal["shipped"] = "shipped"
    name: Annotated[str, StringConstraints(max_length=40)]
    side: Literal["before", "after"] = "before"
    size_px: Annotated[float, Field(ge=8, le=96)] = 18
    gap_px: Annotated[float, Field(ge=0, le=64)] = 8


class NoQuantity(Part):
    kind: Literal["none"] = "none"


class QuantityBox(Part):
    """A number of pieces to the left of the button, in the direction of reading, as high as the button."""

    kind: Literal["box"] = "box"
    least: Annotated[int, Field(ge=1, le=9999)] = 1
    most: Annotated[int, Field(ge=1, le=9999)] = 99
    step: Annotated[int, Field(ge=1, le=999)] = 1
    start: Annotated[int, Field(ge=1, le=9999)] = 1
    width_px: Annotated[float, Field(ge=32, le=200)] = 64

    @model_validator(mode="after")
    def _in_order(self) -> "QuantityBox":
        if not self.least <= self.start <= self.most:
            raise ValueError(f"start must be from least ({self.least}) to most ({self.most}); it is {self.start}")
        if (self.start - self.least) % self.step:
            raise ValueError(f"start must be least plus whole steps of {self.step}; it is {self.start}")
        return self


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


class ButtonDocument(Part):
    """A whole button. Its JSON Schema is published by the studio's API."""

    look: Look
    icon: Annotated[NoIcon | ShippedIcon, Field(discriminator="kind")]
    wording: dict[Moment, dict[Language, Text]]
    placement: Standing = Standing()
    quantity: Annotated[NoQuantity | QuantityBox, Field(discriminator="kind")] = NoQuantity()
    afterwards: Annotated[Stay | ToBasket | ToCheckout, Field(discriminator="kind")] = Stay()


# Values that a layer replaces whole: to change a part of one is to write all of it.
WHOLE_FIELDS = (
    "icon",
    "look.size",
    "look.fill",
    "look.hover.fill",
    "look.focus.fill",
    "look.disabled.fill",
    "quantity",
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


_NAMES = {
    "look.size": "size",
    "look.padding.top_px": "padding above",
    "look.padding.right_px": "padding right",
    "look.padding.bottom_px": "padding below",
    "look.padding.left_px": "padding left",
    "look.radius_px": "corner radius",
    "look.fill": "fill",
    "look.text_colour": "words' colour",
    "look.type.family": "type family",
    "look.type.size_px": "type size",
    "look.type.weight": "type weight",
    "look.hover.fill": "fill when hovered",
    "look.hover.text_colour": "words' colour when hovered",
    "look.focus.fill": "fill when focused",
    "look.focus.text_colour": "words' colour when focused",
    "look.focus.ring_colour": "focus ring",
    "look.disabled.fill": "fill when sold out",
    "look.disabled.text_colour": "words' colour when sold out",
    "icon": "icon",
    "placement.shown": "whether it stands",
    "placement.name": "name beside it",
    "placement.price": "price beside it",
    "quantity": "quantity box",
    "afterwards": "afterwards",
}


def field_name(path: str) -> str:
    """Return what a designer calls a field, for example `words: sold out, en-GB`."""
    if path.startswith("wording."):
        _, moment, language = path.split(".")
        return f"words: {moment.replace('_', ' ')}, {language}"
    return _NAMES.get(path, path)


def value_text(value: Any) -> str:
    """Return a field's value as a designer would say it."""
    match value:
        case True:
            return "yes"
        case False:
            return "no"
        case None:
            return "nothing"
        case {"kind": "natural"}:
            return "natural"
        case {"kind": "full"}:
            return "full width"
        case {"kind": "fixed", "width_px": width, "height_px": height}:
            return f"{width:g} × {height:g} px"
        case {"kind": "solid", "colour": colour}:
            return str(colour)
        case {"kind": "none"}:
            return "none"
        case {"kind": "box", "least": least, "most": most, "step": step, "start": start}:
            return f"{least} to {most} in steps of {step}, {start} at first"
        case {"kind": "stay"}:
            return "stay on the page"
        case {"kind": "basket" | "checkout" as goal}:
            return f"go to the {goal}"
        case {"kind": "shipped", "name": name, "side": side, "size_px": size, "gap_px": gap}:
            return f"{name} {side} the words, {size:g} px, gap {gap:g}"
        case str():
            return f"“{value}”" if not value.startswith("#") else value
        case float() | int():
            return f"{value:g}"
        case _:
            return str(value)
