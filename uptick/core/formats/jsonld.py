"""A catalogue as schema.org JSON-LD.

Source:
    schema.org: Product, ProductGroup, Offer, ItemAvailability, UnitPriceSpecification, TypeAndQuantityNode.
"""

import json
from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from uptick.core.errors import BadCatalogue
from uptick.core.formats.offers import Node, Offered, as_decimal, local, many, offered, text
from uptick.core.formats.product_fields import product_from, row_of
from uptick.core.shop.catalogue import CatalogueLine, Product

# Where nodes stand within others; what is offered and chosen among is looked at with its product.
_HOLDERS = (
    "@graph", "itemListElement", "item", "mainEntity", "hasVariant", "isVariantOf", "offers", "itemOffered", "hasPart",
    "@included",
)  # fmt: skip
_KINDS = {"Product", "ProductGroup"}


def products_from_jsonld(file: str, known: Mapping[str, Product], currency: str) -> Iterator[CatalogueLine]:
    """Yield numbered products, or reasons why one cannot be taken. What a node does not tell stays as it is known.

    Raises:
        BadCatalogue: It is not JSON, or holds no product.
    """
    try:
        data = json.loads(file, parse_float=str, parse_int=str)
    except json.JSONDecodeError as error:
        raise BadCatalogue(f"Line {error.lineno} is not JSON: {error.msg}.") from error
    except RecursionError as error:
        raise BadCatalogue("The JSON is nested too deeply to hold products.") from error
    linked = _Linked(data)
    nodes = linked.products()
    if not nodes:
        raise BadCatalogue("The file holds no Product and no ProductGroup of schema.org.")
    for number, node in enumerate(nodes, 1):
        sku = text(node.get("sku") or node.get("productGroupID"))
        try:
            row, notes = _row(node, linked, currency)
            told_ = _told_by(node, row)
            row = {name: value for name, value in row.items() if value or name in told_}
            yield CatalogueLine(number, sku, product_from(row, currency, known.get(sku)), tuple(notes))
        except ValueError as error:
            yield CatalogueLine(number, sku, str(error))


_OF_OFFER = {"price", "was", "availability", "available_from", "set_of"}


def _told_by(node: Node, row: Mapping[str, str]) -> set[str]:
    """Return what a node tells even where it has no value for it: an offer without a price has none."""
    fields_told = _OF_OFFER if node.get("offers") or row.get("price") else set[str]()
    return fields_told | ({"option_name", "option_values"} if "Product" in _kinds(node) else set())


class _Linked:
    """The nodes of a file, by their ids: what one only names another one says (JSON-LD 1.1, section 3.3)."""

    def __init__(self, data: Any) -> None:
        self._all = list(_nodes(data))
        self._by_id: dict[str, dict[str, Any]] = {}
        for node in self._all:
            name = node.get("@id")
            if isinstance(name, str) and len(node) > 1:
                # Several nodes of one id say one thing together.
                self._by_id[name] = {**self._by_id.get(name, {}), **node}
        # Choices that name their group, by its id and by its code.
        self._of_group: dict[str, list[dict[str, Any]]] = {}
        for node in self._all:
            if "Product" in _kinds(node):
                groups = {
                    str(parent["@id"])
                    for parent in many(node.get("isVariantOf"))
                    if isinstance(parent, dict) and "@id" in parent
                }
                for group in groups | {text(node.get("inProductGroupWithID"))} - {""}:
                    self._of_group.setdefault(group, []).append(self._by_id.get(str(node.get("@id", "")), node))

    def whole(self, value: Any) -> Any:
        """Return a node with all that is said of it elsewhere in the file; other values as they are."""
        if isinstance(value, dict) and isinstance(name := value.get("@id"), str):
            return self._by_id.get(name, value)
        return value

    def wholes(self, value: Any) -> list[dict[str, Any]]:
        whole_nodes = (self.whole(node) for node in many(value))
        return [entry for entry in whole_nodes if isinstance(entry, dict)]

    def products(self) -> list[dict[str, Any]]:
        """Return products and groups, each once, in the file's order; what is a choice of a group is not one itself."""
        by_identity: dict[int, dict[str, Any]] = {}
        for node in self._all:
            if _kinds(node) & _KINDS and set(node) - {"@id", "@type"}:
                merged = self._by_id.get(str(node.get("@id", "")), node)
                by_identity.setdefault(id(merged), merged)
        groups = [node for node in by_identity.values() if "ProductGroup" in _kinds(node)]
        inside = {id(variant) for group in groups for variant in self.wholes(group.get("hasVariant"))}
        named = {text(group.get("productGroupID")) for group in groups} - {""}
        ids = {group["@id"] for group in groups if isinstance(group.get("@id"), str)}
        return [
            node
            for key, node in by_identity.items()
            # A group is no choice of a group, not even of itself.
            if "ProductGroup" in _kinds(node)
            or (
                key not in inside
                and text(node.get("inProductGroupWithID")) not in named
                and not any(isinstance(of, dict) and of.get("@id") in ids for of in many(node.get("isVariantOf")))
            )
        ]

    def variants(self, group: Node) -> list[dict[str, Any]]:
        """Return the choices of a group: those that it names, and those that name it."""
        by_identity = {id(whole): whole for whole in self.wholes(group.get("hasVariant"))}
        for name in (group.get("@id"), text(group.get("productGroupID"))):
            if isinstance(name, str) and name:
                by_identity |= {id(member): member for member in self._of_group.get(name, ())}
        return list(by_identity.values())


def _nodes(value: Any) -> Iterator[dict[str, Any]]:
    """Yield all nodes of a file in its order, wherever they stand."""
    waiting: list[Iterator[Any]] = [iter([value])]
    while waiting:
        node = next(waiting[-1], _END)
        if node is _END:
            waiting.pop()
        elif isinstance(node, list):
            waiting.append(iter(node))
        elif isinstance(node, dict):
            yield node
            waiting.append(iter([node[key] for key in _HOLDERS if key in node]))


_END = object()


def _kinds(node: Node) -> set[str]:
    return {local(kind) for kind in many(node.get("@type"))}


def _row(node: Node, linked: _Linked, currency: str) -> tuple[dict[str, str], list[str]]:
    """Return a product as named texts, and what was chosen.

    Raises:
        ValueError: Something of it is none of schema.org's.
    """
    variants = linked.variants(node)
    offers = _whole_offers(node, linked)
    chosen_offer = offered(offers, currency)
    notes = chosen_offer.notes
    if not offers and variants:
        chosen_offer = _of_variants(variants, linked, currency)
        notes = chosen_offer.notes
    inside = [
        linked.whole(next(iter(many(part.get("typeOfGood"))), None))
        for offer in offers
        for part in many(offer.get("includesObject"))
        if isinstance(part, dict)
    ]
    name = text(node.get("name"))
    varies = local(text(node.get("variesBy")))
    row = {
        "sku": text(node.get("sku") or node.get("productGroupID")),
        "name": name,
        "category": text(node.get("category")),
        "picture": _picture(node),
        "option_name": varies,
        "option_values": "|".join(_choice(variant, name, varies) for variant in variants),
        "tax": text(_property(node, "taxPercent")),
        "set_of": "|".join(text(member.get("sku")) for member in inside if isinstance(member, dict)),
        **chosen_offer.row,
        "url": text(node.get("url")) or chosen_offer.row.get("url", ""),
    }
    return row, notes


def _whole_offers(node: Node, linked: _Linked) -> list[dict[str, Any]]:
    return [
        {**offer, "offers": linked.wholes(offer.get("offers"))} if offer.get("offers") else offer
        for offer in linked.wholes(node.get("offers"))
    ]


def _of_variants(variants: Sequence[Node], linked: _Linked, currency: str) -> Offered:
    """Return what the offers of a group's choices come to: the lowest of their prices, to be had where one is."""
    each = [variant for variant in (offered(_whole_offers(v, linked), currency) for v in variants) if variant.row]
    if not each:
        return Offered()
    to_be_had = [variant for variant in each if variant.row["availability"] != "sold_out"] or each
    lowest = min(to_be_had, key=lambda variant: as_decimal(variant.row["price"]))
    prices = sorted({variant.row["price"] for variant in to_be_had if variant.row["price"]}, key=as_decimal)
    notes = [note for variant in each for note in variant.notes]
    if len(prices) > 1:
        notes.append(f"its choices cost from {prices[0]} to {prices[-1]}; the lowest was taken")
    if len(to_be_had) < len(each):
        notes.append(f"{len(each) - len(to_be_had)} of its {len(each)} choices are sold out")
    stock = [variant.row["stock"] for variant in to_be_had if variant.row["stock"].isdigit()]
    return Offered({**lowest.row, "stock": str(sum(map(int, stock))) if stock else "", "url": ""}, notes)


def _choice(variant: Node, group: str, varies: str) -> str:
    """Return what a choice is called: by what its group varies by, else by its name without the group's."""
    value = text(variant.get(varies)) if varies else ""
    return (
        value or text(variant.get("name")).removeprefix(group).lstrip(" ,-–—/(").rstrip(")") or text(variant.get("sku"))
    )


def _picture(node: Node) -> str:
    first = next(iter(many(node.get("image"))), "")
    if isinstance(first, dict):
        return text(first.get("contentUrl") or first.get("url") or first.get("@id"))
    return text(first)


def _property(node: Node, name: str) -> Any:
    properties = [entry for entry in many(node.get("additionalProperty")) if isinstance(entry, dict)]
    return next((prop.get("value") for prop in properties if prop.get("name") == name), "")


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
