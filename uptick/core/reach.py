"""What an exception covers, and which of two is the more particular."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Annotated

from pydantic import Field

from uptick.core.document import Part, Placement, Situation
from uptick.core.errors import BadReach


@dataclass(frozen=True, slots=True)
class Context:
    """Where a button stands and for what: the question that resolution answers.

    A product that nobody knows has neither code nor category nor, for a reach, a situation.
    """

    placement: Placement
    product: str
    category: str
    situation: Situation | None


Names = Annotated[tuple[str, ...], Field(max_length=500)]


class Reach(Part):
    """The contexts that a layer covers. An empty list narrows nothing."""

    products: Names = ()
    categories: Names = ()
    situations: tuple[Situation, ...] = ()
    placements: tuple[Placement, ...] = ()

    def covers(self, context: Context) -> bool:
        return (
            (not self.products or context.product in self.products)
            and (not self.categories or context.category in self.categories)
            and (not self.situations or context.situation in self.situations)
            and (not self.placements or context.placement in self.placements)
        )

    def covers_product(self, product: str, category: str) -> bool:
        return (not self.products or product in self.products) and (not self.categories or category in self.categories)

    def particularity(self) -> tuple[bool, bool, bool, bool]:
        """Return what is compared, left to right, as the specificity of CSS selectors is."""
        return bool(self.products), bool(self.categories), bool(self.situations), bool(self.placements)

    def in_words(self, names: Mapping[str, str] | None = None) -> str:
        """Return the reach as a designer would say it; `names` gives products' names by their codes."""
        parts = [
            *((names or {}).get(sku, sku) for sku in self.products),
            *self.categories,
            *(s.replace("_", " ") for s in self.situations),
        ]
        where = " and ".join(p.replace("_", " ") for p in self.placements)
        said = ", ".join(parts) or "every product"
        return f"{said}, on the {where}" if where else said


def require_known(reach: Reach, products: Iterable[str], categories: Iterable[str]) -> None:
    """Refuse a reach that names a product or a category which the catalogue does not hold.

    Raises:
        BadReach: Names what is unknown and, for categories, what there is.
    """
    known_products, known_categories = set(products), set(categories)
    for sku in reach.products:
        if sku not in known_products:
            raise BadReach(f"No product has the code {sku!r}.", field="products", value=sku)
    for category in reach.categories:
        if category not in known_categories:
            allowed = ", ".join(sorted(known_categories))
            raise BadReach(f"There is no category {category!r}. There are: {allowed}.", field="categories")
