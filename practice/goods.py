"""The shop's own goods, read from its own catalogue file."""

import csv
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal
from functools import lru_cache
from pathlib import Path
from typing import Any

CATALOGUE = Path(__file__).parent / "catalogue.csv"


# What costs otherwise or is gone in one of its kinds; the rest is as the catalogue has it.
_PRICES = {
    ("HV-SUPER", "Dadant"): Decimal("48.00"),
    ("JL-STAMP", "Large"): Decimal("31.00"),
    ("JV-SUIT", "Extra large"): Decimal("104.00"),
}
_GONE = {("JV-JACKET", "Small"), ("TL-MARK", "Green")}
# What schema.org calls the properties by which products differ; others stand among the additional ones.
_PROPERTIES = {"Size": "size", "Colour": "color"}


@dataclass(frozen=True, slots=True)
class Goods:
    sku: str
    name: str
    category: str
    price: Decimal | None
    stock: int
    option_name: str
    options: tuple[str, ...]
    told: str
    tax: Decimal
    was: Decimal | None
    is_pre_order: bool
    available_from: str
    set_of: tuple[str, ...]

    @property
    def is_sold_out(self) -> bool:
        return self.stock <= 0

    @property
    def price_text(self) -> str:
        return f"£{self.price:,.2f}" if self.price is not None else "Price on asking"

    @property
    def was_text(self) -> str:
        return f"£{self.was:,.2f}" if self.was is not None else ""

    def price_of(self, option: str) -> Decimal | None:
        """Return what one of its kinds costs."""
        return _PRICES.get((self.sku, option), self.price)

    def is_gone(self, option: str) -> bool:
        """Tell whether one of its kinds is sold out."""
        return self.is_sold_out or (self.sku, option) in _GONE

    @property
    def net(self) -> Decimal:
        """Return the price without tax, to the penny, halves upward."""
        return ((self.price or Decimal(0)) / (1 + self.tax / 100)).quantize(Decimal("0.01"), ROUND_HALF_UP)

    def as_schema(self, origin: str) -> dict[str, Any]:
        """Return the product as schema.org's JSON-LD, a group where a choice has to be made."""
        available = "OutOfStock" if self.is_sold_out else "PreOrder" if self.is_pre_order else "InStock"
        offer: dict[str, Any] = {
            "@type": "Offer",
            "priceCurrency": "GBP",
            "availability": f"https://schema.org/{available}",
            "inventoryLevel": {"@type": "QuantitativeValue", "value": self.stock},
        }
        if self.price is not None:
            offer["price"] = f"{self.price:.2f}"
            net = {"@type": "UnitPriceSpecification", "price": f"{self.net:.2f}", "valueAddedTaxIncluded": False}
            offer["priceSpecification"] = [net]
        if self.was is not None:
            strike = {"@type": "UnitPriceSpecification", "price": f"{self.was:.2f}"}
            strike["priceType"] = "https://schema.org/StrikethroughPrice"
            offer["priceSpecification"].append(strike)
        if self.available_from:
            offer["availabilityStarts"] = self.available_from
        if self.set_of:
            offer["includesObject"] = [
                {"@type": "TypeAndQuantityNode", "typeOfGood": {"@type": "Product", "sku": sku}} for sku in self.set_of
            ]
        product: dict[str, Any] = {
            "@type": "Product",
            "sku": self.sku,
            "name": self.name,
            "category": self.category,
            "url": f"{origin}/p/{self.sku}",
            "image": f"{origin}/pictures/{self.sku}.svg",
            "description": self.told,
            "offers": offer,
        }
        if self.options:
            product["@type"] = "ProductGroup"
            product["variesBy"] = self.option_name
            product["hasVariant"] = [self._variant(n, option, origin) for n, option in enumerate(self.options, 1)]
        return product

    def _variant(self, n: int, option: str, origin: str) -> dict[str, Any]:
        prop = {"@type": "PropertyValue", "name": self.option_name, "value": option}
        known = _PROPERTIES.get(self.option_name)
        return {
            "@type": "Product",
            "sku": f"{self.sku}-{n}",
            "name": f"{self.name}, {option}",
            "image": f"{origin}/pictures/{self.sku}.svg?kind={n}",
            **({known: option} if known else {"additionalProperty": [prop]}),
            "offers": {
                "@type": "Offer",
                "price": f"{self.price_of(option) or 0:.2f}",
                "priceCurrency": "GBP",
                "availability": f"https://schema.org/{'OutOfStock' if self.is_gone(option) else 'InStock'}",
            },
        }


@lru_cache(maxsize=1)
def all_goods() -> dict[str, Goods]:
    with CATALOGUE.open(encoding="utf-8", newline="") as file:
        return {
            row["sku"]: Goods(
                row["sku"],
                row["name"],
                row["category"],
                _amount(row["price"]),
                int(row["stock"]),
                row["option_name"],
                tuple(filter(None, row["option_values"].split("|"))),
                row["told"],
                Decimal(row["tax"] or 0),
                _amount(row["was"]),
                row["availability"] == "pre_order",
                row["available_from"],
                tuple(filter(None, row["set_of"].split("|"))),
            )
            for row in csv.DictReader(file)
        }


def _amount(text: str) -> Decimal | None:
    return Decimal(text) if text else None


def goes_with(goods: Goods) -> list[Goods]:
    """Return three other goods of the same kind, in stock first."""
    others = [g for g in all_goods().values() if g.category == goods.category and g.sku != goods.sku]
    return sorted(others, key=lambda g: g.is_sold_out)[:3]


def categories() -> dict[str, str]:
    """Return names by the last part of their address."""
    return {
        name.lower().replace(" & ", "-").replace(" ", "-"): name
        for name in {g.category: 0 for g in all_goods().values()}
    }
