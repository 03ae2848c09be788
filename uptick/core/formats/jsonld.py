"""A catalogue as schema.org JSON-LD.

Source:
    schema.org: Product, ProductGroup, Offer, ItemAvailability, UnitPriceSpecification, TypeAndQuantityNode.
"""

import json
from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from uptick.core.errors import BadCatalogue
from uptick.core.formats.product_fields import product_from, row_of
from uptick.core.shop.catalogue import Line, Product

_HOLDERS = ("@graph", "itemListElement", "item", "mainEntity")
_KINDS = {"Product", "ProductGroup"}


def products_from_jsonld(text: str, known: Mapping[str, Product], currency: str) -> Iterator[Line]:
    """Yield numbered products, or reasons why one cannot be taken. What a node does not tell stays as it is known.

    Raises:
        BadCatalogue: It is not JSON, or holds no product.
    """
    try:
        told = json.loads(text, parse_float=str, parse_int=str)
    except json.JSONDecodeError as error:
        raise BadCatalogue(f"Line {error.lineno} is not JSON: {error.msg}.") from error
    except RecursionError as error:
        raise BadCatalogue("The JSON is nested too deeply to hold products.") from error
    nodes = [node for node in _nodes(told) if _kinds(node) & _KINDS]
    if not nodes:
        raise BadCatalogue("The file holds no Product and no ProductGroup of schema.org.")
    for number, node in enumerate(nodes, 1):
        row = {name: value for name, value in _row(node).items() if value or name in _told_by(node)}
        sku = row.get("sku", "")
        try:
            yield Line(number, sku, product_from(row, currency, known.get(sku)))
        except ValueError as error:
            yield Line(number, sku, str(error))


_OF_OFFER = {"price", "was", "availability", "available_from", "set_of"}


def _told_by(node: dict[str, Any]) -> set[str]:
    """Return what a node tells even where it has no value for it: an offer without a price has none."""
    told = _OF_OFFER if node.get("offers") else set[str]()
    return told | ({"option_name", "option_values"} if "Product" in _kinds(node) else set())


def _nodes(value: Any) -> Iterator[dict[str, Any]]:
    if isinstance(value, list):
        for one in value:
            yield from _nodes(one)
    elif isinstance(value, dict):
        yield value
        for key in _HOLDERS:
            yield from _nodes(value.get(key))


def _kinds(node: dict[str, Any]) -> set[str]:
    return {_local(kind) for kind in _many(node.get("@type"))}


def _local(term: Any) -> str:
    """Return a term of schema.org without its address."""
    return str(term).rpartition("/")[2].rpartition(":")[2]


def _many(value: Any) -> list[Any]:
    return value if isinstance(value, list) else [] if value is None else [value]


def _one(value: Any) -> dict[str, Any]:
    first = next(iter(_many(value)), None)
    return first if isinstance(first, dict) else {}


def _text(value: Any) -> str:
    first = next(iter(_many(value)), "")
    if isinstance(first, dict):
        first = first.get("name") or first.get("url") or first.get("@id") or first.get("@value") or ""
    return str(first).strip()


def _row(node: dict[str, Any]) -> dict[str, str]:
    offer = _one(node.get("offers"))
    variants = [one for one in _many(node.get("hasVariant")) if isinstance(one, dict)]
    told = _local(_text(offer.get("availability")))
    availability = {
        "InStock": "in_stock",
        "PreOrder": "pre_order",
        "PreSale": "pre_order",
        "OutOfStock": "sold_out",
        "SoldOut": "sold_out",
    }
    prices = [one for one in _many(offer.get("priceSpecification")) if isinstance(one, dict)]
    was = next((p for p in prices if _local(_text(p.get("priceType"))) in {"StrikethroughPrice", "ListPrice"}), {})
    inside = [_one(part.get("typeOfGood")) for part in _many(offer.get("includesObject")) if isinstance(part, dict)]
    name = _text(node.get("name"))
    return {
        "sku": _text(node.get("sku") or node.get("productGroupID")),
        "name": name,
        "category": _text(node.get("category")),
        "price": _text(offer.get("price") or offer.get("lowPrice")),
        "currency": _text(offer.get("priceCurrency")),
        "url": _text(node.get("url") or offer.get("url")),
        "picture": _text(node.get("image")),
        "stock": _text(_one(offer.get("inventoryLevel")).get("value")),
        "option_name": _local(_text(node.get("variesBy"))),
        "option_values": "|".join(_text(v.get("name")).removeprefix(f"{name}, ") for v in variants),
        "tax": _text(_property(node, "taxPercent")),
        "was": _text(was.get("price")),
        "availability": availability.get(told, ""),
        "available_from": _text(offer.get("availabilityStarts"))[:10],
        "set_of": "|".join(_text(one.get("sku")) for one in inside),
    }


def _property(node: dict[str, Any], name: str) -> Any:
    properties = [one for one in _many(node.get("additionalProperty")) if isinstance(one, dict)]
    return next((one.get("value") for one in properties if one.get("name") == name), "")


def write_jsonld(products: Sequence[Product]) -> str:
    """Return a catalogue as JSON-LD; reading it back changes nothing. Its context needs nothing fetched."""
    graph = [_node(product) for product in products]
    return json.dumps({"@context": {"@vocab": "https://schema.org/"}, "@graph": graph}, ensure_ascii=False, indent=1)


def _node(product: Product) -> dict[str, Any]:
    row = row_of(product)
    available = "OutOfStock" if product.stock <= 0 else "PreOrder" if product.pre_order else "InStock"
    offer: dict[str, Any] = {
        "@type": "Offer",
        "price": row["price"],
        "priceCurrency": product.currency,
        "availability": f"https://schema.org/{available}",
        "availabilityStarts": row["available_from"],
        "inventoryLevel": {"@type": "QuantitativeValue", "value": product.stock},
    }
    if product.was_minor is not None:
        strike = "https://schema.org/StrikethroughPrice"
        offer["priceSpecification"] = {
            "@type": "UnitPriceSpecification", "priceType": strike, "price": row["was"],
            "priceCurrency": product.currency,
        }  # fmt: skip
    if product.set_of:
        offer["includesObject"] = [
            {"@type": "TypeAndQuantityNode", "amountOfThisGood": 1, "typeOfGood": {"@type": "Product", "sku": sku}}
            for sku in product.set_of
        ]
    node: dict[str, Any] = {
        "@type": "ProductGroup" if product.option_values else "Product",
        "sku": product.sku,
        "name": product.name,
        "category": product.category,
        "url": product.url,
        "image": product.picture,
        "variesBy": product.option_name,
        "hasVariant": [{"@type": "Product", "name": f"{product.name}, {value}"} for value in product.option_values],
        "offers": {key: value for key, value in offer.items() if value not in ("", [])},
    }
    if row["tax"]:
        node["additionalProperty"] = {"@type": "PropertyValue", "name": "taxPercent", "value": row["tax"]}
    return {key: value for key, value in node.items() if value not in ("", [])}
