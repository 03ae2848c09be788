"""How a shop's basket is told "one more of this", and how it says what is in it."""

import re
from collections.abc import Mapping
from typing import Annotated, Any, Literal

from pydantic import Field, StringConstraints, field_validator, model_validator

from uptick.core.button.look import Part

FieldName = Annotated[str, StringConstraints(pattern=r"^[A-Za-z_][\w\-\[\].:]{0,60}$")]
ShopPath = Annotated[str, StringConstraints(pattern=r"^/([^/\s]\S*)?$", max_length=300)]
HeaderName = Annotated[str, StringConstraints(pattern=r"^[A-Za-z][A-Za-z0-9\-]{0,60}$")]
# Names joined by points, as in `cart.lines`; empty is the answer itself.
Dotted = Annotated[str, StringConstraints(pattern=r"^([\w\-]+(\.[\w\-]+)*)?$", max_length=120)]
MOST_BODY = 2000
_HOLE = re.compile(r"\{([^{}]*)\}")
HOLES = ("product", "quantity", "option")


class TokenSource(Part):
    """Where the shop's page carries a word that it wants back with a press, against forged requests.

    `sent_as` says whether it goes back as a field of the form or as a header, under `sent_name`. A form that carries it
    itself needs none of this: all of a form's fields are sent.
    """

    source: Literal["meta", "cookie", "field"]
    source_name: FieldName
    sent_as: Literal["field", "header"]
    sent_name: HeaderName | FieldName


class BasketJson(Part):
    """A basket that tells as JSON what is in it; the parts of the answer are named by dotted names."""

    kind: Literal["json"] = "json"
    path: ShopPath
    count: Dotted = "count"
    items: Dotted = "items"
    product: Dotted = "sku"
    option: Dotted = "option"
    quantity: Dotted = "quantity"
    # Of each line, for a basket that is shown: what changes ask for it by, its name, picture, page, and its sum.
    line: Dotted | None = None
    name: Dotted | None = None
    picture: Dotted | None = None
    page: Dotted | None = None
    amount: Dotted | None = None
    # The whole basket's sum.
    sum: Dotted | None = None
    # Amounts are told in the currency's smallest unit.
    smallest: bool | None = None


class BasketPage(Part):
    """A basket that tells how much is in it on a page only: the first whole number in an element is the count."""

    kind: Literal["page"] = "page"
    path: ShopPath
    selector: Annotated[str, StringConstraints(min_length=1, max_length=300)]


BasketRead = Annotated[BasketJson | BasketPage, Field(discriminator="kind")]


class BasketChange(Part):
    """How the quantity of a line is set; 0 takes it out.

    `path` and the texts of `body` hold {quantity}, and {line}, {product} or {option}, as with a press. The body goes as
    a form's fields or as JSON, and with the same word against forged requests.
    """

    # Braces make it a pattern, so that it is checked without them.
    path: Annotated[str, StringConstraints(pattern=r"^/([^/\s]\S*)?$", max_length=300)]
    method: Literal["POST", "PUT", "PATCH"] = "POST"
    sent_as: Literal["form", "json"] = "form"
    body: dict[str, Any] = Field(default_factory=dict)

    @model_validator(mode="after")
    def _says_what(self) -> "BasketChange":
        texts = [self.path, *_texts(self.body)]
        if len("".join(texts)) > MOST_BODY:
            raise ValueError(f"The body is longer than {MOST_BODY} characters.")
        for text in texts:
            _check_holes(text, (*HOLES, "line"))
        if not any("{quantity" in text for text in texts):
            raise ValueError("A change must say how many: put {quantity} where that belongs.")
        if not any("{line" in text or "{product" in text for text in texts):
            raise ValueError("A change must say which line: put {line} or {product} where that belongs.")
        if self.sent_as == "form" and any(isinstance(value, dict | list) for value in self.body.values()):
            raise ValueError("A form's fields are texts and numbers; what is nested goes as JSON.")
        return self


class VariantsJson(Part):
    """An address that tells the kinds of a product as JSON, where its page tells them neither in a form nor as data.

    `path` holds {product}. Of each kind, `product` is its code, `options` what it is told apart by, `price` what it
    costs, `picture` the address of its picture, and `available` a number or a yes or no; a 0 and a no are sold out.
    """

    path: Annotated[str, StringConstraints(pattern=r"^/([^/\s]\S*)?$", max_length=300)]
    items: Dotted = ""
    product: Dotted = "sku"
    options: Annotated[tuple[Dotted, ...], Field(min_length=1, max_length=5)]
    price: Dotted | None = None
    available: Dotted | None = None
    picture: Dotted | None = None
    # Prices are told in the currency's smallest unit.
    smallest: bool | None = None

    @field_validator("path")
    @classmethod
    def _names_product(cls, path: str) -> str:
        _check_holes(path, ("product",))
        if "{product}" not in path:
            raise ValueError("The address must say which product: put {product} where its code belongs.")
        return path


class _Basket(Part):
    """What every basket has. Field names are those of the page's own form; empty where it has none of the kind.

    `basket_path` is the page on which a shopper sees the basket. Without `read` nobody can tell what came of a press
    that the shop did not answer as JSON. Without `change` a basket that is shown can only be looked at.
    """

    product_field: FieldName | Literal[""] = ""
    option_fields: tuple[FieldName, ...] = ()
    quantity_field: FieldName | Literal[""] = ""
    token: TokenSource | None = None
    read: BasketRead | None = None
    change: BasketChange | None = None
    variants: VariantsJson | None = None
    basket_path: ShopPath = "/basket"
    checkout_path: ShopPath = "/checkout"


class FormPost(_Basket):
    """A basket that takes the fields of a form."""

    kind: Literal["form_post"] = "form_post"
    add_path: ShopPath
    product_field: FieldName
    quantity_field: FieldName | Literal[""] = "quantity"


def _check_holes(text: str, allowed: tuple[str, ...]) -> None:
    for hole in _HOLE.findall(text):
        if hole.removesuffix(":number").removesuffix(":text") not in allowed and not hole.startswith("field "):
            raise ValueError(
                f"{{{hole}}} is not known. Allowed are {', '.join(f'{{{name}}}' for name in allowed)} and "
                "{field …} with the name of one of the page's fields."
            )


class JsonCall(_Basket):
    """A basket that takes JSON. In `body`, texts hold {product}, {quantity}, {option} or {field …}.

    A text that is nothing but {quantity} becomes a number; {product:number} does too, and {quantity:text} stays a text.
    """

    kind: Literal["json_call"] = "json_call"
    method: Literal["POST", "PUT", "PATCH"] = "POST"
    add_path: ShopPath
    body: dict[str, Any]

    @field_validator("body")
    @classmethod
    def _bounded(cls, body: dict[str, Any]) -> dict[str, Any]:
        texts = [*_texts(body)]
        if len("".join(texts)) > MOST_BODY:
            raise ValueError(f"The body is longer than {MOST_BODY} characters.")
        for text in texts:
            _check_holes(text, HOLES)
        if not any("{product" in text for text in texts):
            raise ValueError("The body must say which product: put {product} where its code belongs.")
        return body


def _texts(value: Any, depth: int = 0) -> list[str]:
    if depth > 6:
        raise ValueError("The body is nested deeper than six times.")
    if isinstance(value, str):
        return [value]
    inside = list(value.values()) if isinstance(value, Mapping) else value if isinstance(value, list) else []
    return [text for item in inside for text in _texts(item, depth + 1)]


class BasketLink(_Basket):
    """A basket that takes a plain link; `add_path` holds {product} and may hold {quantity}, {option} and {field …}."""

    kind: Literal["basket_link"] = "basket_link"
    # Braces make it a pattern, so that it is checked without them.
    add_path: Annotated[str, StringConstraints(pattern=r"^/([^/\s].*)?$", max_length=300)]

    @model_validator(mode="after")
    def _names_product(self) -> "BasketLink":
        _check_holes(self.add_path, HOLES)
        if "{product}" not in self.add_path:
            raise ValueError("The link must say which product: put {product} where its code belongs.")
        return self


BasketConnection = Annotated[FormPost | JsonCall | BasketLink, Field(discriminator="kind")]
