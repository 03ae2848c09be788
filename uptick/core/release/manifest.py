"""What the script is told about its store, as types: the script's own are made from these.

Everything here is what travels; a store's release is kept in this form, and the edge adds where it is served from.
"""

from typing import Literal, NotRequired

from typing_extensions import TypeAliasType, TypedDict

from uptick.core.drawing.compile import CompiledButton, WirePattern
from uptick.core.drawing.row import WireRow
from uptick.core.shop.connection import BasketLink, FormPost, JsonCall

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
    """`box` is what a quantity box and its keys are usually called, where the store has one.

    `plurals` are the plural categories of 0 to 199, each a figure.
    """

    money: WireMoney
    rtl: bool
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


class WireToken(TypedDict):
    source: Literal["meta", "cookie", "field"]
    source_name: str
    sent_as: Literal["field", "header"]
    sent_name: str


class WireRead(TypedDict):
    """How the basket says what is in it: as JSON with dotted names of its parts, or on a page by a selector."""

    kind: Literal["json", "page"]
    path: str
    count: NotRequired[str]
    items: NotRequired[str]
    product: NotRequired[str]
    option: NotRequired[str]
    quantity: NotRequired[str]
    selector: NotRequired[str]
    line: NotRequired[str]
    name: NotRequired[str]
    picture: NotRequired[str]
    page: NotRequired[str]
    amount: NotRequired[str]
    sum: NotRequired[str]
    smallest: NotRequired[bool]


class WireVariants(TypedDict):
    """Where the kinds of a product are told; see `VariantsJson`."""

    path: str
    items: str
    product: str
    options: list[str]
    price: NotRequired[str]
    available: NotRequired[str]
    picture: NotRequired[str]
    smallest: NotRequired[bool]


class WireChange(TypedDict):
    """How the quantity of a line is set; see `BasketChange`."""

    path: str
    method: str
    sent_as: Literal["form", "json"]
    body: dict[str, object]


class WireBasket(TypedDict):
    """How a press reaches the shop's basket; see `uptick.core.shop.connection`."""

    kind: Literal["form_post", "json_call", "basket_link"]
    add_path: str
    method: NotRequired[str]
    body: NotRequired[dict[str, object]]
    product_field: str
    option_fields: list[str]
    quantity_field: str
    token: NotRequired[WireToken]
    read: NotRequired[WireRead]
    change: NotRequired[WireChange]
    variants: NotRequired[WireVariants]
    basket_path: str
    checkout_path: str


def wire_basket(connection: FormPost | JsonCall | BasketLink) -> WireBasket:
    """Return a connection as the script is told it."""
    wire: WireBasket = connection.model_dump(mode="json", exclude_none=True)  # type: ignore[assignment]
    return wire


class WireFont(TypedDict):
    family: str
    weight: str
    range: str
    file: str


class WirePages(TypedDict):
    """Pages by what they are about and by their paths, as regular expressions; what is not told narrows nothing."""

    kinds: NotRequired[list[str]]
    paths: NotRequired[str]
    not_paths: NotRequired[str]


class WireFixed(WirePages):
    """A product that something hangs for, its page, and where it hangs; an empty path is of one that has no page."""

    sku: str
    path: str


class WirePlace(TypedDict):
    """`looks` are places in the table of looks, by the class's key; `fixed` is the one product that it stands for."""

    looks: dict[str, int]
    words: Words
    fixed: NotRequired[WireFixed]


class WirePointed(WirePages):
    """A place that was pointed at; `link` is a regular expression whose first group is the code.

    With a `row` it brings its products itself.
    """

    place: str
    selector: str
    where: Literal["before", "after", "inside", "instead"]
    reach: NotRequired[WireReach]
    attribute: NotRequired[str]
    link: NotRequired[str]
    address: NotRequired[bool]
    row: NotRequired[WireRow]


# What `bar` of a release says.
HANGS_WITH_OWN, HANGS_ANYWHERE = 1, 2


class CompiledRelease(TypedDict):
    """A draft compiled; `rules` stand in the order in which they apply: the last that covers wins.

    `css` are rules for the shop's own page, which level its rows of cards. `bar` is 1 where something hangs with the
    page's own product, and 2 where something may hang on every page.
    """

    language: str
    languages: dict[str, WireLanguage]
    fonts: list[WireFont]
    base: str
    css: str
    bar: NotRequired[int]
    looks: list[CompiledButton]
    rules: list[WireRule]
    places: dict[str, WirePlace]
    pointed: NotRequired[list[WirePointed]]
    words: Words


class WireLater(TypedDict):
    """The file that is loaded once the buttons stand: its name on the edge, and what it must be."""

    file: str
    integrity: str


class Manifest(CompiledRelease):
    """A release as the edge serves it. A `draft` is looked at by itself, or in a frame of the `studio`.

    `outcomes` say, by language, that nothing was added, that nobody can tell, and where one can look.
    The basket is the store's own: a connection that was mended holds for every release. `more` are files for what
    only some releases have, each loaded when it is first needed; with `soon` even a page without a button of its own
    may come to need one.
    """

    edge: str
    key: str
    basket: WireBasket
    outcomes: dict[str, tuple[str, str, str]]
    later: WireLater
    more: dict[str, WireLater]
    soon: NotRequired[bool]
    release: int
    trials: list[WireTrial]
    draft: NotRequired[bool]
    studio: NotRequired[str]
