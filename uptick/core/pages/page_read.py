"""A page of a shop as it was sent: what it tells of its products, its forms, its links and our line."""

import json
import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from typing import Any
from urllib.parse import urlsplit

import soupsieve
from bs4 import BeautifulSoup, Tag

MOST_CHARACTERS = 3_000_000
_LD = 'script[type="application/ld+json"]'
# What baskets are usually called; common practice.
_BASKET = re.compile(r"cart|basket|bag\b|warenkorb|panier|cesta|carrello|koszyk|winkelmand", re.IGNORECASE)
_UNSEEN = {"html", "head", "script", "style", "meta", "link", "title", "base", "noscript", "template"}
_HOLDERS = ("@graph", "itemListElement", "item", "mainEntity", "hasVariant")


@dataclass(frozen=True, slots=True)
class FormField:
    """A field of a form. `values` are what can be chosen; `is_hidden` ones carry something that nobody types."""

    name: str
    kind: str
    value: str
    values: tuple[str, ...] = ()
    is_required: bool = False

    @property
    def is_hidden(self) -> bool:
        """Tell whether a shopper does not see it."""
        return self.kind == "hidden"


@dataclass(frozen=True, slots=True)
class FormRead:
    """`words` are those of its button; `action` is a path or an address, empty where the form has none."""

    action: str
    method: str
    fields: tuple[FormField, ...]
    words: str

    def field(self, name: str) -> FormField | None:
        """Return the first field of a name; None where there is none."""
        return next((field for field in self.fields if field.name == name), None)


@dataclass(frozen=True, slots=True)
class ProductTold:
    """A product as schema.org's data or a place's attributes tell it; texts as they stand there."""

    sku: str
    name: str
    price: str
    currency: str
    availability: str


class PageRead:
    """One page, parsed once. Nothing of it is run: what only a script draws is not there.

    Args:
        path: Where it was found, without query; empty where that does not matter.
    """

    def __init__(self, html: str, path: str = "") -> None:
        self._soup = BeautifulSoup(html[:MOST_CHARACTERS], "lxml")
        self._path = path

    @cached_property
    def title(self) -> str:
        """Return the page's title on one line."""
        return " ".join(self._soup.title.get_text().split()) if self._soup.title else ""

    def count(self, selector: str) -> int:
        """Return how many elements a selector finds.

        Raises:
            ValueError: The selector cannot be read.
        """
        return len(self.select(selector))

    def select(self, selector: str) -> list[Tag]:
        """Return the elements that a selector finds, in the order of the page.

        Raises:
            ValueError: The selector cannot be read.
        """
        try:
            return self._soup.select(selector)
        # The second is how the library tells of pseudo-elements, which it does not read: they are refused in words.
        except (soupsieve.SelectorSyntaxError, NotImplementedError) as error:
            raise ValueError(f"The selector {selector!r} cannot be read: {str(error).splitlines()[0]}") from error

    def words_at(self, selector: str) -> str | None:
        """Return the words of the first element that a selector finds, or None."""
        element = self._soup.select_one(selector) if self.count(selector) else None
        return " ".join(element.get_text(" ").split()) if element else None

    def attribute(self, selector: str, name: str) -> str:
        """Return an attribute of the first element that a selector finds; empty where there is none."""
        element = self._soup.select_one(selector)
        return text_of(element.get(name)) if element else ""

    @cached_property
    def elements(self) -> tuple[Tag, ...]:
        """Every element that could be seen."""
        return tuple(tag for tag in self._soup.find_all() if tag.name not in _UNSEEN)

    @cached_property
    def forms(self) -> tuple[FormRead, ...]:
        """Return every form of the page."""
        return tuple(_form(tag) for tag in self._soup.select("form"))

    @cached_property
    def links(self) -> tuple[tuple[str, str], ...]:
        """Addresses of links with their words, in the order of the page."""
        return tuple((text_of(a.get("href")), " ".join(a.get_text(" ").split())) for a in self._soup.select("a[href]"))

    @cached_property
    def scripts(self) -> tuple[str, ...]:
        """Addresses of the page's scripts."""
        return tuple(text_of(script.get("src")) for script in self._soup.select("script[src]"))

    @cached_property
    def inline_scripts(self) -> tuple[str, ...]:
        """Return the text of every script that the page itself holds."""
        elements = self._soup.select("script:not([src])")
        return tuple(s.get_text() for s in elements if text_of(s.get("type")) in {"", "module", "text/javascript"})

    @cached_property
    def metas(self) -> dict[str, str]:
        """Return what the page's `meta` say, by their names."""
        return {text_of(m.get("name")): text_of(m.get("content")) for m in self._soup.select("meta[name]")}

    @cached_property
    def policy(self) -> str:
        """The content security policy that stands in the page itself."""
        return self.attribute('meta[http-equiv="Content-Security-Policy" i]', "content")

    @cached_property
    def places(self) -> tuple[tuple[str, str], ...]:
        """Placements by our marks, with the code of the product that each tells."""
        marked = self._soup.select("[data-up-place]")
        return tuple((text_of(tag.get("data-up-place")), text_of(tag.get("data-up-product"))) for tag in marked)

    @cached_property
    def has_password_form(self) -> bool:
        """Tell whether the page asks for a password."""
        return bool(self._soup.select_one('form input[type="password" i]'))

    @cached_property
    def basket_link(self) -> str:
        """The path of the shop's basket page, as a link of the page tells it; empty where none does."""
        for address, words in self.links:
            path = re.sub(r"^https?://[^/]+", "", address)
            if _BASKET.search(path) or _BASKET.search(words):
                return path
        return ""

    @cached_property
    def forms_that_buy(self) -> tuple[FormRead, ...]:
        """Forms that could put something into a basket: what asks for a password, a search or a mail does not."""
        kinds = {"password", "search", "email"}
        return tuple(form for form in self.forms if not any(field.kind in kinds for field in form.fields))

    @cached_property
    def products(self) -> tuple[ProductTold, ...]:
        """Return the products that the page describes (schema.org)."""
        return tuple(_product(node) for node in self.product_nodes)

    @cached_property
    def product_nodes(self) -> tuple[dict[str, Any], ...]:
        """The page's products as JSON-LD tells them; the variants of a group lie in it."""
        variants = [id(v) for node in self.schema for v in _listed(node.get("hasVariant"))]
        return tuple(node for node in self.schema if _is_product(node) and id(node) not in variants)

    @cached_property
    def own_code(self) -> str:
        """The code of the one product that the page is about, empty where it is about none or several.

        That is the only one that it describes, or the only one whose address is the page's own or its canonical one
        (RFC 6596).
        """
        codes = ((text_of(node.get("sku") or node.get("productGroupID")), node) for node in self.product_nodes)
        addressed = [(code, path_of(text_of(node.get("url")))) for code, node in codes if code]
        if len({code for code, _ in addressed}) == 1:
            return addressed[0][0]
        here = {self._path, path_of(self.attribute('link[rel="canonical"]', "href"))} - {""}
        own = {code for code, path in addressed if path in here}
        return own.pop() if len(own) == 1 else ""

    @cached_property
    def schema(self) -> tuple[dict[str, Any], ...]:
        """Every node of the page's JSON-LD, whatever list it stands in."""
        return tuple(node for tag in self._soup.select(_LD) for node in _nodes(tag.get_text()))

    @cached_property
    def broken_schema(self) -> int:
        """How many scripts of JSON-LD are no JSON."""
        return sum(not _is_json(tag.get_text()) for tag in self._soup.select(_LD))

    def own_buttons(self, placement: str) -> tuple[str, ...]:
        """Return the words of the shop's own buttons in the places of a kind."""
        inside = self._soup.select(f'[data-up-place="{placement}"] :is(button, a, input[type="submit"])')
        return tuple(" ".join((tag.get_text(" ") or text_of(tag.get("value"))).split()) for tag in inside)


def path_of(address: str) -> str:
    """Return an address's path; nothing where it cannot be read."""
    try:
        return urlsplit(address).path
    except ValueError:
        return ""


def _listed(value: Any) -> list[Any]:
    return value if isinstance(value, list) else [] if value is None else [value]


def text_of(value: object) -> str:
    """Return an attribute's value as it is written; nothing where there is none."""
    return " ".join(value) if isinstance(value, list) else str(value or "")


def _form(tag: Tag) -> FormRead:
    submits = tag.select('button, input[type="submit"]')
    words = " ".join((s.get_text(" ") or text_of(s.get("value"))).strip() for s in submits)
    fields = tuple(_fields(tag))
    return FormRead(text_of(tag.get("action")), text_of(tag.get("method")).lower() or "get", fields, words)


def _fields(form: Tag) -> Iterator[FormField]:
    radios: dict[str, list[str]] = {}
    for tag in form.select("input[name], select[name], textarea[name]"):
        name, kind = text_of(tag.get("name")), text_of(tag.get("type")).lower() or "text"
        required = tag.has_attr("required")
        if tag.name == "select":
            option_values = [text_of(o.get("value", o.get_text())) for o in tag.select("option")]
            yield FormField(name, "select", "", tuple(filter(None, option_values)), required)
        elif tag.name == "textarea":
            yield FormField(name, "textarea", tag.get_text(), (), required)
        elif kind == "radio":
            radios.setdefault(name, []).append(text_of(tag.get("value")))
        elif kind not in {"submit", "button", "image", "reset"}:
            yield FormField(name, kind, text_of(tag.get("value")), (), required)
    for name, values in radios.items():
        yield FormField(name, "radio", "", tuple(values), True)


def _nodes(text: str) -> Iterator[dict[str, Any]]:
    try:
        data = json.loads(text)
    except (ValueError, RecursionError):
        return
    waiting = [data]
    while waiting:
        node = waiting.pop(0)
        if isinstance(node, list):
            waiting = [*node, *waiting]
        elif isinstance(node, dict):
            yield node
            waiting = [*(node[key] for key in _HOLDERS if key in node), *waiting]


def _is_json(text: str) -> bool:
    try:
        json.loads(text)
    except (ValueError, RecursionError):
        return False
    return True


def _is_product(node: dict[str, Any]) -> bool:
    kinds = node.get("@type")
    named = kinds if isinstance(kinds, list) else [kinds]
    return any(re.search(r"\bProduct(Group)?$", str(kind)) for kind in named)


def _product(node: dict[str, Any]) -> ProductTold:
    offers = node.get("offers")
    offer = (offers[0] if isinstance(offers, list) and offers else offers) or {}
    offer = offer if isinstance(offer, dict) else {}
    return ProductTold(
        sku=str(node.get("sku") or node.get("productGroupID") or ""),
        name=str(node.get("name") or ""),
        price=str(offer.get("price") or ""),
        currency=str(offer.get("priceCurrency") or ""),
        availability=str(offer.get("availability") or "").rpartition("/")[2],
    )
