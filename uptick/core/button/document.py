"""The button document: everything that can be said about one purchase button."""

from enum import StrEnum
from itertools import count
from typing import Annotated, Any, Literal

from pydantic import (
    Field,
    PrivateAttr,
    StringConstraints,
    TypeAdapter,
    ValidationError,
    field_validator,
    model_validator,
)

from uptick.core.button.bar import Bar
from uptick.core.button.floating import Floating
from uptick.core.button.look import (
    Border,
    LineBorder,
    Look,
    NoFill,
    Padding,
    Part,
    PictureFill,
    Radius,
    SeeThrough,
    SolidFill,
)
from uptick.core.button.merge import merge_layer
from uptick.core.button.message import ToMessage
from uptick.core.button.on_pages import OnPages
from uptick.core.button.over import Over
from uptick.core.button.plain_text import unfit_value
from uptick.core.button.sheet import Sheet
from uptick.core.errors import BadDocument


class Placement(StrEnum):
    PRODUCT_PAGE = "product_page"
    LISTING_CARD = "listing_card"
    STICKY_BAR = "sticky_bar"
    STRIP = "strip"
    OVER_PICTURE = "over_picture"
    FLOATING = "floating"
    TILE = "tile"
    # On pages and in mails that are not the shop's: no script stands it there.
    OUTSIDE = "outside"


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


# The width of the window from which on a device is meant, in CSS pixels.
DEVICE_FROM_PX = {Device.PHONE: 0, Device.TABLET: 600, Device.DESKTOP: 1024}


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
    """A second button beside the first or under it; its type family is the first's.

    `checkout` goes straight to the checkout, `closer` opens a closer look at the product without leaving the page.
    With `first` it stands before the main one. With `share` both are equally wide where the first is of full width.
    """

    kind: Literal["checkout", "closer"] = "checkout"
    side: Literal["beside", "under"] = "beside"
    first: bool = False
    share: bool = False
    gap_px: Annotated[float, Field(ge=0, le=64)] = 8
    wording: dict[Language, Text]
    fill: SolidFill | NoFill = Field(NoFill(), discriminator="kind")
    text_colour: SeeThrough | None = None
    border: Border = LineBorder()
    padding: Padding
    radius: Radius
    size_px: Annotated[float, Field(ge=8, le=72)] = 16
    weight: Annotated[int, Field(ge=100, le=900)] = 600


Second = Annotated[NoSecond | SecondButton, Field(discriminator="kind")]


class Stay(Part):
    """The shopper stays and the button says so."""

    kind: Literal["stay"] = "stay"


class CountRises(Part):
    """The shopper stays, and nothing but the count in the basket changes: the button goes on to say that at once."""

    kind: Literal["count"] = "count"


# A path of the shop's own and the names of fields, as a connection has them (`uptick.core.shop.connection`).
OwnPath = Annotated[str, StringConstraints(pattern=r"^/([^/\s]\S*)?$", max_length=300)]
OwnField = Annotated[str, StringConstraints(pattern=r"^[A-Za-z_][\w\-\[\].:]{0,60}$")]


class TellWhenBack(Part):
    """Where a product is sold out, a press asks for a mail address, which is sent to the shop's own `path` alone.

    `mail_field` and `product_field` are what the shop calls the address and the product there. A product that can be
    bought goes to the basket as with `stay`.
    """

    kind: Literal["notify"] = "notify"
    path: OwnPath
    mail_field: OwnField = "email"
    product_field: OwnField = "product"


SheetText = Annotated[str, StringConstraints(max_length=60)]


class BasketSays(Part):
    """What a basket that is shown says in one language, where that is not the usual; empty is the usual."""

    heading: SheetText = ""
    to_basket: SheetText = ""
    to_checkout: SheetText = ""
    go_on: SheetText = ""


class ShowBasket(Part):
    """The basket is shown on the page, at its side or in its middle.

    `free_from` is the sum from which delivery is free, in the store's currency; nothing is said of it without one.
    `says` are words of the store's own by language; the usual ones stand in.
    """

    kind: Literal["show"] = "show"
    where: Literal["side", "middle"] = "side"
    free_from: Annotated[float, Field(gt=0, le=1_000_000)] | None = None
    says: dict[Language, BasketSays] = Field(default_factory=dict)


class ToBasket(Part):
    kind: Literal["basket"] = "basket"


class ToCheckout(Part):
    kind: Literal["checkout"] = "checkout"


# A selector of a card, of the characters that neither end a rule nor begin another.
CardSelector = Annotated[str, StringConstraints(pattern=r"""^[\w\-.#*>:~+^$|=()\[\], "']*$""", max_length=300)]


class Standing(Part):
    """How a button stands in its placement: whether at all.

    `level` is what the cards are called whose buttons our script sets level in a row, empty where it leaves them as
    they are; with `stretch` it makes the cards of a row equally high first. `product` is the code of the one
    product that something at the window stands for on the `pages` that are meant, empty where it follows the page.
    """

    shown: bool = True
    product: Annotated[str, StringConstraints(max_length=200)] = ""
    pages: OnPages = OnPages()
    level: CardSelector = ""
    stretch: bool = False

    @field_validator("level")
    @classmethod
    def _is_closed(cls, level: str) -> str:
        # What is left open would take the rules after it along.
        pairs = (("(", ")"), ("[", "]"))
        if any(level.count(mark) % 2 for mark in "\"'") or any(level.count(a) != level.count(b) for a, b in pairs):
            raise ValueError("a quote or a bracket is left open")
        return level


# Texts that a narrower rule's text overrides, the nearest first, by moment and language.
Wider = dict[tuple[Moment, str], tuple[str, ...]]


class ButtonDocument(Part):
    """A whole button. Its JSON Schema is published by the studio's API.

    `bar` is what stands around it in the sticky bar, `floating` its corner of the window, `over` its spot on a picture;
    each counts only in its own placement. `sheet` is how what opens after a press is drawn. `choosing` is where a
    shopper chooses who is in a list: on the product's page, on a small sheet over the card, or in the window's middle.
    `spoken` is what screen readers call it when it is ready and no words are drawn; the ready text where it is empty.
    """

    look: Look
    icon: Icon
    wording: dict[Moment, dict[Language, Text]]
    placement: Standing = Standing()
    bar: Bar = Bar()
    floating: Floating = Floating()
    over: Over = Over()
    sheet: Sheet = Sheet()
    choosing: Literal["page", "card", "middle"] = "page"
    spoken: dict[Language, Text] = Field(default_factory=dict)
    quantity: Annotated[NoQuantity | QuantityBox, Field(discriminator="kind")] = NoQuantity()
    second: Second = NoSecond()
    afterwards: Annotated[
        Stay | CountRises | ShowBasket | TellWhenBack | ToBasket | ToCheckout | ToMessage, Field(discriminator="kind")
    ] = Stay()
    # Not a setting, but known from resolving: what is said where a product lacks a value that the text needs.
    _wider: Wider = PrivateAttr(default_factory=dict)
    # Which drawing and which texts these are, for keys; no part of what the document says, so never compared.
    __slots__ = ("_bare", "_said")

    def with_texts(self, wording: dict[Moment, dict[str, str]], wider: Wider, stamp: int = 0) -> "ButtonDocument":
        """Return the document with other texts, and those that they override; none of them is checked again.

        Args:
            said: A number that stands for these texts, where there is one.
        """
        copy = self.model_copy(update={"wording": wording})
        copy._wider = wider
        object.__setattr__(copy, "_bare", self.bare)
        object.__setattr__(copy, "_said", stamp or new_number())
        return copy

    @property
    def wider(self) -> Wider:
        """Texts of wider layers, by moment and language: said where a product lacks a value that its own text needs."""
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
    # Ours are sentences of their own; Pydantic puts a word before them.
    says = first["msg"].removeprefix("Value error, ")
    return BadDocument(f"{field}: {says}{seen}.", field=field)


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
