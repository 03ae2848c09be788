"""What is handed out: a kind of code for one product, its link's name, and where that link leads today."""

import base64
import hashlib
import re
from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated, Literal
from urllib.parse import quote

from pydantic import Field, StringConstraints

from uptick.core.button.document import Language, Situation
from uptick.core.button.look import Part
from uptick.core.errors import OutOfRange
from uptick.core.shop.catalogue import Product
from uptick.core.shop.connection import BasketConnection, BasketLink, FormPost
from uptick.core.shop.store import Store


class OutsideKind(StrEnum):
    """What is copied: an address, a form, a picture with a link, HTML for a page or for a mail, or a code to print."""

    LINK = "link"
    FORM = "form"
    PICTURE = "picture"
    WEB = "web"
    MAIL = "mail"
    PRINT = "print"


Drawn = Literal["as_drawn", "filled", "outlined"]
# Where a press leads: to the product's page, or, where the shop takes that, straight into the basket.
Leads = Literal["page", "basket"]
# A campaign is counted by; it is not shown to shoppers.
Campaign = Annotated[str, StringConstraints(max_length=60, strip_whitespace=True)]
MOST_PRODUCTS = 24


class Order(Part):
    """What a designer asks for: buttons of some products as one kind of code, so many in a row."""

    products: Annotated[
        tuple[Annotated[str, StringConstraints(min_length=1, max_length=200)], ...],
        Field(min_length=1, max_length=MOST_PRODUCTS),
    ]
    kind: OutsideKind = OutsideKind.WEB
    across: Annotated[int, Field(ge=1, le=4)] = 1
    drawn: Drawn = "as_drawn"
    campaign: Campaign = ""
    language: Language | None = None
    leads: Leads = "page"


@dataclass(frozen=True, slots=True)
class Handed:
    """One button that is handed out. Its `id` is made of all the rest, so that the same button has the same link."""

    sku: str
    kind: OutsideKind
    drawn: Drawn
    campaign: str
    language: str
    leads: Leads

    @property
    def id(self) -> str:
        """Ten letters and digits by which a printed code is known: the same for the same thing handed out."""
        parts = "\0".join([self.sku, self.kind, self.drawn, self.campaign, self.language, self.leads])
        # 50 bits: short enough for a small printed code.
        return base64.b32encode(hashlib.sha256(parts.encode()).digest())[:10].decode().lower()


ID = re.compile(r"[a-z2-7]{10}")


def link_of(edge: str, store: str, handed: str) -> str:
    """Return the address of a button that was handed out; it stays the same whatever is released."""
    return f"{edge}/s/{quote(store)}/go/{handed}"


def page_address(store: Store, product: Product) -> str:
    """Return the whole address of a product's page; empty where that is on none of the store's own origins."""
    if product.url.startswith("/") and not product.url.startswith("//"):
        return store.origin + product.url
    return product.url if any(product.url.startswith(f"{origin}/") for origin in store.origins) else ""


def require_page(store: Store, product: Product) -> str:
    """Return the whole address of a product's page.

    Raises:
        OutOfRange: It is not on one of the store's own origins.
    """
    if not (address := page_address(store, product)):
        raise OutOfRange.of(
            f"the page of {product.name}",
            f"on one of the store's own origins, {' or '.join(store.origins)}",
            product.url or "empty",
        )
    return address


_HOLE = re.compile(r"\{([^{}]*)\}")


def require_basket(connection: BasketConnection, product: Product, kind: OutsideKind) -> None:
    """Refuse a button that could not put a product into the basket from outside.

    Raises:
        OutOfRange: With what is allowed instead.
    """

    def refuse(why: str) -> OutOfRange:
        return OutOfRange(f"{product.name} {why} Let it lead to its page.", field="leads", value=kind.value)

    if product.situation is Situation.SOLD_OUT:
        raise refuse("is sold out, and what is sold out never reaches a basket.")
    if kind is OutsideKind.FORM:
        if isinstance(connection, FormPost) and connection.token:
            name = connection.token.source_name
            raise refuse(f"cannot be bought by a form: the shop wants its page's own word ({name}) with every press.")
        if not isinstance(connection, FormPost | BasketLink):
            raise refuse("cannot be bought by a form: the shop's basket takes JSON, which a form does not send.")
        if product.option_values and not _takes_option(connection):
            raise refuse(f"needs a choice ({product.option_name}), which the shop's basket is not told by name.")
        return
    if not isinstance(connection, BasketLink):
        raise refuse("cannot be bought by a link: the shop's basket takes none.")
    if product.option_values:
        raise refuse(f"needs a choice first ({product.option_name}). A form can ask for it.")


def _takes_option(connection: FormPost | BasketLink) -> bool:
    return bool(connection.option_fields) or (isinstance(connection, BasketLink) and "{option}" in connection.add_path)


@dataclass(frozen=True, slots=True)
class Way:
    """Where a press leads. With `keeps_form` the browser sends its form there once more (307)."""

    address: str
    keeps_form: bool = False


def way_of(
    store: Store, product: Product, handed: Handed, *, posted: bool = False, quantity: str = "", option: str = ""
) -> Way | None:
    """Return where a press leads today; None where the product has no page of the store's any more.

    What cannot be bought this way now, since it is sold out or the shop's basket is told otherwise by now, leads to the
    product's page.
    """
    page = page_address(store, product)
    if not page:
        return None
    wants = handed.kind is OutsideKind.FORM or handed.leads == "basket"
    if not wants or product.situation is Situation.SOLD_OUT:
        return Way(page)
    connection = store.connection
    if isinstance(connection, FormPost):
        takes = posted and handed.kind is OutsideKind.FORM and not connection.token
        return Way(store.origin + connection.add_path, keeps_form=True) if takes else Way(page)
    if not isinstance(connection, BasketLink):
        return Way(page)
    if quantity and not re.fullmatch(r"[1-9]\d{0,3}", quantity):
        return Way(page)
    if product.option_values and option not in product.option_values:
        return Way(page)
    values = {"product": product.sku, "quantity": quantity or "1", "option": option}
    path = _HOLE.sub(
        lambda hole: quote(values.get(re.sub(r":(number|text)$", "", hole[1]), ""), safe=""), connection.add_path
    )
    return Way(store.origin + path)
