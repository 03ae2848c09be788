"""What schema.org's offers say of a product: which of several was taken, and why."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from decimal import Decimal, InvalidOperation
from typing import Any

Node = Mapping[str, Any]
# schema.org, ItemAvailability: all of its members (version 29, from memory; a test holds them to rdflib's namespace).
AVAILABILITY = {
    "InStock": "in_stock",
    "LimitedAvailability": "in_stock",
    "OnlineOnly": "in_stock",
    "MadeToOrder": "in_stock",
    "PreOrder": "pre_order",
    "PreSale": "pre_order",
    "BackOrder": "pre_order",
    "OutOfStock": "sold_out",
    "SoldOut": "sold_out",
    "Discontinued": "sold_out",
    "Reserved": "sold_out",
    "InStoreOnly": "sold_out",
}
# Of these ours has the nearest.
_MORE_THAN_WE_SAY = ("MadeToOrder", "LimitedAvailability", "BackOrder", "InStoreOnly", "Discontinued", "Reserved")
# What is not the price to pay: before a reduction, recommended, for members.
_FORMER = {"StrikethroughPrice", "ListPrice", "SRP", "MSRP"}


@dataclass
class Offered:
    """Price, availability and the like of one product, as texts, with sentences on what was taken."""

    row: dict[str, str] = field(default_factory=dict)
    notes: list[str] = field(default_factory=list)


def local(term: Any) -> str:
    """Return a term of schema.org without its address."""
    return str(term).rpartition("/")[2].rpartition(":")[2]


def many(value: Any) -> list[Any]:
    """Return a value as a list: JSON-LD writes one thing with or without."""
    return value if isinstance(value, list) else [] if value is None else [value]


def text(value: Any) -> str:
    """Return the text of a value: of a node its name, address or @value; of several the first."""
    first = next(iter(many(value)), "")
    if isinstance(first, Mapping):
        first = first.get("name") or first.get("url") or first.get("@id") or first.get("@value") or ""
    return str(first).strip()


def offered(offers: Any, currency: str) -> Offered:
    """Return what a product's offers come to.

    Of several the one in the store's currency that is in stock and the cheapest is taken, and this is told.

    Raises:
        ValueError: An availability is none of schema.org's.
    """
    best = Offered()
    those = [offer for offer in many(offers) if isinstance(offer, Mapping)]
    if not those:
        return best
    flat: list[Node] = []
    for node in those:
        inner = [inner for inner in many(node.get("offers")) if isinstance(inner, Mapping)]
        flat += inner or [node]
    taken = min(flat, key=lambda node: _rank(node, currency))
    if len(flat) > 1:
        why = "the cheapest that can be had" if text(taken.get("priceCurrency")) in ("", currency) else "the cheapest"
        best.notes.append(f"of {len(flat)} offers {why} was taken: {_price(taken)[0] or 'without a price'}")
    price, was = _price(taken)
    low, high = (text(taken.get(name)) for name in ("lowPrice", "highPrice"))
    if not price and low:
        price = low
        if high and high != low:
            best.notes.append(f"its offers go from {low} to {high}; the lowest was taken")
    availability, code = _availability(taken), local(text(taken.get("availability")))
    if code in _MORE_THAN_WE_SAY:
        best.notes.append(f"{code} is taken as {availability.replace('_', ' ')}")
    if _without_tax(taken):
        best.notes.append("its price is without tax (valueAddedTaxIncluded is false) and was taken as it is")
    best.row = {
        "price": price,
        "was": was,
        "currency": text(taken.get("priceCurrency")) or _currency_of(taken),
        "availability": availability,
        "available_from": text(taken.get("availabilityStarts"))[:10],
        "stock": text(_first(taken.get("inventoryLevel")).get("value")),
        "url": text(taken.get("url")),
    }
    return best


def _rank(offer: Node, currency: str) -> tuple[bool, bool, Decimal]:
    return (
        (text(offer.get("priceCurrency")) or _currency_of(offer) or currency) != currency,
        _availability(offer) == "sold_out",
        as_decimal(_price(offer)[0] or text(offer.get("lowPrice"))),
    )


def as_decimal(number_text: str) -> Decimal:
    """Return a price as a number to sort by; what is none comes last."""
    try:
        number = Decimal(number_text)
    except InvalidOperation:
        return Decimal("Infinity")
    return number if number.is_finite() else Decimal("Infinity")


def _availability(offer: Node) -> str:
    code = local(text(offer.get("availability")))
    if code and code not in AVAILABILITY:
        raise ValueError(f"availability is {code!r}; schema.org has {', '.join(sorted(AVAILABILITY))}")
    return AVAILABILITY.get(code, "")


def _specifications(offer: Node) -> Sequence[Node]:
    return [
        specification for specification in many(offer.get("priceSpecification")) if isinstance(specification, Mapping)
    ]


def _price(offer: Node) -> tuple[str, str]:
    """Return the price to pay and the former one."""
    specifications = _specifications(offer)
    former = [
        specification for specification in specifications if local(text(specification.get("priceType"))) in _FORMER
    ]
    now = [specification for specification in specifications if specification not in former]
    sale = next((priced for priced in now if local(text(priced.get("priceType"))) == "SalePrice"), None)
    price = text(offer.get("price")) or text((sale or next(iter(now), {})).get("price"))
    return price, text(next(iter(former), {}).get("price"))


def _currency_of(offer: Node) -> str:
    return next(
        (
            text(specification.get("priceCurrency"))
            for specification in _specifications(offer)
            if specification.get("priceCurrency")
        ),
        "",
    )


def _without_tax(offer: Node) -> bool:
    flags = [
        offer.get("valueAddedTaxIncluded"),
        *(specification.get("valueAddedTaxIncluded") for specification in _specifications(offer)),
    ]
    return any(flag is False or str(flag).lower() == "false" for flag in flags if flag is not None)


def _first(value: Any) -> Node:
    first = next(iter(many(value)), None)
    return first if isinstance(first, Mapping) else {}
