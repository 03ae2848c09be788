"""Search over products, exceptions and findings; commands are the screens' own."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from uptick.core.checks import findings_of
from uptick.core.shop.catalogue import Product
from uptick.usecases.ports import Shop


@dataclass(frozen=True, slots=True)
class Found:
    """One thing that was found; `id` is a product's code, an exception's id, or a finding's rule and title."""

    kind: Literal["product", "exception", "finding"]
    id: str
    title: str
    says: str


MOST = 8


def search(shop: Shop, text: str) -> tuple[Found, ...]:
    """Return what contains every word of a text, names that begin with it first; at most eight of a kind."""
    words = text.casefold().split()
    if not words:
        return ()
    snapshot = shop.now()
    settings = snapshot.settings
    products = [Found("product", p.sku, p.name, f"{p.sku}, {p.category}") for p in _products_with(shop, words)[:MOST]]
    rules = [Found("exception", r.id, r.name, r.note) for r in settings.exceptions]
    findings = findings_of(snapshot)
    finding_matches = [Found("finding", f"{f.rule}/{f.title}", f.title, f.says) for f in findings]
    others = [
        match
        for match in (*rules, *finding_matches)
        if all(word in f"{match.title} {match.says}".casefold() for word in words)
    ]
    kinds = {kind: [other for other in others if other.kind == kind][:MOST] for kind in ("exception", "finding")}
    return (*products, *kinds["exception"], *kinds["finding"])


@dataclass(frozen=True, slots=True)
class ProductsView:
    """The first products that contain every word that was asked for, and how many there are."""

    products: tuple[Product, ...]
    total: int


MOST_PRODUCTS = 50


def view_products(shop: Shop, text: str) -> ProductsView:
    """Return the products that contain every word of a text, names that begin with it first; without words, all."""
    words = text.casefold().split()
    products = _products_with(shop, words) if words else shop.catalogue.all()
    return ProductsView(tuple(products[:MOST_PRODUCTS]), len(products))


def _products_with(shop: Shop, words: Sequence[str]) -> list[Product]:
    having = [
        product
        for product in shop.catalogue.all()
        if all(word in f"{product.name}\n{product.sku}\n{product.category}".casefold() for word in words)
    ]
    return sorted(having, key=lambda product: (not product.name.casefold().startswith(words[0]), product.name))
