"""What the script is told about its store, as types: the script's own are made from these.

Everything here is what travels; a store's release is kept in this form, and the edge adds where it is served from.
"""

from typing import NotRequired

from typing_extensions import TypeAliasType, TypedDict

from uptick.core.drawing.compile import CompiledButton, WirePattern

# Texts of one layer, by moment and language.
Words = TypeAliasType("Words", dict[str, dict[str, WirePattern]])
# Lists by dimension; what is not there narrows nothing, and `not_…` takes away.
WireReach = TypeAliasType("WireReach", dict[str, list[str]])
# Looks by placement and by the class's key.
VersionLooks = TypeAliasType("VersionLooks", dict[str, dict[str, CompiledButton]])


class WireMoney(TypedDict):
    """How a language writes an amount; one in another currency than `currency` is not written by this rule."""

    currency: NotRequired[str]
    prefix: str
    suffix: str
    minus: str
    decimal: str
    group: str
    primary: int
    secondary: int
    digits: int


class WireLanguage(TypedDict):
    """`outcomes` are what is said when a press was refused, when nobody knows what came of it, and what leads on then.

    `box` is what a quantity box and its keys are usually called, where the store has one; `plurals` are the plural
    categories of 0 to 199, each a figure.
    """

    money: WireMoney
    rtl: bool
    outcomes: NotRequired[tuple[str, str, str]]
    box: NotRequired[tuple[str, str, str]]
    plurals: str


# An exception, with the milliseconds since 1970 between which it counts. `from` is a word of Python's own.
WireRule = TypedDict(
    "WireRule",
    {
        "id": str,
        "reach": WireReach,
        "look": NotRequired[bool],
        "words": NotRequired[Words],
        "from": NotRequired[int],
        "until": NotRequired[int],
    },
)


class WireVersion(TypedDict):
    words: Words
    looks: VersionLooks


class WireTrial(TypedDict):
    id: str
    running: bool
    salt: str
    shares: dict[str, float]
    reach: WireReach
    B: WireVersion


class WireBasket(TypedDict):
    """How a press reaches the shop's basket; without a page of its own the basket is the path that is read."""

    kind: NotRequired[str]
    add_path: str
    read_path: str
    basket_path: NotRequired[str | None]
    checkout_path: str
    product_field: str
    option_field: str
    quantity_field: str


class WireFont(TypedDict):
    family: str
    weight: str
    range: str
    file: str


class WirePlace(TypedDict):
    """`looks` are places in the table of looks, by the class's key."""

    looks: dict[str, int]
    words: Words


class CompiledRelease(TypedDict):
    """A draft compiled; `rules` stand in the order in which they apply: the last that covers wins."""

    language: str
    languages: dict[str, WireLanguage]
    basket: WireBasket
    fonts: list[WireFont]
    base: str
    bar: NotRequired[str]
    looks: list[CompiledButton]
    rules: list[WireRule]
    places: dict[str, WirePlace]
    words: Words


class Manifest(CompiledRelease):
    """A release as the edge serves it. A `draft` is looked at by itself, or in a frame of the `studio`."""

    edge: str
    key: str
    release: int
    trials: list[WireTrial]
    draft: NotRequired[bool]
    studio: NotRequired[str]
