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
    found = Offered()
    those = [offer for offer in many(offers) if isinstance(offer, Mapping)]
    if not those:
        return found
    flat: list[Node] = []
    for one in those:
        inner = [inner for inner in many(one.get("offers")) if isinstance(inner, Mapping)]
        flat += inner or [one]
    taken = min(flat, key=lambda one: _rank(one, currency))
    if len(flat) > 1:
        why = "the cheapest that can be had" if text(taken.get("priceCurrency")) in ("", currency) else "the cheapest"
        found.notes.append(f"of {len(flat)} offers {why} was taken: {_price(taken)[0] or 'without a price'}")
    price, was = _price(taken)
    low, high = (text(taken.get(name)) for name in ("lowPrice", "highPrice"))
    if not price and low:
        price = low
        if high and high != low:
            found.notes.append(f"its offers go from {low} to {high}; the lowest was taken")
    availability, said = _availability(taken), local(text(taken.get("availability")))
    if said in _MORE_THAN_WE_SAY:
        found.notes.append(f"{said} is taken as {availability.replace('_', ' ')}")
    if _without_tax(taken):
        found.notes.append("its price is without tax (valueAddedTaxIncluded is false) and was taken as it is")
    found.row = {
        "price": price,
        "was": was,
        "currency": text(taken.get("priceCurrency")) or _currency_of(taken),
        "availability": availability,
        "available_from": text(taken.get("availabilityStarts"))[:10],
        "stock": text(_first(taken.get("inventoryLevel")).get("value")),
        "url": text(taken.get("url")),
    }
    return found


def _rank(offer: Node, currency: str) -> tuple[bool, bool, Decimal]:
    return (
        (text(offer.get("priceCurrency")) or _currency_of(offer) or currency) != currency,
        _availability(offer) == "sold_out",
        as_decimal(_price(offer)[0] or text(offer.get("lowPrice"))),
    )


def as_decimal(said: str) -> Decimal:
    """Return a price as a number to sort by; what is none comes last."""
    try:
        found = Decimal(said)
    except InvalidOperation:
        return Decimal("Infinity")
    return found if found.is_finite() else Decimal("Infinity")


def _availability(offer: Node) -> str:
    said = local(text(offer.get("availability")))
    if said and said not in AVAILABILITY:
        raise ValueError(f"availability is {said!r}; schema.org has {', '.join(sorted(AVAILABILITY))}")
    return AVAILABILITY.get(said, "")


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
    sale = next((one for one in now if local(text(one.get("priceType"))) == "SalePrice"), None)
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
    said = [
        offer.get("valueAddedTaxIncluded"),
        *(specification.get("valueAddedTaxIncluded") for specification in _specifications(offer)),
    ]
    return any(one is False or str(one).lower() == "false" for one in said if one is not None)


def _first(value: Any) -> Node:
    first = next(iter(many(value)), None)
    return first if isinstance(first, Mapping) else {}
