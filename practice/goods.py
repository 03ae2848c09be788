"""The shop's own goods, read from its own catalogue file."""

import csv
from dataclasses import dataclass
from decimal import Decimal
from functools import lru_cache
from pathlib import Path
from typing import Any

CATALOGUE = Path(__file__).parent / "catalogue.csv"

_TOLD = {
    "HV-CEDAR": "Western red cedar, planed and left bare. Two supers, a floor that drains and a roof that stays on in "
    "a gale.",
    "HV-NUC6": "Six frames for a young colony. Carries to the apiary under one arm.",
    "HV-ROOF": "Aluminium outside, twenty millimetres of cork inside.",
    "TL-SMOKER": "Burns for an hour on a handful of hessian. The guard keeps a knee from finding out.",
    "TL-HOOK": "Spring steel, ground on both edges. Lifts a frame by its lug without crushing anybody.",
    "TL-BRUSH": "Real goose wing. Bees dislike plastic bristles and say so.",
    "JV-JACKET": "Three layers of mesh that let the wind in and nothing else. The veil zips off for washing.",
    "JV-VEIL": "Goes over a hat that you own already.",
    "JV-GLOVES": "Thin enough to feel a queen through. Cuffs to the elbow.",
    "JL-HEX48": "Four dozen half-pound jars with gold lids, packed so that none arrives in two.",
    "JL-KRAFT": "Takes a pencil, a rubber stamp and a damp larder.",
    "JL-TANK": "Stainless, with a gate that does not drip. Back in the spring.",
}


@dataclass(frozen=True, slots=True)
class Goods:
    sku: str
    name: str
    category: str
    price: Decimal
    stock: int
    option_name: str
    options: tuple[str, ...]
    told: str

    @property
    def is_sold_out(self) -> bool:
        return self.stock <= 0

    @property
    def price_text(self) -> str:
        return f"£{self.price:,.2f}"

    def as_schema(self, origin: str) -> dict[str, Any]:
        """Return the product as schema.org's JSON-LD, a group where a choice has to be made."""
        offer = {
            "@type": "Offer",
            "price": f"{self.price:.2f}",
            "priceCurrency": "GBP",
            "availability": f"https://schema.org/{'OutOfStock' if self.is_sold_out else 'InStock'}",
        }
        product: dict[str, Any] = {
            "@type": "Product",
            "sku": self.sku,
            "name": self.name,
            "category": self.category,
            "url": f"{origin}/p/{self.sku}",
            "image": f"{origin}/pictures/{self.sku}.svg",
            "offers": offer,
        }
        if self.options:
            product["@type"] = "ProductGroup"
            product["variesBy"] = self.option_name
            product["hasVariant"] = [
                {"@type": "Product", "sku": f"{self.sku}-{n}", "name": f"{self.name}, {option}"}
                for n, option in enumerate(self.options, 1)
            ]
        return product


@lru_cache(maxsize=1)
def all_goods() -> dict[str, Goods]:
    with CATALOGUE.open(encoding="utf-8", newline="") as file:
        return {
            row["sku"]: Goods(
                row["sku"],
                row["name"],
                row["category"],
                Decimal(row["price"]),
                int(row["stock"]),
                row["option_name"],
                tuple(filter(None, row["option_values"].split("|"))),
                _TOLD[row["sku"]],
            )
            for row in csv.DictReader(file)
        }


def categories() -> dict[str, str]:
    """Return names by the last part of their address."""
    return {
        name.lower().replace(" & ", "-").replace(" ", "-"): name
        for name in {g.category: 0 for g in all_goods().values()}
    }
